/**
 * How far a percent may be off, part by part. Each part is a standard deviation in percent of the calibration's kind; ± is 2.1 times their root sum
 * of squares (95 times in 100, with something to spare for parts that are themselves guesses).
 *
 * What the references may be off by is carried through the fit itself: each point is moved by its own deviation, the curve is fitted again, and what
 * that does to the reading is its part. So it holds for every kind of curve.
 * Source: JCGM 100:2008, Guide to the Expression of Uncertainty in Measurement, 5.1 (numerical sensitivities) and 6.3 (choice of the coverage factor).
 */
import { student975, Z_975 } from '../quantity/student.ts';
import { MEDIAN_TO_MEAN, quantisationSigma } from '../signal/resolution.ts';
import { modelAt, percentPerCount, readCurve, type Curve, type CurveKind } from './curve.ts';
import { fitCurve, leaveOneOut, LEAST_POINTS, type FitSettings } from './fitCurve.ts';
import type { FitPoint } from './points.ts';

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

/** Over the standard deviation: 95 times in 100 for made-up probes of every school (`bench/calibration.ts`). */
export const COVERAGE = 2.1;

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
  /** Root mean square of what the curve misses its points by, as it would miss new ones, percent. */
  readonly fitSigma: number;
  /** What a degree changes in the reading, percent per °C, and at what the points were taken; unknown without. */
  readonly temperature: { readonly perDegree: number; readonly atC: number; readonly known: boolean } | null;
  /** What pushing the probe in again moves a single reading by, standard deviation, counts. */
  readonly insertionCounts: number;
  /** The curve again, with one point moved by what it may be off by. */
  readonly moved: readonly { readonly part: Part; readonly curve: Curve }[];
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

/** Share of the percent range that a curve through two points may miss the truth by between them, where the kind is one that can be wrong. */
export const UNPROVED_LINE_FRAC = 0.04;
/** Cheap probes drift by about this share of their range per degree; assumed while a calibration has not shown it. */
export const ASSUMED_DRIFT_FRAC = 0.0015;
/** Without a temperature the soil is taken to be so far from that of the calibration, standard deviation, °C. */
export const UNKNOWN_TEMPERATURE_C = 4;

/** Everything about a calibration that its ± rests on. Null when the points carry no curve of this kind. */
export function calibrate(
  points: readonly FitPoint[],
  kind: CurveKind,
  settings: FitSettings,
): Calibrated | null {
  const fitted = fitCurve(points, kind, settings);
  if (!fitted.ok) return null;
  const curve = fitted.value;
  const causes = (point: FitPoint): [Part, Partial<FitPoint>][] => [
    ['repeatability', { counts: point.counts + point.sigma.repeat }],
    ['unsettled', { counts: point.counts + point.sigma.unsettled }],
    ['known values', { percent: point.percent + point.sigmaPercent }],
  ];
  const refit = (part: Part, change: (point: FitPoint, at: number) => FitPoint): Calibrated['moved'] => {
    const again = fitCurve(points.map(change), kind, settings);
    return again.ok ? [{ part, curve: again.value }] : [];
  };
  const alone = points.flatMap((point, at) =>
    causes(point).flatMap(([part, change]) => {
      if (Object.entries(change).every(([key, value]) => value === point[key as keyof FitPoint])) return [];
      return refit(part, (one, of) => (of === at ? { ...one, ...change } : one));
    }),
  );
  // What all points share moves them all at once: it does not average out.
  const shared = Math.max(0, ...points.map((point) => point.common.length));
  const together = Array.from({ length: shared }, (_, cause) =>
    refit('known values', (one) => ({ ...one, percent: one.percent + (one.common[cause] ?? 0) })),
  ).flat();
  const moved = [...alone, ...together];
  return {
    curve,
    fitSigma: fitSigmaOf(points, curve, settings),
    temperature: warmthOf(points, curve),
    insertionCounts: Math.max(0, ...points.map((point) => point.sigma.single)),
    moved,
  };
}

/** What the curve may miss the truth by between its points. Span percent is defined by its references, so there is nothing to miss. */
function fitSigmaOf(points: readonly FitPoint[], curve: Curve, settings: FitSettings): number {
  const range = curve.wetPercent - curve.dryPercent;
  const { kind } = curve.shape;
  const isDefinition = settings.percentKind === 'span' && points.every((point) => point.sigmaPercent === 0);
  if (isDefinition && (points.length === 2 || 'knots' in curve.shape)) return 0;
  if (points.length === 2) return UNPROVED_LINE_FRAC * range;
  const leftOut = leaveOneOut(points, kind, settings) ?? 0;
  const degreesOfFreedom = points.length - LEAST_POINTS[kind];
  if ('knots' in curve.shape || degreesOfFreedom <= 0)
    return Math.max(leftOut, (UNPROVED_LINE_FRAC / 2) * range);
  const squares = points.reduce(
    (sum, point) => sum + (modelAt(curve.shape, point.counts, point.temperatureC) - point.percent) ** 2,
    0,
  );
  return studentOver(degreesOfFreedom) * Math.max(leftOut, Math.sqrt(squares / degreesOfFreedom));
}

/** Residuals of few points are too small by chance: Student's t over the normal quantile, no more than that of two degrees of freedom. */
const studentOver = (degreesOfFreedom: number): number => student975(Math.max(2, degreesOfFreedom)) / Z_975;

function warmthOf(points: readonly FitPoint[], curve: Curve): Calibrated['temperature'] {
  const known = points.flatMap((point) => (point.temperatureC === null ? [] : [point.temperatureC]));
  if (known.length === 0) return null;
  const atC = known.reduce((sum, one) => sum + one, 0) / known.length;
  if (!('knots' in curve.shape) && curve.shape.temperature)
    return { ...curve.shape.temperature, known: true };
  return { perDegree: ASSUMED_DRIFT_FRAC * (curve.wetPercent - curve.dryPercent), atC, known: false };
}

/** ± of one reading. */
export function uncertaintyOf(of: Calibrated, now: ReadingNow): Uncertainty {
  const { curve } = of;
  const worth = percentPerCount(curve, now.rawCounts);
  const here = readCurve(curve, now.rawCounts).percent;
  const carried = (part: Part) =>
    Math.sqrt(
      of.moved.reduce(
        (sum, one) =>
          one.part === part ? sum + (modelWithin(one.curve, curve, now.rawCounts) - here) ** 2 : sum,
        0,
      ),
    );
  const parts: Parts = {
    noise: (worth * MEDIAN_TO_MEAN * now.noiseCounts) / Math.sqrt(Math.max(1, now.readings)),
    quantisation: worth * quantisationSigma(now.stepCounts ?? 1),
    repeatability: Math.hypot(carried('repeatability'), worth * of.insertionCounts),
    unsettled: carried('unsettled'),
    'known values': carried('known values'),
    fit: of.fitSigma,
    temperature: warmthSigma(of, now.temperatureC),
  };
  return { parts, plusMinus: wholeOf(parts) };
}

/** Probes of one kind differ from unit to unit by about this share of the span: standard deviation of either end. */
const UNIT_SPREAD_FRAC = 0.05;

/** ± of a reading under a calibration that was copied from a sister probe: its own, and the spread from unit to unit. */
export function asGuess(of: Uncertainty, curve: Curve, rawCounts: number): Uncertainty {
  const spread = UNIT_SPREAD_FRAC * curve.spanCounts * percentPerCount(curve, rawCounts);
  const parts = { ...of.parts, repeatability: Math.hypot(of.parts.repeatability, spread) };
  return { parts, plusMinus: wholeOf(parts) };
}

/** The moved curve at a raw value that is kept within the range of the curve in use. */
function modelWithin(moved: Curve, inUse: Curve, rawCounts: number): number {
  const [low, high] = [
    Math.min(inUse.dryCounts, inUse.wetCounts),
    Math.max(inUse.dryCounts, inUse.wetCounts),
  ];
  return modelAt(moved.shape, Math.min(high, Math.max(low, rawCounts)), null);
}

function warmthSigma(of: Calibrated, temperatureC: number | null): number {
  const { temperature, curve } = of;
  const assumed = ASSUMED_DRIFT_FRAC * (curve.wetPercent - curve.dryPercent);
  if (!temperature) return assumed * UNKNOWN_TEMPERATURE_C;
  if (temperatureC === null) return Math.abs(temperature.perDegree) * UNKNOWN_TEMPERATURE_C;
  // Where the curve carries the temperature itself, a fifth of what it takes away is left.
  return Math.abs(temperature.perDegree * (temperatureC - temperature.atC)) * (temperature.known ? 0.2 : 1);
}

/** ± along the working range, for a chart: at `count` raw values from dry to wet, noise left out. */
export function bandOf(
  of: Calibrated,
  count: number,
): readonly { readonly counts: number; readonly percent: number; readonly plusMinus: number }[] {
  const { curve } = of;
  return Array.from({ length: count }, (_, at) => {
    const counts = curve.dryCounts + (at / (count - 1)) * (curve.wetCounts - curve.dryCounts);
    const { plusMinus } = uncertaintyOf(of, {
      rawCounts: counts,
      noiseCounts: curve.noiseCounts,
      readings: 12,
      stepCounts: 1,
      temperatureC: null,
    });
    return { counts, percent: readCurve(curve, counts).percent, plusMinus };
  });
}
