/** A day of readings by the hour: of each its first, lowest, highest and last. What a chart of a season draws from, so that no spike and no gap is lost, and a year of minutes is a few thousand rows. */
import { packDay, unpackDay, type PackedDay } from './packDay.ts';
import { FLAGS, seriesOf, type DayBlock, type Series } from './series.ts';
import { gapFinder, telling } from './trace.ts';

const HOUR_MS = 3_600_000;
/** Of a row of a thinned day: a gap lies before it. No reading carries this flag. */
const GAP = 128;

export type ThinDay = {
  readonly block: DayBlock;
  /** How many readings it stands for. */
  readonly readings: number;
  /** The usual distance of its readings, ms; 0 with fewer than two. */
  readonly stepMs: number;
};

/** Readings that stand beside others are left out: they are not drawn. */
export function thinDay(block: DayBlock): ThinDay {
  const { timesMs, raw, flags } = seriesOf([block], block.dayMs, Infinity);
  const isGap = gapFinder(timesMs);
  const rows: number[] = [];
  const behindGap = new Set<number>();
  let from = 0;
  for (let at = 1; at <= raw.length; at += 1) {
    const gap = at < raw.length && isGap(at);
    if (!gap && at < raw.length && hourOf(timesMs, at) === hourOf(timesMs, from)) continue;
    rows.push(...telling(raw, from, at));
    if (gap) behindGap.add(at);
    from = at;
  }
  return {
    block: {
      channelId: block.channelId,
      dayMs: block.dayMs,
      offsetsMs: Uint32Array.from(rows, (row) => (timesMs[row] ?? 0) - block.dayMs),
      raw: Float64Array.from(rows, (row) => raw[row] ?? 0),
      flags: Uint8Array.from(rows, (row) => (flags[row] ?? 0) | (behindGap.has(row) ? GAP : 0)),
    },
    readings: raw.length,
    stepMs: usualStep(timesMs),
  };
}

const hourOf = (timesMs: Float64Array, at: number): number => Math.floor((timesMs[at] ?? 0) / HOUR_MS);

/** The middle distance. */
function usualStep(timesMs: Float64Array): number {
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
export type StoredThin = PackedDay & { readonly readings: number; readonly stepMs: number };

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
  return isCount && typeof stepMs === 'number' && stepMs >= 0 ? { block, readings, stepMs } : null;
}

export type ThinSeries = Series & {
  /** How many readings it stands for. */
  readonly readings: number;
  /** Whether a gap lies before the row at a place. */
  readonly isGap: (at: number) => boolean;
};

/** Between two days there is a gap where they lie so many of their usual steps apart, as within a day. */
const GAP_FACTOR = 5;

/** Joins thinned days, oldest first. */
export function joinThin(days: readonly ThinDay[]): ThinSeries {
  const filled = days.filter(({ readings }) => readings > 0);
  const series = seriesOf(
    filled.map(({ block }) => block),
    -Infinity,
    Infinity,
  );
  const gaps = series.flags.map((flags) => ((flags & GAP) === 0 ? 0 : 1));
  let at = 0;
  filled.forEach(({ block, stepMs }, place) => {
    const before = filled[place - 1];
    const apartMs = (series.timesMs[at] ?? 0) - (series.timesMs[at - 1] ?? 0);
    if (before && apartMs > GAP_FACTOR * Math.max(stepMs, before.stepMs)) gaps[at] = 1;
    at += block.raw.length;
  });
  return {
    timesMs: series.timesMs,
    raw: series.raw,
    flags: series.flags.map((flags) => flags & (FLAGS.simulated | FLAGS.imported | FLAGS.beside)),
    readings: filled.reduce((sum, { readings }) => sum + readings, 0),
    isGap: (row) => gaps[row] === 1,
  };
}

/** A day with only what lies from one moment to another, both included. */
export function partOfDay(block: DayBlock, fromMs: number, toMs: number): DayBlock {
  const { timesMs, raw, flags } = seriesOf([block], fromMs, toMs, true);
  return { ...block, offsetsMs: Uint32Array.from(timesMs, (at) => at - block.dayMs), raw, flags };
}
