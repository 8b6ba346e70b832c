/**
 * A calibration's curve: from raw counts to percent of one kind, with a working range. Inside the range it is monotone, so that it can be turned round;
 * outside it is clamped, and says so.
 *
 * The direction is never asked for. Most probes read LOWER in water and surprise everyone; here it follows from the references.
 */
import type { PercentKind } from '../quantity/percentKind.ts';
import { fail, ok, type Result } from '../quantity/result.ts';
import { hermiteAt, hermiteSlopes, type Knot } from './hermite.ts';

export const CURVE_KINDS = ['line', 'inverse', 'quadratic', 'table', 'monotone'] as const;
export type CurveKind = (typeof CURVE_KINDS)[number];
export type FittedKind = Extract<CurveKind, 'line' | 'inverse' | 'quadratic'>;

/**
 * What is kept of a curve.
 * Fitted: percent = w₀ + w₁·u (+ w₂·u²) with u = (raw − origin) ÷ unit, or u = unit ÷ raw for `inverse`; with `perDegree`, that many percent for each
 * °C above `atC`. Through knots: straight (`table`) or monotone cubic between them.
 */
export type FittedShape = {
  readonly kind: FittedKind;
  readonly origin: number;
  readonly unit: number;
  readonly weights: readonly number[];
  readonly temperature: { readonly perDegree: number; readonly atC: number } | null;
};
export type KnotShape = { readonly kind: 'table' | 'monotone'; readonly knots: readonly Knot[] };
export type CurveShape = FittedShape | KnotShape;

export type Curve = {
  readonly shape: CurveShape;
  readonly percentKind: PercentKind;
  /** Ends of the working range, raw counts, and what they read, percent. */
  readonly dryCounts: number;
  readonly wetCounts: number;
  readonly dryPercent: number;
  readonly wetPercent: number;
  /** `falling`: more water means a lower number. */
  readonly direction: 'falling' | 'rising';
  /** Width of the working range, raw counts, > 0. */
  readonly spanCounts: number;
  /** Noise of a single reading when the references were taken, at least one converter step, raw counts. */
  readonly noiseCounts: number;
};

export type CurveIssue =
  | { readonly kind: 'not-finite' }
  | { readonly kind: 'flat' }
  /** The curve turns back inside the working range: one percent would stand for two raw values. */
  | { readonly kind: 'not-monotone'; readonly atCounts: number }
  /** The inverse curve has no value at zero. */
  | { readonly kind: 'through-zero' };

const LOOKS = 200;

/** A curve over its working range, or why it cannot be one. @param range two raw values that differ, in any order */
export function makeCurve(
  shape: CurveShape,
  percentKind: PercentKind,
  range: readonly [number, number],
  noiseCounts: number,
): Result<Curve, CurveIssue> {
  const [low, high] = [Math.min(...range), Math.max(...range)];
  if (shape.kind === 'inverse' && low <= 0) return fail({ kind: 'through-zero' });
  const at = (counts: number) => modelAt(shape, counts, null);
  const [lowPercent, highPercent] = [at(low), at(high)];
  if (![low, high, lowPercent, highPercent].every(Number.isFinite)) return fail({ kind: 'not-finite' });
  if (lowPercent === highPercent || low === high) return fail({ kind: 'flat' });
  const rises = highPercent > lowPercent;
  const step = (high - low) / LOOKS;
  for (let look = 1; look <= LOOKS; look += 1) {
    const rise = at(low + look * step) - at(low + (look - 1) * step);
    if (rises ? rise < 0 : rise > 0) return fail({ kind: 'not-monotone', atCounts: low + look * step });
  }
  const [dryCounts, wetCounts] = rises ? [low, high] : [high, low];
  return ok({
    shape,
    percentKind,
    dryCounts,
    wetCounts,
    dryPercent: Math.min(lowPercent, highPercent),
    wetPercent: Math.max(lowPercent, highPercent),
    direction: rises ? 'rising' : 'falling',
    spanCounts: high - low,
    noiseCounts,
  });
}

/** What the shape says of a raw value, in range or not, percent. @param temperatureC of the soil now; null leaves the temperature out */
export function modelAt(shape: CurveShape, counts: number, temperatureC: number | null): number {
  if ('knots' in shape)
    return shape.kind === 'table'
      ? tableAt(shape.knots, counts)
      : hermiteAt(shape.knots, hermiteSlopes(shape.knots), counts);
  const u = variableOf(shape, counts);
  const [w0 = 0, w1 = 0, w2 = 0] = shape.weights;
  const warmth =
    shape.temperature && temperatureC !== null
      ? shape.temperature.perDegree * (temperatureC - shape.temperature.atC)
      : 0;
  return w0 + w1 * u + w2 * u * u + warmth;
}

/** The variable in which a fitted curve is a polynomial: raw counts made handy, or one over them. */
export const variableOf = (shape: Pick<FittedShape, 'kind' | 'origin' | 'unit'>, counts: number): number =>
  shape.kind === 'inverse' ? shape.unit / counts : (counts - shape.origin) / shape.unit;

/** Straight between knots; beyond the outer ones the outermost stretch goes on. */
function tableAt(knots: readonly Knot[], counts: number): number {
  const found = knots.findIndex((knot) => knot.counts >= counts);
  const right = Math.max(1, found < 0 ? knots.length - 1 : found);
  const [a, b] = [knots[right - 1], knots[right]];
  if (!a || !b) return Number.NaN;
  return a.percent + ((counts - a.counts) * (b.percent - a.percent)) / (b.counts - a.counts);
}

export type CurveReading = {
  /** Kept within the working range. */
  readonly percent: number;
  /** How far the raw value lies outside the working range, raw counts; 0 inside. */
  readonly beyondCounts: number;
  readonly clampedAt: 'dry' | 'wet' | null;
};

/** Percent of a raw value; outside the working range it is clamped, and says at which end and by how much. */
export function readCurve(curve: Curve, rawCounts: number, temperatureC: number | null = null): CurveReading {
  const along = (rawCounts - curve.dryCounts) / (curve.wetCounts - curve.dryCounts);
  const clampedAt = along < 0 ? 'dry' : along > 1 ? 'wet' : null;
  const end = clampedAt === 'dry' ? curve.dryCounts : curve.wetCounts;
  const kept = clampedAt ? end : rawCounts;
  const percent = modelAt(curve.shape, kept, temperatureC);
  return {
    percent: Math.min(curve.wetPercent, Math.max(curve.dryPercent, percent)),
    beyondCounts: clampedAt ? Math.abs(rawCounts - end) : 0,
    clampedAt,
  };
}

/** Percent of many raw values, as `readCurve` gives them one by one; equal ones are worked out once. */
export function readCurves(curve: Curve, raws: ArrayLike<number>): Float64Array {
  const known = new Map<number, number>();
  return new Float64Array(raws).map((raw) => {
    const held = known.get(raw);
    if (held !== undefined) return held;
    const { percent } = readCurve(curve, raw);
    known.set(raw, percent);
    return percent;
  });
}

/** The raw value that stands for a percent, not rounded; the end of the working range for a percent beyond it. */
export function countsAtPercent(curve: Curve, percent: number): number {
  if (percent <= curve.dryPercent) return curve.dryCounts;
  if (percent >= curve.wetPercent) return curve.wetCounts;
  if (curve.shape.kind === 'line') {
    const along = (percent - curve.dryPercent) / (curve.wetPercent - curve.dryPercent);
    return curve.dryCounts + along * (curve.wetCounts - curve.dryCounts);
  }
  // By halving between the driest and the wettest end: the curve is monotone there.
  let [dry, wet] = [curve.dryCounts, curve.wetCounts];
  for (let turn = 0; turn < 60; turn += 1) {
    const middle = (dry + wet) / 2;
    if (modelAt(curve.shape, middle, null) < percent) dry = middle;
    else wet = middle;
  }
  return (dry + wet) / 2;
}

/** What one raw count is worth near a raw value, percent per count, ≥ 0. The raw value is kept within the working range. */
export function percentPerCount(curve: Curve, rawCounts: number): number {
  const [low, high] = [
    Math.min(curve.dryCounts, curve.wetCounts),
    Math.max(curve.dryCounts, curve.wetCounts),
  ];
  const step = curve.spanCounts / 1000;
  const at = Math.min(high - step, Math.max(low, rawCounts - step / 2));
  return Math.abs(modelAt(curve.shape, at + step, null) - modelAt(curve.shape, at, null)) / step;
}
