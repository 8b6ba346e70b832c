/** A line ready to be drawn: fewer points than pixels, and gaps that stay gaps. */
export type TracePoint = { readonly x: number; readonly y: number | null };

/** Readings this many times further apart than their neighbours do not belong together. */
const GAP_FACTOR = 5;
/** Neighbours looked at on either side. */
const NEIGHBOURS = 5;

/**
 * Finds gaps by the usual distance nearby, since a log may change its pace: a distance is a gap when it is more than five times the middle
 * distance of the five before it and of the five after it.
 *
 * @param timesMs rising
 * @returns whether there is a gap in front of the reading with that index; never with fewer than three readings, where nothing is usual
 */
export function gapFinder(timesMs: ArrayLike<number>): (at: number) => boolean {
  const steps = timesMs.length - 1;
  const stepBefore = (at: number) => (timesMs[at] ?? 0) - (timesMs[at - 1] ?? 0);
  const usual = (from: number, to: number): number => {
    const near: number[] = [];
    for (let at = Math.max(1, from); at <= Math.min(steps, to); at += 1) near.push(stepBefore(at));
    near.sort((a, b) => a - b);
    return near[Math.floor(near.length / 2)] ?? 0;
  };
  // A cheap look first: hardly any distance is long compared with the shortest ones, and only those are looked at closely.
  const stride = Math.max(1, Math.floor(steps / 200));
  let shortest = Infinity;
  for (let at = 1; at <= steps; at += stride) shortest = Math.min(shortest, stepBefore(at));
  return (at) => {
    const step = stepBefore(at);
    if (at < 1 || steps < 2 || step <= GAP_FACTOR * shortest) return false;
    return step > GAP_FACTOR * Math.max(usual(at - NEIGHBOURS, at - 1), usual(at + 1, at + NEIGHBOURS));
  };
}

/**
 * Thins a series for drawing: each of `buckets` equal stretches of time keeps its first, lowest, highest and last reading, so that a
 * single spike stays visible. Where there is a gap, a point without a value breaks the line.
 *
 * @param timesMs rising, same length as `values`, which may be NaN: nothing is drawn there
 * @returns at most 4 points a bucket and one a gap
 */
export function traceOf(
  timesMs: ArrayLike<number>,
  values: ArrayLike<number>,
  buckets: number,
  isGap: (at: number) => boolean = gapFinder(timesMs),
): TracePoint[] {
  const count = timesMs.length;
  const points: TracePoint[] = [];
  if (count === 0) return points;
  const firstMs = timesMs[0] ?? 0;
  const widthMs = Math.max(((timesMs[count - 1] ?? 0) - firstMs) / Math.max(1, buckets), 1e-9);
  let from = 0;
  for (let at = 1; at <= count; at += 1) {
    const gap = at < count && isGap(at);
    const bucketEnds =
      at === count ||
      bucketOf(timesMs[at] ?? 0, firstMs, widthMs) !== bucketOf(timesMs[from] ?? 0, firstMs, widthMs);
    if (!gap && !bucketEnds) continue;
    for (const row of telling(values, from, at))
      points.push({ x: timesMs[row] ?? 0, y: numberOrNull(values[row]) });
    if (gap) points.push({ x: ((timesMs[at - 1] ?? 0) + (timesMs[at] ?? 0)) / 2, y: null });
    from = at;
  }
  return points;
}

const numberOrNull = (value: number | undefined): number | null =>
  value === undefined || Number.isNaN(value) ? null : value;

const bucketOf = (timeMs: number, firstMs: number, widthMs: number) =>
  Math.floor((timeMs - firstMs) / widthMs);

/** Rows of the first, lowest, highest and last value in [from, to), rising and each once. What is NaN is neither low nor high. */
export function telling(values: ArrayLike<number>, from: number, to: number): number[] {
  let [low, high] = [from, from];
  let [lowest, highest] = [Infinity, -Infinity];
  for (let row = from; row < to; row += 1) {
    const value = values[row] ?? Number.NaN;
    if (value < lowest) [low, lowest] = [row, value];
    if (value > highest) [high, highest] = [row, value];
  }
  return [...new Set([from, low, high, to - 1])].sort((a, b) => a - b);
}
