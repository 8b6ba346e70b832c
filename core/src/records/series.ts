import { isMoment } from '../quantity/moment.ts';
import { MOST_VALUE } from '../signal/line.ts';

/**
 * Readings as columns: one block per channel and day, so that a season stays small and a chart reads only the days it shows.
 * A raw value is never changed; percent is computed when shown.
 */
export const FLAGS = {
  /** From the stand-in board, not from a real probe. */
  simulated: 1,
  /** Taken from a file: a readings CSV or a serial log. */
  imported: 2,
  /** Stands beside a reading of the same time that was recorded with another value; it decides nothing. */
  beside: 4,
} as const;

export type Reading = { readonly timeMs: number; readonly raw: number; readonly flags: number };

export type Series = {
  /** Not falling, ms since 1970; equal only where a reading stands beside another. */
  readonly timesMs: Float64Array;
  readonly raw: Float64Array;
  readonly flags: Uint8Array;
};

export type DayBlock = {
  readonly channelId: string;
  /** Midnight UTC that begins the day, ms since 1970. */
  readonly dayMs: number;
  /** ms since `dayMs`, not falling; equal only where a reading stands beside another. */
  readonly offsetsMs: Uint32Array;
  readonly raw: Float64Array;
  readonly flags: Uint8Array;
};

export const DAY_MS = 86_400_000;
export const dayOf = (timeMs: number): number => Math.floor(timeMs / DAY_MS) * DAY_MS;

/** Splits readings, in any order, by the day they belong to. */
export function byDay(readings: readonly Reading[]): Map<number, Reading[]> {
  const days = new Map<number, Reading[]>();
  for (const reading of readings) {
    const dayMs = dayOf(reading.timeMs);
    const day = days.get(dayMs);
    if (day) day.push(reading);
    else days.set(dayMs, [reading]);
  }
  return days;
}

/** Readings that are to be put into a record: by channel, or by channel and day; in any order. */
export type Incoming = ReadonlyMap<string, readonly Reading[]> | readonly DayBlock[];

export type IncomingDay = {
  readonly channelId: string;
  readonly dayMs: number;
  /** Its readings as they may stand in storage, where no two are of one time; null where they must be put in order. */
  readonly block: DayBlock | null;
  readonly readings: () => readonly Reading[];
};

/** Day by day, so that a million of them are never in memory as single readings. */
export function* incomingDays(incoming: Incoming): Generator<IncomingDay> {
  if (incoming instanceof Map)
    for (const [channelId, list] of incoming as ReadonlyMap<string, readonly Reading[]>)
      for (const [dayMs, readings] of byDay(list))
        yield { channelId, dayMs, block: null, readings: () => readings };
  else
    for (const block of incoming as readonly DayBlock[]) {
      const { channelId, dayMs, offsetsMs } = block;
      const isOrdered = offsetsMs.every((offset, at) => at === 0 || offset > (offsetsMs[at - 1] ?? 0));
      yield { channelId, dayMs, block: isOrdered ? block : null, readings: () => readingsOfDay(block) };
    }
}

/** Readings of a stretch, in order. */
export const readingsOf = (series: Series): Reading[] =>
  Array.from(series.timesMs, (timeMs, at) => ({
    timeMs,
    raw: series.raw[at] ?? 0,
    flags: series.flags[at] ?? 0,
  }));

/** The other way round. */
export const seriesOfReadings = (readings: readonly Reading[]): Series => ({
  timesMs: Float64Array.from(readings, ({ timeMs }) => timeMs),
  raw: Float64Array.from(readings, ({ raw }) => raw),
  flags: Uint8Array.from(readings, ({ flags }) => flags),
});

/** Readings of a block, in order. */
export const readingsOfDay = (block: DayBlock): Reading[] =>
  Array.from(block.offsetsMs, (offset, at) => ({
    timeMs: block.dayMs + offset,
    raw: block.raw[at] ?? 0,
    flags: block.flags[at] ?? 0,
  }));

/** Whether a reading can stand in the record: a time from 2000 up to 2100 and a value of ±1e9. */
export const isReading = ({ timeMs, raw }: Pick<Reading, 'timeMs' | 'raw'>): boolean =>
  isMoment(timeMs) && Math.abs(raw) <= MOST_VALUE;

/** Whether a stored thing is a sound block: columns of one length, times that do not fall and lie within the day, values that are numbers. */
export function isSoundBlock(stored: unknown): stored is DayBlock {
  if (typeof stored !== 'object' || stored === null) return false;
  const { channelId, dayMs, offsetsMs, raw, flags } = stored as Partial<Record<keyof DayBlock, unknown>>;
  if (typeof channelId !== 'string' || typeof dayMs !== 'number' || dayOf(dayMs) !== dayMs) return false;
  if (!(offsetsMs instanceof Uint32Array && raw instanceof Float64Array && flags instanceof Uint8Array))
    return false;
  if (offsetsMs.length !== raw.length || raw.length !== flags.length) return false;
  return (
    offsetsMs.every((offset, at) => offset < DAY_MS && (at === 0 || offset >= (offsetsMs[at - 1] ?? 0))) &&
    raw.every(Number.isFinite)
  );
}

/**
 * Joins day blocks, oldest first, and cuts out the readings from `fromMs` to `toMs`, both included. Readings that stand beside others are
 * left out unless they are asked for.
 */
export function seriesOf(
  blocks: readonly DayBlock[],
  fromMs: number,
  toMs: number,
  withBeside = false,
): Series {
  const parts = blocks.map((block) => {
    const first = rowsBefore(block, fromMs);
    return { block, first, end: Math.max(first, rowsBefore(block, toMs, true)) };
  });
  const leftOut = withBeside ? 0 : FLAGS.beside;
  let count = 0;
  for (const { block, first, end } of parts)
    for (let row = first; row < end; row += 1) if (((block.flags[row] ?? 0) & leftOut) === 0) count += 1;
  const timesMs = new Float64Array(count);
  const raw = new Float64Array(count);
  const flags = new Uint8Array(count);
  let at = 0;
  for (const { block, first, end } of parts)
    for (let row = first; row < end; row += 1) {
      if (((block.flags[row] ?? 0) & leftOut) !== 0) continue;
      timesMs[at] = block.dayMs + (block.offsetsMs[row] ?? 0);
      raw[at] = block.raw[row] ?? 0;
      flags[at] = block.flags[row] ?? 0;
      at += 1;
    }
  return { timesMs, raw, flags };
}

/** How many rows of a block come before a moment, or up to it and at it. */
function rowsBefore({ dayMs, offsetsMs }: DayBlock, timeMs: number, andAt = false): number {
  let [low, high] = [0, offsetsMs.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    const ms = dayMs + (offsetsMs[middle] ?? 0);
    if (ms < timeMs || (andAt && ms === timeMs)) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** A series without the readings that stand beside others; the same one when there are none. */
export function withoutBeside(series: Series): Series {
  return without(series, FLAGS.beside);
}

/** What a plot is judged by: readings of probes where there are some, those of stand-ins only where there is nothing else. The same series when all are of one kind. */
export function ofProbes(series: Series): Series {
  const own = without(series, FLAGS.simulated);
  return own.raw.length > 0 ? own : series;
}

const without = (series: Series, flag: number): Series =>
  series.flags.every((flags) => (flags & flag) === 0)
    ? series
    : partOf(series, (flags) => (flags & flag) === 0);

export const NO_ROWS: Series = {
  timesMs: new Float64Array(),
  raw: new Float64Array(),
  flags: new Uint8Array(),
};

/** The rows of a series whose flags are wanted. */
export function partOf(series: Series, isWanted: (flags: number) => boolean): Series {
  const kept = [...series.flags.keys()].filter((at) => isWanted(series.flags[at] ?? 0));
  return {
    timesMs: Float64Array.from(kept, (at) => series.timesMs[at] ?? 0),
    raw: Float64Array.from(kept, (at) => series.raw[at] ?? 0),
    flags: Uint8Array.from(kept, (at) => series.flags[at] ?? 0),
  };
}
