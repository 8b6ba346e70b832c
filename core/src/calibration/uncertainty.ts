/**
 * How far a percent may be off, part by part. Each part is a standard deviation in percent of the calibration's kind; ± is twice their root sum of squares: 95 times in 100
 * over made-up probes of every school in worlds that keep none of the assumptions (`bench/calibration`).
 *
 * The curve in use is measured against what its points support by themselves (`support`): what it misses that by, and what that may be off by for the scatter of the
 * captures, the known values, the bend that the points did not show, and the temperature.
 * Source: JCGM 100:2008, Guide to the Expression of Uncertainty in Measurement, 5.1 and 6.3 (choice of the coverage factor).
 */
import { MEDIAN_TO_MEAN, quantisationSigma } from '../signal/resolution.ts';
import type { Assumed } from './assumptions.ts';
import { modelAt, percentPerCount, readCurve, type Curve, type CurveKind } from './curve.ts';
import { fitCurve, type FitSettings } from './fitCurve.ts';
import type { FitPoint } from './points.ts';
import { supportOf, type Support } from './support.ts';

export const PARTS = [
  'noise',
  'quantisation',
  'repeatability',
  'unsettled',
  'known values',
  'fit',
  'temperature',
] as const;
export type Part = (typeof PARTS)[number];
export type Parts = Readonly<Record<Part, number>>;

/** Over the standard deviation. */
export const COVERAGE = 2;

/** All parts together as ±. */
const wholeOf = (parts: Parts): number => COVERAGE * Math.hypot(...Object.values(parts));

export type Uncertainty = {
  readonly parts: Parts;
  /** `COVERAGE` times the root sum of squares, percent of the calibration's kind. */
  readonly plusMinus: number;
};

/** A curve with all that is needed to say how far it may be off. */
export type Calibrated = {
  readonly curve: Curve;
  readonly support: Support;
  /** What pushing the probe in again moves a single reading by, standard deviation, counts. */
  readonly insertionCounts: number;
  /** What probes of one kind differ by, share of the span. */
  readonly unitSpreadFrac: number;
};

/** What the ± of a run's curve goes by. */
export type CalibrateSettings = FitSettings & {
  readonly assumed: Assumed;
  /** Share of the bend that may hide between the points (`bendShare`). */
  readonly bendShare: number;
};

export type ReadingNow = {
  readonly rawCounts: number;
  /** Noise of single readings, and how many the value is the middle of. */
  readonly noiseCounts: number;
  readonly readings: number;
  /** Step that the readings come in, counts; null is taken as one. */
  readonly stepCounts: number | null;
  readonly temperatureC: number | null;
};

/** Everything about a calibration that its ± rests on. Null when the points carry no curve of this kind. */
export function calibrate(
  points: readonly FitPoint[],
  kind: CurveKind,
  settings: CalibrateSettings,
): Calibrated | null {
  const fitted = fitCurve(points, kind, settings);
  if (!fitted.ok) return null;
  const curve = fitted.value;
  const { assumed } = settings;
  const range = curve.wetPercent - curve.dryPercent;
  return {
    curve,
    support: supportOf(points, curve, {
      isDefinition:
        settings.percentKind === 'span' &&
        points.every((point) => point.sigmaPercent === 0 && point.common.length === 0),
      bendPercent: (settings.bendShare * assumed.bend * range) / 100,
      driftPerDegree: (assumed.drift * range) / 100,
      swingC: assumed.swing,
    }),
    insertionCounts: Math.max(0, ...points.map((point) => point.sigma.single)),
    unitSpreadFrac: assumed.unitSpread / 100,
  };
}

/** ± of one reading. Beyond the references the percent is clamped, and the ± grows by what lies beyond. */
export function uncertaintyOf(of: Calibrated, now: ReadingNow): Uncertainty {
  const { curve, support } = of;
  const worth = percentPerCount(curve, now.rawCounts);
  const estimate = support.at(now.rawCounts, now.temperatureC);
  const shown = shownAt(curve, now);
  const parts: Parts = {
    noise: (worth * MEDIAN_TO_MEAN * now.noiseCounts) / Math.sqrt(Math.max(1, now.readings)),
    quantisation: worth * quantisationSigma(now.stepCounts ?? 1),
    repeatability: Math.hypot(estimate.parts.repeatability, worth * of.insertionCounts),
    unsettled: estimate.parts.unsettled,
    'known values': estimate.parts.known,
    fit: Math.min(
      Math.hypot(estimate.parts.fit, shown - estimate.percent),
      mostMissed(support, now.rawCounts, shown),
    ),
    temperature: estimate.parts.temperature,
  };
  return { parts, plusMinus: wholeOf(parts) };
}

/** Wetter is one way along the numbers: between its neighbours a percent cannot be further off than they are, taken as one and a half standard deviations. */
function mostMissed(support: Support, rawCounts: number, shown: number): number {
  const between = support.between(rawCounts);
  return between ? Math.max(shown - between.low, between.high - shown) / 1.5 : Infinity;
}

/** What is shown of a reading. Within the references it is the curve's own word; the temperature may carry it a little past the ends. */
function shownAt(curve: Curve, { rawCounts, temperatureC }: ReadingNow): number {
  const read = readCurve(curve, rawCounts, temperatureC);
  return read.clampedAt ? read.percent : modelAt(curve.shape, rawCounts, temperatureC);
}

/** ± of a reading under a calibration that was copied from a sister probe: its own, and the spread from unit to unit. */
export function asGuess(of: Uncertainty, calibrated: Calibrated, rawCounts: number): Uncertainty {
  const { curve, unitSpreadFrac } = calibrated;
  const spread = unitSpreadFrac * curve.spanCounts * percentPerCount(curve, rawCounts);
  const parts = { ...of.parts, repeatability: Math.hypot(of.parts.repeatability, spread) };
  return { parts, plusMinus: wholeOf(parts) };
}

/** ± along the working range, for a chart: at `count` raw values from dry to wet, as the middle of twelve readings. */
export function bandOf(
  of: Calibrated,
  count: number,
): readonly (Uncertainty & { readonly counts: number; readonly percent: number })[] {
  const { curve } = of;
  return Array.from({ length: count }, (_, at) => {
    const counts = curve.dryCounts + (at / (count - 1)) * (curve.wetCounts - curve.dryCounts);
    const uncertainty = uncertaintyOf(of, {
      rawCounts: counts,
      noiseCounts: curve.noiseCounts,
      readings: 12,
      stepCounts: 1,
      temperatureC: null,
    });
    return { ...uncertainty, counts, percent: readCurve(curve, counts).percent };
  });
}
