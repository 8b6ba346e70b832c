/**
 * Fits a curve of one kind to the points of a calibration, and chooses the kind.
 *
 * Line, inverse and quadratic are weighted least squares (Björck 1996, by QR); table and monotone cubic go through every point. Points weigh by what
 * they may be off by: the raw value's share turned into percent by the slope, and the known percent's own.
 */
import { leastSquares } from '../quantity/leastSquares.ts';
import { fail, ok, type Result } from '../quantity/result.ts';
import type { PercentKind } from '../quantity/percentKind.ts';
import {
  CURVE_KINDS,
  makeCurve,
  modelAt,
  variableOf,
  type Curve,
  type CurveIssue,
  type CurveKind,
  type CurveShape,
  type FittedKind,
} from './curve.ts';
import type { Knot } from './hermite.ts';
import { pointSigma, widthOf, type FitPoint } from './points.ts';

export type FitIssue =
  | CurveIssue
  /** Fewer points than the kind needs. */
  | { readonly kind: 'too-few'; readonly has: number; readonly needs: number }
  /** Two points with one raw value and different percents, for a kind that goes through both. */
  | { readonly kind: 'same-counts'; readonly counts: number };

/** Least points for each kind. */
export const LEAST_POINTS: Readonly<Record<CurveKind, number>> = {
  line: 2,
  inverse: 2,
  quadratic: 4,
  table: 3,
  monotone: 3,
};
/** References this far apart in temperature show what the temperature does, °C. */
export const TEMPERATURE_SPAN_C = 5;

/** How wide the temperatures of the points lie apart, °C; 0 where fewer than all are known. */
export function temperatureSpan(points: readonly FitPoint[]): number {
  const known = points.flatMap((point) => (point.temperatureC === null ? [] : [point.temperatureC]));
  return known.length === points.length ? widthOf(known) : 0;
}

/** Whether a fit of this kind takes the temperature up: the points span enough of it, and are enough for one number more. */
export const takesTemperature = (points: readonly FitPoint[], kind: FittedKind): boolean =>
  temperatureSpan(points) > TEMPERATURE_SPAN_C && points.length > LEAST_POINTS[kind];

export type FitSettings = { readonly percentKind: PercentKind; readonly noiseCounts: number };

/** A curve of one kind through or near the points, over the range that they span. */
export function fitCurve(
  points: readonly FitPoint[],
  kind: CurveKind,
  settings: FitSettings,
): Result<Curve, FitIssue> {
  const needs = LEAST_POINTS[kind];
  if (points.length < needs) return fail({ kind: 'too-few', has: points.length, needs });
  const shape =
    kind === 'table' || kind === 'monotone' ? throughPoints(points, kind) : ok(fitted(points, kind));
  if (!shape.ok) return shape;
  const counts = points.map((point) => point.counts);
  return makeCurve(
    shape.value,
    settings.percentKind,
    [Math.min(...counts), Math.max(...counts)],
    settings.noiseCounts,
  );
}

function throughPoints(
  points: readonly FitPoint[],
  kind: 'table' | 'monotone',
): Result<CurveShape, FitIssue> {
  const knots: Knot[] = [];
  for (const { counts, percent } of [...points].sort((a, b) => a.counts - b.counts)) {
    const last = knots.at(-1);
    if (last?.counts === counts) return fail({ kind: 'same-counts', counts });
    knots.push({ counts, percent });
  }
  return ok({ kind, knots });
}

function fitted(points: readonly FitPoint[], kind: FittedKind): CurveShape {
  const counts = points.map((point) => point.counts);
  const handy = {
    kind,
    origin: Math.min(...counts),
    unit: kind === 'inverse' ? Math.max(...counts) : widthOf(counts) || 1,
  };
  const [low, high] = [...points].sort((a, b) => a.counts - b.counts);
  // Two points and a line: no need to solve, and no rounding.
  if (kind === 'line' && points.length === 2 && low && high)
    return { ...handy, weights: [low.percent, high.percent - low.percent], temperature: null };
  const warm = takesTemperature(points, kind);
  const temperatures = points.map((point) => point.temperatureC ?? 0);
  const atC = temperatures.reduce((sum, one) => sum + one, 0) / points.length;
  const perCount = widthOf(points.map((point) => point.percent)) / (widthOf(counts) || 1);
  const rows = points.map((point, at) => {
    const u = variableOf(handy, point.counts);
    const columns = kind === 'quadratic' ? [1, u, u * u] : [1, u];
    const weight = 1 / (pointSigma(point, perCount) || 1e-9);
    return {
      columns: (warm ? [...columns, (temperatures[at] ?? 0) - atC] : columns).map(
        (column) => column * weight,
      ),
      value: point.percent * weight,
    };
  });
  const solution =
    leastSquares(
      rows.map((row) => row.columns),
      rows.map((row) => row.value),
    ) ??
    rows[0]?.columns.map(() => Number.NaN) ??
    [];
  const perDegree = solution.at(-1) ?? 0;
  return {
    ...handy,
    weights: warm ? solution.slice(0, -1) : solution,
    temperature: warm ? { perDegree, atC } : null,
  };
}

/** One kind, tried: its curve with its leave-one-out error, or why it cannot be had. */
export type Tried = {
  readonly kind: CurveKind;
  readonly curve: Result<Curve, FitIssue>;
  /** Root mean square of what each inner point is missed by when it is left out of the fit, percent; null with fewer than one to leave out. */
  readonly leftOutPercent: number | null;
};

/** A simpler kind is kept unless another's error is smaller than this share of its own. */
const WORTH_IT = 0.7;

/**
 * Leave-one-out error over the inner points: the driest and the wettest are never left out, for the curve is not used beyond them.
 * Source: Stone 1974, Cross-Validatory Choice.
 */
export function leaveOneOut(
  points: readonly FitPoint[],
  kind: CurveKind,
  settings: FitSettings,
): number | null {
  const counts = points.map((point) => point.counts);
  const ends = [Math.min(...counts), Math.max(...counts)];
  const squares = points.flatMap((point, at) => {
    if (ends.includes(point.counts)) return [];
    const rest = points.filter((_, other) => other !== at);
    const needs = rest.length < LEAST_POINTS[kind] && (kind === 'table' || kind === 'monotone');
    const fitted = fitCurve(rest, needs ? 'line' : kind, settings);
    if (!fitted.ok) return fitted.issue.kind === 'too-few' ? [] : [Infinity];
    return [(modelAt(fitted.value.shape, point.counts, point.temperatureC) - point.percent) ** 2];
  });
  return squares.length === 0
    ? null
    : Math.sqrt(squares.reduce((sum, square) => sum + square, 0) / squares.length);
}

/** Every kind tried on the points, simplest first. */
export function tryAll(points: readonly FitPoint[], settings: FitSettings): readonly Tried[] {
  return CURVE_KINDS.map((kind) => ({
    kind,
    curve: fitCurve(points, kind, settings),
    leftOutPercent: leaveOneOut(points, kind, settings),
  }));
}

/** The kind to take: the simplest that no other beats clearly in leave-one-out error; null when none can be had. */
export function chooseKind(tried: readonly Tried[]): CurveKind | null {
  let chosen: Tried | null = null;
  for (const one of tried) {
    if (!one.curve.ok) continue;
    const better =
      chosen === null ||
      (one.leftOutPercent !== null &&
        chosen.leftOutPercent !== null &&
        one.leftOutPercent < WORTH_IT * chosen.leftOutPercent);
    if (better) chosen = one;
  }
  return chosen?.kind ?? null;
}
