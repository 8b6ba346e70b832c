/** Least height of a strip as a share of full scale: a calm stream must look calm, not like a storm of single counts. */
const LEAST_SHARE = 0.02;

/**
 * Lower and upper end of a strip chart: the readings with a tenth of room at either side, at least 2 % of full scale high, on round numbers.
 * @param values NaN where nothing is known
 * @returns raw counts, low < high; the whole scale when there is no reading
 */
export function stripRange(
  values: ArrayLike<number>,
  fullScaleCounts: number,
): { low: number; high: number } {
  let low = Infinity;
  let high = -Infinity;
  for (let at = 0; at < values.length; at += 1) {
    const value = values[at] ?? Number.NaN;
    if (value < low) low = value;
    if (value > high) high = value;
  }
  if (!(low <= high)) return { low: 0, high: fullScaleCounts };
  const middle = (low + high) / 2;
  const half = Math.max((high - low) * 0.6, (fullScaleCounts * LEAST_SHARE) / 2);
  const step = 10 ** Math.floor(Math.log10(half));
  return { low: Math.floor((middle - half) / step) * step, high: Math.ceil((middle + half) / step) * step };
}
