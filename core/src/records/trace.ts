/** A line ready to be drawn: fewer points than pixels, and gaps that stay gaps. */
export type TracePoint = { readonly x: number; readonly y: number | null };

/**
 * Longest distance of two readings that still belong together: five times the usual one.
 * @returns ms; Infinity for fewer than three readings, where nothing is usual
 */
export function usualGapMs(timesMs: ArrayLike<number>): number {
  if (timesMs.length < 3) return Infinity;
  const steps = Array.from(
    { length: timesMs.length - 1 },
    (_, at) => (timesMs[at + 1] ?? 0) - (timesMs[at] ?? 0),
  );
  steps.sort((a, b) => a - b);
  return 5 * (steps[Math.floor(steps.length / 2)] ?? Infinity);
}

/**
 * Thins a series for drawing: each of `buckets` equal stretches of time keeps its first, lowest, highest and last reading, so that a
 * single spike stays visible. Where two readings lie further apart than `gapMs`, a point without a value breaks the line.
 *
 * @param timesMs rising, same length as `values`
 * @returns at most 4 points a bucket and one a gap
 */
export function traceOf(
  timesMs: ArrayLike<number>,
  values: ArrayLike<number>,
  buckets: number,
  gapMs: number,
): TracePoint[] {
  const count = timesMs.length;
  const points: TracePoint[] = [];
  if (count === 0) return points;
  const firstMs = timesMs[0] ?? 0;
  const widthMs = Math.max(((timesMs[count - 1] ?? 0) - firstMs) / Math.max(1, buckets), 1e-9);
  let from = 0;
  for (let at = 1; at <= count; at += 1) {
    const gap = at < count && (timesMs[at] ?? 0) - (timesMs[at - 1] ?? 0) > gapMs;
    const bucketEnds =
      at === count ||
      bucketOf(timesMs[at] ?? 0, firstMs, widthMs) !== bucketOf(timesMs[from] ?? 0, firstMs, widthMs);
    if (!gap && !bucketEnds) continue;
    for (const row of telling(values, from, at))
      points.push({ x: timesMs[row] ?? 0, y: values[row] ?? null });
    if (gap) points.push({ x: ((timesMs[at - 1] ?? 0) + (timesMs[at] ?? 0)) / 2, y: null });
    from = at;
  }
  return points;
}

const bucketOf = (timeMs: number, firstMs: number, widthMs: number) =>
  Math.floor((timeMs - firstMs) / widthMs);

/** Rows of the first, lowest, highest and last value in [from, to), rising and each once. */
function telling(values: ArrayLike<number>, from: number, to: number): number[] {
  let low = from;
  let high = from;
  for (let row = from; row < to; row += 1) {
    if ((values[row] ?? 0) < (values[low] ?? 0)) low = row;
    if ((values[row] ?? 0) > (values[high] ?? 0)) high = row;
  }
  return [...new Set([from, low, high, to - 1])].sort((a, b) => a - b);
}
