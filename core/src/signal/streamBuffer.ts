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

  /** @param capacity readings kept, ≥ 1 */
  constructor(capacity = 36_000) {
    this.timesMs = new Float64Array(capacity);
    this.values = new Float64Array(capacity);
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
    let count = 0;
    while (count < this.held) {
      const older = this.timesMs[this.slot(this.held - 1 - count)] ?? 0;
      if (older < fromMs && count >= atLeast) break;
      count += 1;
    }
    return this.newest(count);
  }

  private newest(count: number): Stretch {
    const timesMs = new Float64Array(count);
    const values = new Float64Array(count);
    for (let at = 0; at < count; at += 1) {
      const slot = this.slot(this.held - count + at);
      timesMs[at] = this.timesMs[slot] ?? 0;
      values[at] = this.values[slot] ?? 0;
    }
    return { timesMs, values };
  }

  /** Place in the ring of the reading that is `age`-th from the oldest. */
  private slot(age: number): number {
    const size = this.timesMs.length;
    return (this.next - this.held + age + size) % size;
  }
}
