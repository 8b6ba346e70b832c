/**
 * The last readings of one stream, in a ring of fixed size: a bench session may run for hours and must not grow.
 * Mutable on purpose: 50 lines a second for ten minutes are 30 000 readings, and a copy per line would be felt.
 */
export type Stretch = { readonly timesMs: Float64Array; readonly values: Float64Array };

export class StreamBuffer {
  private readonly timesMs: Float64Array;
  private readonly values: Float64Array;
  private next = 0;
  private held = 0;
  /** Readings are delivered in bundles, so far apart, ms; 0: each comes as it is taken. */
  bundleMs = 0;

  /** @param capacity readings kept, ≥ 1 */
  constructor(capacity = 36_000) {
    this.timesMs = new Float64Array(capacity);
    this.values = new Float64Array(capacity);
  }

  get capacity(): number {
    return this.timesMs.length;
  }

  get length(): number {
    return this.held;
  }

  push(timeMs: number, value: number): void {
    this.timesMs[this.next] = timeMs;
    this.values[this.next] = value;
    this.next = (this.next + 1) % this.timesMs.length;
    this.held = Math.min(this.held + 1, this.timesMs.length);
  }

  /** The newest reading, or null. */
  last(): { timeMs: number; value: number } | null {
    if (this.held === 0) return null;
    const at = this.slot(this.held - 1);
    return { timeMs: this.timesMs[at] ?? 0, value: this.values[at] ?? 0 };
  }

  /** Copies the newest readings, oldest first: those not older than `fromMs`, and at least `atLeast` of them if there are so many. */
  since(fromMs: number, atLeast = 0): Stretch {
    return this.newest(Math.max(this.countSince(fromMs), Math.min(atLeast, this.held)));
  }

  /** How many of the newest readings, without a break, are not older than `fromMs`. Two plain loops: this runs on every drawing. */
  private countSince(fromMs: number): number {
    const { timesMs, next, held } = this;
    const inFront = Math.min(next, held);
    let at = next - 1;
    while (at >= next - inFront && (timesMs[at] ?? 0) >= fromMs) at -= 1;
    const counted = next - 1 - at;
    if (counted < inFront) return counted;
    const size = timesMs.length;
    const oldest = size - (held - inFront);
    let back = size - 1;
    while (back >= oldest && (timesMs[back] ?? 0) >= fromMs) back -= 1;
    return inFront + size - 1 - back;
  }

  private newest(count: number): Stretch {
    return { timesMs: this.tail(this.timesMs, count), values: this.tail(this.values, count) };
  }

  /** The newest entries of one column: the end of the ring's old part, then its front. */
  private tail(column: Float64Array, count: number): Float64Array {
    const inFront = Math.min(count, this.next);
    const copy = new Float64Array(count);
    copy.set(column.subarray(column.length - (count - inFront)), 0);
    copy.set(column.subarray(this.next - inFront, this.next), count - inFront);
    return copy;
  }

  /** Place in the ring of the reading that is `age`-th from the oldest. */
  private slot(age: number): number {
    const size = this.timesMs.length;
    return (this.next - this.held + age + size) % size;
  }
}
