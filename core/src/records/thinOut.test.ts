import { describe, expect, test } from 'vitest';
import { FLAGS, readingsOfDay, type DayBlock } from './series.ts';
import { thinDay } from './thinDay.ts';
import { NO_THINNING, thinnedOut, withDay } from './thinOut.ts';

const MINUTE = 60_000;
const day = (rows: readonly (readonly [minute: number, raw: number, flags?: number])[]): DayBlock => ({
  channelId: 'c',
  dayMs: Date.UTC(2025, 4, 1),
  offsetsMs: Uint32Array.from(rows, ([minute]) => minute * MINUTE),
  raw: Float64Array.from(rows, ([, raw]) => raw),
  flags: Uint8Array.from(rows, ([, , flags]) => flags ?? 0),
});
const rowsOf = (block: DayBlock | null) =>
  block && readingsOfDay(block).map(({ timeMs, raw }) => [(timeMs - block.dayMs) / MINUTE, raw]);

describe('a day that is thinned out', () => {
  test('keeps of each hour the first, lowest, highest and last reading, at the time and of the value that were recorded', () => {
    const block = day([
      [0, 50],
      [10, 40],
      [20, 45],
      [30, 90],
      [40, 60],
      [59, 55],
      [60, 54],
      [70, 53],
      [80, 52],
    ]);
    // Falling in its second hour: the first is the highest, the last the lowest.
    expect(rowsOf(thinnedOut(block))).toEqual([
      [0, 50],
      [10, 40],
      [30, 90],
      [59, 55],
      [60, 54],
      [80, 52],
    ]);
  });
  test('keeps where readings come from, and gains no other flag though a gap lies in it', () => {
    const rows = Array.from(
      { length: 60 },
      (_, at) => [at < 30 ? at : at + 600, 10 + (at % 7), FLAGS.imported] as const,
    );
    const thin = thinnedOut(day(rows));
    expect([...(thin?.flags ?? [])].every((flags) => flags === FLAGS.imported)).toBe(true);
    // Here, where the gap is long, a chart of a season draws the same as before.
    expect(thin && thinDay(thin).block.raw).toEqual(thinDay(day(rows)).block.raw);
  });
  test('loses what stood beside a recorded reading', () =>
    expect(
      rowsOf(
        thinnedOut(
          day([
            [5, 7],
            [5, 9, FLAGS.beside],
          ]),
        ),
      ),
    ).toEqual([[5, 7]]));
  test('nothing goes from a day of few readings, and nothing the second time', () => {
    expect(
      thinnedOut(
        day([
          [1, 2],
          [30, 5],
          [61, 3],
        ]),
      ),
    ).toBeNull();
    const once = thinnedOut(day(Array.from({ length: 1440 }, (_, at) => [at, (at * 7919) % 1000] as const)));
    expect(once && thinnedOut(once)).toBeNull();
    expect(once?.raw.length).toBeLessThanOrEqual(96);
  });
});

test('what it would leave is summed before: a day of minutes leaves four an hour at most', () => {
  const block = day(Array.from({ length: 1440 }, (_, at) => [at, (at * 7919) % 1000] as const));
  const sum = withDay(withDay(NO_THINNING, block), day([[1, 2]]));
  expect(sum.readings).toBe(1441);
  expect(sum.left).toBe((thinnedOut(block)?.raw.length ?? 0) + 1);
  expect(sum.bytesLeft).toBeLessThan(sum.bytes / 4);
});
