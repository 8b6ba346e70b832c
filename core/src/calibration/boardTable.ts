/**
 * The calibration as a board computes it: whole numbers only.
 *
 * A table of 2 to 8 `raw → tenths of a percent` points, sorted by raw, linear between, clamped outside, division truncated
 * toward zero. TypeScript, C++ and MicroPython must agree to the last tenth, so this function is the contract.
 */
import { modelAt, type Curve } from './curve.ts';

export type TablePoint = { readonly raw: number; readonly tenths: number };
export type BoardTable = readonly TablePoint[];

export const MOST_TABLE_POINTS = 8;
/** A table is made as short as keeps it this close to its curve, tenths of a percent. */
export const TABLE_BOUND_TENTHS = 3;
/** Raw values at which the table is held against the curve. */
const LOOKS = 512;

export type FittedTable = {
  readonly table: BoardTable;
  /** Largest distance from the curve over the working range, tenths of a percent, and the raw value where it is. */
  readonly largestTenths: number;
  readonly atRaw: number;
  /** Whether the largest error keeps within the bound that was asked for. */
  readonly holds: boolean;
};

/** The curve as a board's table, without the errors. */
export const boardTable = (curve: Curve): BoardTable => fitTable(curve).table;

/**
 * The curve as the shortest table that keeps within a bound: from the low end on, each stretch reaches as far as its straight line stays close enough. Where
 * that would take more than eight points, the bound is widened just as far as it must be.
 * Source: Imai & Iri 1986, An Optimal Algorithm for Approximating a Piecewise Linear Function (greedy stretches are fewest).
 * @param boundTenths largest error wanted, tenths of a percent, > 0; below two the rounding alone may break it
 */
export function fitTable(curve: Curve, boundTenths: number = TABLE_BOUND_TENTHS): FittedTable {
  const looks = looksAt(curve);
  const whole = stretches(looks, boundTenths);
  let table = whole;
  // By halving between the bound that takes too many points and one that two points keep.
  let [narrow, wide] = [boundTenths, 1000];
  for (let turn = 0; whole.length > MOST_TABLE_POINTS && turn < 30; turn += 1) {
    const middle = (narrow + wide) / 2;
    const tried = stretches(looks, middle);
    if (tried.length > MOST_TABLE_POINTS) narrow = middle;
    else {
      wide = middle;
      table = tried;
    }
  }
  const worst = worstOf(table, looks);
  return { table, largestTenths: worst.error, atRaw: worst.raw, holds: worst.error <= boundTenths };
}

type Look = { readonly raw: number; readonly tenths: number };

/** The curve at whole raw values from the low to the high end of its range. */
function looksAt(curve: Curve): readonly Look[] {
  const [low, high] = [
    Math.min(curve.dryCounts, curve.wetCounts),
    Math.max(curve.dryCounts, curve.wetCounts),
  ];
  const [from, to] = [Math.round(low), Math.round(high)];
  const count = Math.max(1, Math.min(to - from, LOOKS));
  return Array.from({ length: count + 1 }, (_, at) => {
    const raw = from + Math.round((at * (to - from)) / count);
    const tenths = 10 * modelAt(curve.shape, Math.min(high, Math.max(low, raw)), null);
    return { raw, tenths: Math.min(1000, Math.max(0, tenths)) };
  });
}

const pointAt = ({ raw, tenths }: Look): TablePoint => ({ raw, tenths: Math.round(tenths) });

function stretches(looks: readonly Look[], boundTenths: number): TablePoint[] {
  const last = looks.length - 1;
  const fits = (from: number, to: number) => {
    const [a, b] = [looks[from], looks[to]];
    return !a || !b || worstOf([pointAt(a), pointAt(b)], looks.slice(from, to + 1)).error <= boundTenths;
  };
  const table = looks.slice(0, 1).map(pointAt);
  for (let from = 0; from < last;) {
    let [near, far] = [from + 1, last];
    while (near < far) {
      const middle = Math.ceil((near + far) / 2);
      if (fits(from, middle)) near = middle;
      else far = middle - 1;
    }
    table.push(...looks.slice(near, near + 1).map(pointAt));
    from = near;
  }
  return table;
}

function worstOf(
  table: BoardTable,
  looks: readonly Look[],
): { readonly raw: number; readonly error: number } {
  let worst = { raw: looks[0]?.raw ?? 0, error: 0 };
  for (const { raw, tenths } of looks) {
    const error = Math.abs(tenthsFromTable(table, raw) - tenths);
    if (error > worst.error) worst = { raw, error };
  }
  return worst;
}

/**
 * Moisture in tenths of a percent for a raw value.
 *
 * @param raw whole counts
 * @throws RangeError on fewer than 2 or more than 8 points or points not sorted: tables are made by `boardTable`, so that is our mistake.
 */
export function tenthsFromTable(table: BoardTable, raw: number): number {
  const first = table[0];
  const last = table[table.length - 1];
  if (!first || !last || table.length < 2 || table.length > MOST_TABLE_POINTS)
    throw new RangeError(`tenthsFromTable: ${table.length} points; a table has 2 to 8`);
  if (raw <= first.raw) return first.tenths;
  let left = first;
  // By index: this runs once a second for every probe of a rehearsal.
  for (let at = 1; at < table.length; at += 1) {
    const right = table[at] ?? last;
    if (right.raw <= left.raw)
      throw new RangeError(`tenthsFromTable: raw ${right.raw} follows ${left.raw}; sort the points`);
    if (raw <= right.raw)
      return (
        left.tenths + Math.trunc(((raw - left.raw) * (right.tenths - left.tenths)) / (right.raw - left.raw))
      );
    left = right;
  }
  return last.tenths;
}
