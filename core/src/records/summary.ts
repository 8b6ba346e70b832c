/** What a stretch of a log says in one sentence's worth of numbers. */
export type Summary = {
  readonly last: number;
  readonly lowest: number;
  readonly highest: number;
  /** Last minus first. */
  readonly change: number;
  /** Time from the first to the last reading, s. */
  readonly durationS: number;
  readonly readings: number;
};

/** Summary of a series; null without a reading. @param timesMs rising, same length as `values` */
export function summaryOf(timesMs: ArrayLike<number>, values: ArrayLike<number>): Summary | null {
  const count = timesMs.length;
  const first = values[0];
  const last = values[count - 1];
  if (first === undefined || last === undefined) return null;
  let lowest = first;
  let highest = first;
  for (let at = 1; at < count; at += 1) {
    lowest = Math.min(lowest, values[at] ?? lowest);
    highest = Math.max(highest, values[at] ?? highest);
  }
  return {
    last,
    lowest,
    highest,
    change: last - first,
    durationS: ((timesMs[count - 1] ?? 0) - (timesMs[0] ?? 0)) / 1000,
    readings: count,
  };
}
