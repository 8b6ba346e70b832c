/**
 * Points of a calibration: a raw value taken once or several times in one known condition, and what percent it stands for.
 */
import type { Uncertain } from './convertPercent.ts';
import type { SettlingVerdict } from '../settling/settlingWatch.ts';
import { sampleVariance } from 'simple-statistics';

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

/** A steady reading may still be so far from its end: standard deviation, share of the span. */
export const STEADY_FRAC = 0.003;
/** Stopped moving means within 1 % of the span, nine times in ten: a standard deviation of this share. */
const STOPPED_SIGMA_FRAC = 0.006;
/** One captured before it was steady, with no end foreseen. */
export const UNSETTLED_FRAC = 0.03;
/** As many repeats as the prior counts for: a run with fewer goes mostly by what such probes do, one with more mostly by its own. */
const PRIOR_REPEATS = 3;

/**
 * What a single capture of a condition scatters by, standard deviation, counts: the repeats of all conditions of a run together, pooled with what was known before of such
 * probes (a scaled inverse chi-squared prior). Repeats that agree by chance are not believed blindly, nor is the prior once there are many.
 * Source: Gelman et al. 2013, Bayesian Data Analysis, 2.6 (normal with unknown variance).
 * @param conditions captures of each condition; @param priorFrac of the span
 */
export function scatterOf(
  conditions: readonly (readonly Capture[])[],
  spanCounts: number,
  priorFrac: number,
): number {
  const noises = conditions.flat().map((one) => one.noiseCounts / Math.sqrt(Math.max(1, one.readings)));
  const prior = Math.hypot(priorFrac * spanCounts, Math.max(0, ...noises));
  let squares = PRIOR_REPEATS * prior ** 2;
  let repeats = PRIOR_REPEATS;
  for (const captures of conditions) {
    if (captures.length < 2) continue;
    squares += (captures.length - 1) * sampleVariance(captures.map((one) => one.rawCounts));
    repeats += captures.length - 1;
  }
  return Math.sqrt(squares / repeats);
}

/** One condition's raw value, and how far it may be off. @param captures at least one; @param counts their mean; @param scatter of a single one, counts */
export function pointOf(
  { captures, counts }: { readonly captures: readonly Capture[]; readonly counts: number },
  known: Uncertain & { readonly temperatureC: number | null },
  spanCounts: number,
  scatter: number,
): FitPoint {
  return {
    counts,
    percent: known.percent,
    sigma: {
      repeat: scatter / Math.sqrt(captures.length),
      single: scatter,
      unsettled: Math.max(...captures.map((one) => unsettledCounts(one, spanCounts))),
    },
    sigmaPercent: known.sigmaPercent,
    common: known.common,
    temperatureC: known.temperatureC,
  };
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
