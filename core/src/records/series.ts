/**
 * Readings as columns: one block per channel and day, so that a season stays small and a chart reads only the days it shows.
 * A raw value is never changed; percent is computed when shown.
 */
export const FLAGS = {
  /** From the stand-in board, not from a real probe. */
  simulated: 1,
  /** Taken from a file: a readings CSV or a serial log. */
  imported: 2,
} as const;

export type Reading = { readonly timeMs: number; readonly raw: number; readonly flags: number };

export type Series = {
  /** Rising, ms since 1970. */
  readonly timesMs: Float64Array;
  readonly raw: Float64Array;
  readonly flags: Uint8Array;
};

export type DayBlock = {
  readonly channelId: string;
  /** Midnight UTC that begins the day, ms since 1970. */
  readonly dayMs: number;
  /** ms since `dayMs`, rising, each once. */
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

/**
 * A day's block with more readings put in, in any order. Of two different readings at the same millisecond the newly given
 * one stays; an equal one leaves the record as it is, so that taking in a file that was exported here changes nothing.
 * @param readings all of that day
 */
export function mergeDay(
  block: DayBlock | null,
  channelId: string,
  dayMs: number,
  readings: readonly Reading[],
): DayBlock {
  const at = new Map<number, { raw: number; flags: number }>();
  block?.offsetsMs.forEach((offset, row) =>
    at.set(offset, { raw: block.raw[row] ?? 0, flags: block.flags[row] ?? 0 }),
  );
  for (const reading of readings) {
    const offset = Math.round(reading.timeMs - dayMs);
    // The same value again says nothing new: it keeps the origin it was first recorded with.
    if (at.get(offset)?.raw !== reading.raw) at.set(offset, reading);
  }
  const offsetsMs = Uint32Array.from(at.keys()).sort();
  const held = (offset: number) => at.get(offset) ?? { raw: 0, flags: 0 };
  return {
    channelId,
    dayMs,
    offsetsMs,
    raw: Float64Array.from(offsetsMs, (offset) => held(offset).raw),
    flags: Uint8Array.from(offsetsMs, (offset) => held(offset).flags),
  };
}

/** Joins day blocks, oldest first, and cuts out the readings from `fromMs` to `toMs`, both included. */
export function seriesOf(blocks: readonly DayBlock[], fromMs: number, toMs: number): Series {
  const timesMs: number[] = [];
  const raw: number[] = [];
  const flags: number[] = [];
  for (const block of blocks) {
    for (const [row, offset] of block.offsetsMs.entries()) {
      const timeMs = block.dayMs + offset;
      if (timeMs < fromMs || timeMs > toMs) continue;
      timesMs.push(timeMs);
      raw.push(block.raw[row] ?? 0);
      flags.push(block.flags[row] ?? 0);
    }
  }
  return { timesMs: Float64Array.from(timesMs), raw: Float64Array.from(raw), flags: Uint8Array.from(flags) };
}
