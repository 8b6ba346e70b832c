/** A day of readings by the hour: of each its first, lowest, highest and last. What a chart of a season draws from, so that no spike and no gap is lost, and a year of minutes is a few thousand rows. */
import { packDay, unpackDay, type PackedDay } from './packDay.ts';
import { FLAGS, NO_ROWS, partOf, seriesOf, type DayBlock, type Series } from './series.ts';
import { gapFinder, telling } from './trace.ts';

const HOUR_MS = 3_600_000;
/** Of a row of a thinned day: a gap lies before it, among the readings of its own source. No reading carries this flag. */
const GAP = 128;

/** Probes and stand-in boards are thinned apart: in one hour there may be both, and neither hides a peak or a gap of the other. */
const SOURCES = ['probes', 'standIns'] as const;
type Source = (typeof SOURCES)[number];
const sourceOf = (flags: number | undefined): Source =>
  ((flags ?? 0) & FLAGS.simulated) === 0 ? 'probes' : 'standIns';

export type ThinDay = {
  readonly block: DayBlock;
  /** How many readings it stands for. */
  readonly readings: number;
  /** The usual distance of the readings of each source, ms; 0 with fewer than two. */
  readonly stepMs: Readonly<Record<Source, number>>;
};

/** Readings that stand beside others are left out: they are not drawn. */
export function thinDay(block: DayBlock): ThinDay {
  const all = seriesOf([block], block.dayMs, Infinity);
  const [only] = all.flags;
  const isMixed = all.flags.some((flags) => sourceOf(flags) !== sourceOf(only));
  const parts = SOURCES.map((source) =>
    isMixed ? partOf(all, (flags) => sourceOf(flags) === source) : sourceOf(only) === source ? all : NO_ROWS,
  );
  const rows = parts.flatMap(thinRows);
  if (isMixed) rows.sort((a, b) => a.timeMs - b.timeMs);
  return {
    block: {
      channelId: block.channelId,
      dayMs: block.dayMs,
      offsetsMs: Uint32Array.from(rows, ({ timeMs }) => timeMs - block.dayMs),
      raw: Float64Array.from(rows, ({ raw }) => raw),
      flags: Uint8Array.from(rows, ({ flags }) => flags),
    },
    readings: all.raw.length,
    stepMs: { probes: usualStep(parts[0]?.timesMs), standIns: usualStep(parts[1]?.timesMs) },
  };
}

type Row = { readonly timeMs: number; readonly raw: number; readonly flags: number };

/** Of each hour, and of each stretch between gaps, the first, lowest, highest and last reading. */
function thinRows({ timesMs, raw, flags }: Series): Row[] {
  const isGap = gapFinder(timesMs);
  const rows: Row[] = [];
  let from = 0;
  let isBehindGap = false;
  for (let at = 1; at <= raw.length; at += 1) {
    const gap = at < raw.length && isGap(at);
    if (!gap && at < raw.length && hourOf(timesMs, at) === hourOf(timesMs, from)) continue;
    for (const row of telling(raw, from, at))
      rows.push({
        timeMs: timesMs[row] ?? 0,
        raw: raw[row] ?? 0,
        flags: (flags[row] ?? 0) | (isBehindGap && row === from ? GAP : 0),
      });
    isBehindGap = gap;
    from = at;
  }
  return rows;
}

const hourOf = (timesMs: Float64Array, at: number): number => Math.floor((timesMs[at] ?? 0) / HOUR_MS);

/** The middle distance. */
function usualStep(timesMs: Float64Array = new Float64Array()): number {
  const steps = new Float64Array(Math.max(0, timesMs.length - 1));
  let areAlike = true;
  for (let at = 0; at < steps.length; at += 1) {
    steps[at] = (timesMs[at + 1] ?? 0) - (timesMs[at] ?? 0);
    if (steps[at] !== steps[0]) areAlike = false;
  }
  if (!areAlike) steps.sort();
  return steps[steps.length >> 1] ?? 0;
}

/** A thinned day as it lies in storage. */
export type StoredThin = PackedDay & { readonly readings: number; readonly stepMs: ThinDay['stepMs'] };

export const packThin = ({ block, readings, stepMs }: ThinDay): StoredThin => ({
  ...packDay(block),
  readings,
  stepMs,
});

/** Null for anything that is no thinned day. */
export function unpackThin(stored: unknown): ThinDay | null {
  const block = unpackDay(stored);
  if (!block) return null;
  const { readings, stepMs } = stored as Partial<Record<keyof StoredThin, unknown>>;
  const isCount = typeof readings === 'number' && readings >= block.raw.length;
  return isCount && isSteps(stepMs) ? { block, readings, stepMs } : null;
}

function isSteps(stored: unknown): stored is ThinDay['stepMs'] {
  if (typeof stored !== 'object' || stored === null) return false;
  const steps = stored as Partial<Record<Source, unknown>>;
  return SOURCES.every((source) => Number(steps[source]) >= 0);
}

export type ThinSeries = Series & {
  /** How many readings it stands for. */
  readonly readings: number;
  /** Whether a gap lies before the row at a place, among the readings of its own source. */
  readonly isGap: (at: number) => boolean;
};

/** Between two days of a source there is a gap where they lie so many of their usual steps apart, as within a day. */
const GAP_FACTOR = 5;

/** The first row of a source on the way from one row to before another; null where there is none. */
function rowOfSource(
  flags: Uint8Array,
  source: Source,
  from: number,
  before: number,
  step: 1 | -1,
): number | null {
  for (let row = from; row !== before; row += step) if (sourceOf(flags[row]) === source) return row;
  return null;
}

/** Joins thinned days, oldest first. */
export function joinThin(days: readonly ThinDay[]): ThinSeries {
  const filled = days.filter(({ readings }) => readings > 0);
  const series = seriesOf(
    filled.map(({ block }) => block),
    -Infinity,
    Infinity,
  );
  const gaps = new Uint8Array(series.flags.length);
  const flags = new Uint8Array(series.flags.length);
  for (let row = 0; row < flags.length; row += 1) {
    const own = series.flags[row] ?? 0;
    gaps[row] = (own & GAP) === 0 ? 0 : 1;
    flags[row] = own & (FLAGS.simulated | FLAGS.imported | FLAGS.beside);
  }
  // Within a day its gaps are known; between two it goes by the last row of a source and its next one.
  const before: Partial<Record<Source, { readonly timeMs: number; readonly stepMs: number }>> = {};
  let first = 0;
  for (const { block, stepMs } of filled) {
    const end = first + block.raw.length;
    for (const source of SOURCES) {
      const from = rowOfSource(flags, source, first, end, 1);
      if (from === null) continue;
      const last = before[source];
      const step = stepMs[source];
      if (last && (series.timesMs[from] ?? 0) - last.timeMs > GAP_FACTOR * Math.max(step, last.stepMs))
        gaps[from] = 1;
      const to = rowOfSource(flags, source, end - 1, first - 1, -1) ?? from;
      before[source] = { timeMs: series.timesMs[to] ?? 0, stepMs: step };
    }
    first = end;
  }
  return {
    timesMs: series.timesMs,
    raw: series.raw,
    flags,
    readings: filled.reduce((sum, { readings }) => sum + readings, 0),
    isGap: (row) => gaps[row] === 1,
  };
}

/** A day with only what lies from one moment to another, both included. */
export function partOfDay(block: DayBlock, fromMs: number, toMs: number): DayBlock {
  const { timesMs, raw, flags } = seriesOf([block], fromMs, toMs, true);
  return { ...block, offsetsMs: Uint32Array.from(timesMs, (at) => at - block.dayMs), raw, flags };
}
