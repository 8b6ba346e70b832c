/** Putting readings into a day that is recorded already, and taking them out again. What is recorded never changes. */
import { FLAGS, type DayBlock, type Reading } from './series.ts';

/** A reading that meets a recorded one of the same time with another value. */
export type Clash = {
  readonly channelId: string;
  readonly timeMs: number;
  readonly recorded: number;
  readonly given: number;
};

export type Merged = {
  readonly block: DayBlock;
  /** Readings that were put in; of those, the ones that stand beside a recorded one carry its flag. */
  readonly added: readonly Reading[];
  /** Readings that stood there already, value and all. */
  readonly same: number;
  readonly clashes: readonly Clash[];
};

/** Whether a reading that clashes is left out, or put beside the recorded one with a flag. The recorded one stays in both. */
export type OnClash = 'keep' | 'beside';

/**
 * A day's block with more readings put in, in any order. What is recorded stays as it is, value and origin: the same value at the same time
 * adds nothing, another value at the same time is a clash.
 * @param readings all of that day
 */
export function mergeDay(
  block: DayBlock | null,
  channelId: string,
  dayMs: number,
  readings: readonly Reading[],
  onClash: OnClash,
): Merged {
  if (!block && isRising(readings)) return asBlock(channelId, dayMs, readings);
  const rows = new Rows(block);
  const added: Reading[] = [];
  const clashes: Clash[] = [];
  let same = 0;
  for (const given of readings) {
    const offset = Math.round(given.timeMs - dayMs);
    const found = rows.at(offset);
    const recorded = found.find((one) => (one.flags & FLAGS.beside) === 0);
    if (found.some((one) => one.raw === given.raw)) {
      same += 1;
      continue;
    }
    // One that was flagged before, as in a file that was exported here, has its place beside; it asks nothing again.
    const isClash = recorded !== undefined && (given.flags & FLAGS.beside) === 0;
    if (isClash)
      clashes.push({ channelId, timeMs: dayMs + offset, recorded: recorded.raw, given: given.raw });
    if (isClash && onClash === 'keep') continue;
    const flags = isClash ? given.flags | FLAGS.beside : given.flags;
    rows.put({ offset, raw: given.raw, flags });
    added.push({ timeMs: dayMs + offset, raw: given.raw, flags });
  }
  return { block: rows.block(block, channelId, dayMs), added, same, clashes };
}

/** Whether readings come one behind the other, no two at a time: most files and every recorder give such. */
const isRising = (readings: readonly Reading[]): boolean =>
  readings.length > 0 &&
  readings.every(
    ({ timeMs }, at) => at === 0 || Math.round(timeMs) > Math.round(readings[at - 1]?.timeMs ?? 0),
  );

const asBlock = (channelId: string, dayMs: number, readings: readonly Reading[]): Merged => {
  const added = readings.map(({ timeMs, raw, flags }) => ({
    timeMs: dayMs + Math.round(timeMs - dayMs),
    raw,
    flags,
  }));
  return {
    block: {
      channelId,
      dayMs,
      offsetsMs: Uint32Array.from(added, ({ timeMs }) => timeMs - dayMs),
      raw: Float64Array.from(added, ({ raw }) => raw),
      flags: Uint8Array.from(added, ({ flags }) => flags),
    },
    added,
    same: 0,
    clashes: [],
  };
};

type Row = { readonly offset: number; readonly raw: number; readonly flags: number };

/** The rows of a day while others come in: those recorded are found by halving, so that adding a few to a long day costs little. */
class Rows {
  private readonly recorded: DayBlock | null;
  private readonly fresh: Row[] = [];
  private readonly freshAt = new Map<number, Row[]>();

  constructor(block: DayBlock | null) {
    this.recorded = block;
  }

  at(offset: number): Row[] {
    return [...this.recordedAt(offset), ...(this.freshAt.get(offset) ?? [])];
  }

  put(row: Row): void {
    this.fresh.push(row);
    const there = this.freshAt.get(row.offset);
    if (there) there.push(row);
    else this.freshAt.set(row.offset, [row]);
  }

  block(before: DayBlock | null, channelId: string, dayMs: number): DayBlock {
    if (before && this.fresh.length === 0) return before;
    const old = this.recorded;
    const count = (old?.offsetsMs.length ?? 0) + this.fresh.length;
    const offsetsMs = new Uint32Array(count);
    const raw = new Float64Array(count);
    const flags = new Uint8Array(count);
    // Sorting keeps equal times in the order in which they came, and what was recorded goes in front of what is new.
    const fresh = this.fresh.toSorted((a, b) => a.offset - b.offset);
    let from = 0;
    let next = 0;
    for (let at = 0; at < count; at += 1) {
      const recorded = old && from < old.offsetsMs.length ? (old.offsetsMs[from] ?? 0) : Infinity;
      const row = fresh[next];
      if (row && row.offset < recorded) {
        offsetsMs[at] = row.offset;
        raw[at] = row.raw;
        flags[at] = row.flags;
        next += 1;
      } else {
        offsetsMs[at] = recorded;
        raw[at] = old?.raw[from] ?? 0;
        flags[at] = old?.flags[from] ?? 0;
        from += 1;
      }
    }
    return { channelId, dayMs, offsetsMs, raw, flags };
  }

  private recordedAt(offset: number): Row[] {
    const { recorded } = this;
    if (!recorded) return [];
    const rows: Row[] = [];
    for (let at = firstAt(recorded.offsetsMs, offset); recorded.offsetsMs[at] === offset; at += 1)
      rows.push({ offset, raw: recorded.raw[at] ?? 0, flags: recorded.flags[at] ?? 0 });
    return rows;
  }
}

/** Index of the first offset that is not smaller. */
function firstAt(offsetsMs: Uint32Array, offset: number): number {
  let low = 0;
  let high = offsetsMs.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((offsetsMs[middle] ?? 0) < offset) low = middle + 1;
    else high = middle;
  }
  return low;
}

/**
 * A day's block without certain readings: each takes away one row of its time, value and flags; one that is not there takes nothing.
 * Null when none is left.
 */
export function withoutReadings(block: DayBlock, readings: readonly Reading[]): DayBlock | null {
  const keyOf = (offset: number, raw: number, flags: number) => `${offset} ${raw} ${flags}`;
  const gone = new Map<string, number>();
  for (const { timeMs, raw, flags } of readings) {
    const key = keyOf(timeMs - block.dayMs, raw, flags);
    gone.set(key, (gone.get(key) ?? 0) + 1);
  }
  const kept: number[] = [];
  for (const [at, offset] of block.offsetsMs.entries()) {
    const key = keyOf(offset, block.raw[at] ?? 0, block.flags[at] ?? 0);
    const left = gone.get(key) ?? 0;
    if (left > 0) gone.set(key, left - 1);
    else kept.push(at);
  }
  return onlyRows(block, kept);
}

/** A day with some of its rows, in their order; null for none. */
const onlyRows = (block: DayBlock, kept: readonly number[]): DayBlock | null =>
  kept.length === 0
    ? null
    : {
        channelId: block.channelId,
        dayMs: block.dayMs,
        offsetsMs: Uint32Array.from(kept, (at) => block.offsetsMs[at] ?? 0),
        raw: Float64Array.from(kept, (at) => block.raw[at] ?? 0),
        flags: Uint8Array.from(kept, (at) => block.flags[at] ?? 0),
      };

/** A day's rows from one moment to another, both included, and the others; null where there are none. */
export function splitDay(
  block: DayBlock,
  fromMs: number,
  toMs: number,
): { readonly inside: DayBlock | null; readonly outside: DayBlock | null } {
  const rows = [...block.offsetsMs.keys()];
  const isInside = (at: number): boolean => {
    const ms = block.dayMs + (block.offsetsMs[at] ?? 0);
    return ms >= fromMs && ms <= toMs;
  };
  return {
    inside: onlyRows(block, rows.filter(isInside)),
    outside: onlyRows(
      block,
      rows.filter((at) => !isInside(at)),
    ),
  };
}
