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
