/** Lowest and highest of many numbers, in a loop: handed over as arguments, a season of readings is more than a call can take. Null of none. */
export function extentOf(values: Iterable<number>): { readonly low: number; readonly high: number } | null {
  let low = Infinity;
  let high = -Infinity;
  for (const value of values) {
    if (value < low) low = value;
    if (value > high) high = value;
  }
  return low <= high ? { low, high } : null;
}
