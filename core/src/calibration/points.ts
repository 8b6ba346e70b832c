/**
 * Points of a calibration: a raw value taken once or several times in one known condition, and what percent it stands for.
 */
import type { Uncertain } from './convertPercent.ts';
import type { SettlingVerdict } from '../settling/settlingWatch.ts';
import { mean, sampleStandardDeviation } from 'simple-statistics';

/** The part of a captured reference that the sums need. */
export type Capture = {
  readonly rawCounts: number;
  readonly noiseCounts: number;
  readonly readings: number;
  readonly settling: { readonly verdict: SettlingVerdict; readonly fromEndCounts: number | null } | null;
};

/** A point as the fit takes it. */
export type FitPoint = {
  readonly counts: number;
  readonly percent: number;
  /** What the raw value may be off by, standard deviations by cause, counts. */
  readonly sigma: {
    /** What the mean of its captures may be off by: from their spread, or what is assumed without. */
    readonly repeat: number;
    /** What a single capture may be off by, for the reading of the buried probe is one more of them. */
    readonly single: number;
    /** It had not settled when it was captured. */
    readonly unsettled: number;
  };
  /** What the known percent may be off by, standard deviation, percent: by itself, and by each cause that all points share. */
  readonly sigmaPercent: number;
  readonly common: readonly number[];
  readonly temperatureC: number | null;
};

/** Assumed of a condition that was captured once: what probes differ by when pushed in again, share of the span. */
export const ASSUMED_REPEAT_FRAC = 0.01;
/** A steady reading may still be so far from its end: standard deviation, share of the span. */
export const STEADY_FRAC = 0.005;
/** Stopped moving means within 1 % of the span, nine times in ten: a standard deviation of this share. */
const STOPPED_SIGMA_FRAC = 0.006;
/** One captured before it was steady, with no end foreseen. */
export const UNSETTLED_FRAC = 0.03;
/** Of few repeats the spread is too small by chance; Student's t for one, two, three … degrees of freedom beside the normal law, at 68 %. */
const FEW = [1.84, 1.32, 1.2, 1.14, 1.11] as const;

/** One condition's raw value: the mean of its captures, and how far it may be off. @param captures at least one */
export function pointOf(
  captures: readonly Capture[],
  known: Uncertain & { readonly temperatureC: number | null },
  spanCounts: number,
): FitPoint {
  const values = captures.map((one) => one.rawCounts);
  const repeat = repeatSigma(captures, spanCounts);
  const unsettled = Math.max(...captures.map((one) => unsettledCounts(one, spanCounts)));
  return {
    counts: mean(values),
    percent: known.percent,
    sigma: { repeat, single: repeat * Math.sqrt(captures.length), unsettled },
    sigmaPercent: known.sigmaPercent,
    common: known.common,
    temperatureC: known.temperatureC,
  };
}

/** Standard deviation of the mean of repeated captures, counts; for a single one what is assumed. */
export function repeatSigma(captures: readonly Capture[], spanCounts: number): number {
  const noise = Math.max(...captures.map((one) => one.noiseCounts / Math.sqrt(Math.max(1, one.readings))));
  if (captures.length < 2) return Math.hypot(ASSUMED_REPEAT_FRAC * spanCounts, noise);
  const spread = sampleStandardDeviation(captures.map((one) => one.rawCounts));
  const few = FEW[captures.length - 2] ?? 1.08;
  return Math.max((few * spread) / Math.sqrt(captures.length), noise);
}

function unsettledCounts({ settling }: Capture, spanCounts: number): number {
  if (settling?.verdict === 'steady') return STEADY_FRAC * spanCounts;
  if (settling?.verdict === 'stopped') return STOPPED_SIGMA_FRAC * spanCounts;
  const away = settling?.fromEndCounts;
  return typeof away === 'number'
    ? Math.max(Math.abs(away), STEADY_FRAC * spanCounts)
    : UNSETTLED_FRAC * spanCounts;
}

/** Distance of the driest from the wettest raw value, counts. */
export const widthOf = (counts: readonly number[]): number =>
  counts.length === 0 ? 0 : Math.max(...counts) - Math.min(...counts);

/** All that a point's percent may be off by when its raw value is turned into percent, standard deviation. */
export const pointSigma = (point: FitPoint, percentPerCount: number): number =>
  Math.hypot(
    percentPerCount * point.sigma.repeat,
    percentPerCount * point.sigma.unsettled,
    point.sigmaPercent,
  );
