/** Readings of one channel while they are read from a file: in columns, for there may be millions. */
import { DAY_MS, dayOf, type DayBlock } from './series.ts';

export class DayColumns {
  private timesMs = new Float64Array(1024);
  private raw = new Float64Array(1024);
  private flags = new Uint8Array(1024);
  private count = 0;
  private lastMs = -Infinity;
  private isRising = true;

  add(timeMs: number, raw: number, flags: number): void {
    if (this.count === this.raw.length) {
      this.timesMs = grown(this.timesMs, new Float64Array(this.count * 2));
      this.raw = grown(this.raw, new Float64Array(this.count * 2));
      this.flags = grown(this.flags, new Uint8Array(this.count * 2));
    }
    if (timeMs < this.lastMs) this.isRising = false;
    this.lastMs = timeMs;
    this.timesMs[this.count] = timeMs;
    this.raw[this.count] = raw;
    this.flags[this.count] = flags;
    this.count += 1;
  }

  /** Day by day, times rising; equal ones as they came. */
  days(channelId: string): DayBlock[] {
    const order = this.isRising ? null : this.order();
    const rowAt = (at: number): number => order?.[at] ?? at;
    const blocks: DayBlock[] = [];
    for (let from = 0; from < this.count;) {
      const dayMs = dayOf(this.timesMs[rowAt(from)] ?? 0);
      let to = from;
      while (to < this.count && (this.timesMs[rowAt(to)] ?? 0) < dayMs + DAY_MS) to += 1;
      const block = emptyBlock(channelId, dayMs, to - from);
      for (let at = from; at < to; at += 1) {
        const row = rowAt(at);
        block.offsetsMs[at - from] = (this.timesMs[row] ?? 0) - dayMs;
        block.raw[at - from] = this.raw[row] ?? 0;
        block.flags[at - from] = this.flags[row] ?? 0;
      }
      blocks.push(block);
      from = to;
    }
    return blocks;
  }

  /** Rows by time; equal times as they came. */
  private order(): Uint32Array {
    const order = Uint32Array.from({ length: this.count }, (_, at) => at);
    return order.sort((a, b) => (this.timesMs[a] ?? 0) - (this.timesMs[b] ?? 0) || a - b);
  }
}

const emptyBlock = (channelId: string, dayMs: number, rows: number): DayBlock => ({
  channelId,
  dayMs,
  offsetsMs: new Uint32Array(rows),
  raw: new Float64Array(rows),
  flags: new Uint8Array(rows),
});

function grown<Column extends Float64Array | Uint8Array>(column: Column, larger: Column): Column {
  larger.set(column);
  return larger;
}
