/**
 * Fits a curve of one kind to the points of a calibration, and chooses the kind.
 *
 * Line, inverse and quadratic are weighted least squares (Björck 1996, by QR); table and monotone cubic go through every point. Points weigh by what
 * they may be off by: the raw value's share turned into percent by the slope, and the known percent's own.
 */
import { leastSquares } from '../quantity/leastSquares.ts';
import { student975 } from '../quantity/student.ts';
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
  type FittedShape,
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

export type FitSettings = { readonly percentKind: PercentKind; readonly noiseCounts: number };

/** A curve of one kind through or near the points, over the range that they span. */
export function fitCurve(
  points: readonly FitPoint[],
  kind: CurveKind,
  settings: FitSettings,
  warm?: boolean,
): Result<Curve, FitIssue> {
  const needs = LEAST_POINTS[kind];
  if (points.length < needs) return fail({ kind: 'too-few', has: points.length, needs });
  const shape =
    kind === 'table' || kind === 'monotone' ? throughPoints(points, kind) : ok(fitted(points, kind, warm));
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

/** As many degrees of freedom as what was said of the points beforehand counts for, beside what they show. */
const TRUST = 4;
/** Temperature and moisture that went together are not told apart: of the temperature's column, so much at least must be its own (share of its square). */
const OWN_SHARE = 0.1;

type Rows = {
  readonly columns: readonly (readonly number[])[];
  readonly values: readonly number[];
  /** Degrees above the mean, weighted like the rest; null where they are not all known or not wide enough apart. */
  readonly warmth: readonly number[] | null;
  readonly atC: number;
};

function rowsOf(points: readonly FitPoint[], handy: Pick<FittedShape, 'kind' | 'origin' | 'unit'>): Rows {
  const atC = points.reduce((sum, one) => sum + (one.temperatureC ?? 0), 0) / points.length;
  const perCount =
    widthOf(points.map((point) => point.percent)) / (widthOf(points.map((point) => point.counts)) || 1);
  const weights = points.map((point) => 1 / (pointSigma(point, perCount) || 1e-9));
  return {
    columns: points.map((point, at) => {
      const u = variableOf(handy, point.counts);
      return (handy.kind === 'quadratic' ? [1, u, u * u] : [1, u]).map((one) => one * (weights[at] ?? 1));
    }),
    values: points.map((point, at) => point.percent * (weights[at] ?? 1)),
    warmth:
      temperatureSpan(points) > TEMPERATURE_SPAN_C
        ? points.map((point, at) => ((point.temperatureC ?? atC) - atC) * (weights[at] ?? 1))
        : null,
    atC,
  };
}

const squaresLeft = (columns: Rows['columns'], values: readonly number[]): number | null => {
  const solved = leastSquares(columns, values);
  return (
    solved &&
    columns.reduce(
      (sum, row, at) =>
        sum + ((values[at] ?? 0) - row.reduce((all, one, of) => all + one * (solved[of] ?? 0), 0)) ** 2,
      0,
    )
  );
};

/**
 * Whether the points can tell what a degree is worth: there is one more of them than numbers to find, the temperatures did not go along with the moisture, and what a degree is worth differs
 * from nothing by more than chance (Student's t; the number itself costs a degree of freedom, and the scatter is what was said of the points pooled with what they show).
 */
function tellsTemperature({ columns, values, warmth }: Rows): boolean {
  const many = (columns[0]?.length ?? 0) + 1;
  const freedom = columns.length - many;
  if (!warmth || freedom < 1) return false;
  const all = warmth.reduce((sum, one) => sum + one * one, 0);
  const own = squaresLeft(columns, warmth);
  if (own === null || !(own > OWN_SHARE * all)) return false;
  const withTerm = columns.map((row, at) => [...row, warmth[at] ?? 0]);
  const solved = leastSquares(withTerm, values);
  const left = squaresLeft(withTerm, values);
  if (!solved || left === null) return false;
  const sigma = Math.sqrt(Math.max(1, (TRUST + left) / (TRUST + freedom)) / own);
  return Math.abs(solved.at(-1) ?? 0) > student975(TRUST + freedom) * sigma;
}

/** Whether a fit of this kind takes the temperature up. */
export function takesTemperature(points: readonly FitPoint[], kind: FittedKind): boolean {
  return tellsTemperature(rowsOf(points, handyOf(points, kind)));
}

function handyOf(points: readonly FitPoint[], kind: FittedKind) {
  const counts = points.map((point) => point.counts);
  return {
    kind,
    origin: Math.min(...counts),
    unit: kind === 'inverse' ? Math.max(...counts) : widthOf(counts) || 1,
  };
}

/** @param warm takes the temperature up or leaves it out; unsaid, the points decide */
function fitted(points: readonly FitPoint[], kind: FittedKind, warm?: boolean): CurveShape {
  const handy = handyOf(points, kind);
  const [low, high] = [...points].sort((a, b) => a.counts - b.counts);
  // Two points and a line: no need to solve, and no rounding.
  if (kind === 'line' && points.length === 2 && low && high)
    return { ...handy, weights: [low.percent, high.percent - low.percent], temperature: null };
  const rows = rowsOf(points, handy);
  const takes = warm ?? tellsTemperature(rows);
  const columns =
    takes && rows.warmth ? rows.columns.map((row, at) => [...row, rows.warmth?.[at] ?? 0]) : rows.columns;
  const solution = leastSquares(columns, rows.values) ?? columns[0]?.map(() => Number.NaN) ?? [];
  const isWarm = columns !== rows.columns;
  return {
    ...handy,
    weights: isWarm ? solution.slice(0, -1) : solution,
    temperature: isWarm ? { perDegree: solution.at(-1) ?? 0, atC: rows.atC } : null,
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
 * Leave-one-out error over the inner points: the driest and the wettest are never left out, for the curve is not used beyond them. The temperature is in every one of the fits or in none, as in the
 * fit of all. Where the rest is too few for the kind, it is a line that says what they would miss; where it makes no curve at all, that counts as missing without end.
 * Source: Stone 1974, Cross-Validatory Choice.
 */
export function leaveOneOut(
  points: readonly FitPoint[],
  kind: CurveKind,
  settings: FitSettings,
): number | null {
  const counts = points.map((point) => point.counts);
  const ends = [Math.min(...counts), Math.max(...counts)];
  const isFitted = kind !== 'table' && kind !== 'monotone';
  const warm = isFitted && points.length >= LEAST_POINTS[kind] && takesTemperature(points, kind);
  const squares = points.flatMap((point, at) => {
    if (ends.includes(point.counts)) return [];
    const rest = points.filter((_, other) => other !== at);
    const isFew = rest.length < LEAST_POINTS[kind];
    const fitted = fitCurve(rest, isFew ? 'line' : kind, settings, warm);
    if (!fitted.ok) return [Infinity];
    return [
      (modelAt(fitted.value.shape, point.counts, warm ? point.temperatureC : null) - point.percent) ** 2,
    ];
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
