import { FLAGS, type Series } from './series.ts';
import { gapFinder } from './trace.ts';

/**
 * The row of the reading nearest to a moment, for a hand that points at a chart. Null in a gap and outside of the readings, but for what lies within reach of a reading.
 * @param timesMs rising
 * @param isGap whether there is a gap in front of the reading with that index
 * @param reachMs so near to a reading it is meant, wherever it lies
 */
export function nearestRow(
  timesMs: ArrayLike<number>,
  atMs: number,
  isGap: (at: number) => boolean,
  reachMs: number,
): number | null {
  let low = 0;
  let high = timesMs.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((timesMs[middle] ?? 0) < atMs) low = middle + 1;
    else high = middle;
  }
  // The first that is not before it, and the one before that.
  const after = low < timesMs.length ? low : null;
  const before = low > 0 ? low - 1 : null;
  const away = (row: number | null) => (row === null ? Infinity : Math.abs((timesMs[row] ?? 0) - atMs));
  const nearest = away(before) <= away(after) ? before : after;
  if (nearest === null || away(nearest) <= reachMs) return nearest;
  return before === null || after === null || isGap(after) ? null : nearest;
}

/**
 * The reading nearest to a moment: of a probe where one read then, else of a stand-in board in a log that has both.
 * @param isGap whether a gap lies before a row among those of its own source; null: told from the distances
 */
export function nearestReading(
  { timesMs, flags }: Series,
  atMs: number,
  isGap: ((at: number) => boolean) | null,
  reachMs: number,
): { readonly row: number; /** Beside readings of a probe. */ readonly isStandIn: boolean } | null {
  const rowsOf = (flag: number) =>
    [...flags.keys()].filter((at) => ((flags[at] ?? 0) & FLAGS.simulated) === flag);
  const isMixed = flags.some((one) => ((one ^ (flags[0] ?? 0)) & FLAGS.simulated) !== 0);
  if (!isMixed) {
    const row = nearestRow(timesMs, atMs, isGap ?? gapFinder(timesMs), reachMs);
    return row === null ? null : { row, isStandIn: false };
  }
  for (const flag of [0, FLAGS.simulated]) {
    const rows = rowsOf(flag);
    const times = Float64Array.from(rows, (at) => timesMs[at] ?? 0);
    const found = nearestRow(times, atMs, isGap ? (at) => isGap(rows[at] ?? -1) : gapFinder(times), reachMs);
    const row = found === null ? undefined : rows[found];
    if (row !== undefined) return { row, isStandIn: flag !== 0 };
  }
  return null;
}
