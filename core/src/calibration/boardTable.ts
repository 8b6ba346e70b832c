/**
 * The calibration as a board computes it: whole numbers only.
 *
 * A table of 2 to 8 `raw → tenths of a percent` points, sorted by raw, linear between, clamped outside, division truncated
 * toward zero. TypeScript, C++ and MicroPython must agree to the last tenth, so this function is the contract.
 */
import type { TwoPoint } from './twoPoint.ts';

export type TablePoint = { readonly raw: number; readonly tenths: number };
export type BoardTable = readonly TablePoint[];

/** The two references as a table; raw values are rounded to whole counts. */
export function boardTable(fit: TwoPoint): BoardTable {
  const dry = { raw: Math.round(fit.dryCounts), tenths: 0 };
  const wet = { raw: Math.round(fit.wetCounts), tenths: 1000 };
  return dry.raw < wet.raw ? [dry, wet] : [wet, dry];
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
  if (!first || !last || table.length < 2 || table.length > 8)
    throw new RangeError(`tenthsFromTable: ${table.length} points; a table has 2 to 8`);
  if (raw <= first.raw) return first.tenths;
  for (const [at, right] of table.entries()) {
    const left = table[at - 1];
    if (!left) continue;
    if (right.raw <= left.raw)
      throw new RangeError(`tenthsFromTable: raw ${right.raw} follows ${left.raw}; sort the points`);
    if (raw <= right.raw)
      return (
        left.tenths + Math.trunc(((raw - left.raw) * (right.tenths - left.tenths)) / (right.raw - left.raw))
      );
  }
  return last.tenths;
}
