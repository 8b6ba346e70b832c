import fc from 'fast-check';
import { expect, test } from 'vitest';
import { FLAGS, seriesOf, type DayBlock } from './series.ts';
import { joinThin, partOfDay, thinDay } from './thinDay.ts';

const DAY = 86_400_000;
const MINUTE = 60_000;
const MAY = Date.UTC(2026, 4, 1);

/** A day with these readings, `[minute, raw]`. */
const day = (rows: readonly (readonly [minute: number, raw: number])[], dayMs = MAY): DayBlock => ({
  channelId: 'c',
  dayMs,
  offsetsMs: Uint32Array.from(rows, ([minute]) => minute * MINUTE),
  raw: Float64Array.from(rows, ([, raw]) => raw),
  flags: new Uint8Array(rows.length),
});
const minutes = (count: number, raw: (minute: number) => number, from = 0) =>
  Array.from({ length: count }, (_, at) => [from + at, raw(from + at)] as const);

test('an hour of minutes keeps its first, lowest, highest and last reading, and says how many they were', () => {
  const { block, readings, stepMs } = thinDay(
    day(minutes(60, (at) => (at === 20 ? 900 : at === 41 ? 2900 : 2000 + at))),
  );
  expect([...block.offsetsMs].map((ms) => ms / MINUTE)).toEqual([0, 20, 41, 59]);
  expect([...block.raw]).toEqual([2000, 900, 2900, 2059]);
  expect([readings, stepMs]).toEqual([60, MINUTE]);
});

test('a gap within a day and one between days stay gaps; a day that follows at its usual distance has none', () => {
  const morning = [...minutes(120, () => 5), ...minutes(120, () => 7, 400)];
  const joined = joinThin([
    thinDay(day(morning)),
    thinDay(
      day(
        minutes(1440, () => 9),
        MAY + DAY,
      ),
    ),
  ]);
  const gapsAt = [...joined.timesMs.keys()]
    .filter(joined.isGap)
    .map((at) => ((joined.timesMs[at] ?? 0) - MAY) / MINUTE);
  // Behind the pause at 400 min, and behind the night from 520 min on.
  expect(gapsAt).toEqual([400, 1440]);
  const through = joinThin([
    thinDay(day(minutes(1440, () => 1))),
    thinDay(
      day(
        minutes(1440, () => 1),
        MAY + DAY,
      ),
    ),
  ]);
  expect([...through.timesMs.keys()].some(through.isGap)).toBe(false);
});

test('what stands beside another reading is neither drawn nor counted', () => {
  const block = {
    ...day(minutes(10, (at) => at)),
    flags: Uint8Array.from({ length: 10 }, (_, at) => (at === 9 ? FLAGS.beside : 0)),
  };
  expect(thinDay(block).readings).toBe(9);
  expect(Math.max(...thinDay(block).block.raw)).toBe(8);
});

test('whatever the readings: lowest, highest, first, last and number are those of all, and it is at most four an hour and two a gap', () => {
  const rows = fc
    .uniqueArray(fc.integer({ min: 0, max: 1439 }), { minLength: 1, maxLength: 400 })
    .chain((at) =>
      fc.tuple(
        fc.constant([...at].sort((a, b) => a - b)),
        fc.array(fc.integer({ min: 0, max: 4095 }), { minLength: at.length, maxLength: at.length }),
      ),
    );
  fc.assert(
    fc.property(rows, fc.nat(1439), fc.nat(1439), ([at, raw], one, other) => {
      const block = day(at.map((minute, place) => [minute, raw[place] ?? 0] as const));
      const [from, to] = [MAY + Math.min(one, other) * MINUTE, MAY + Math.max(one, other) * MINUTE];
      const all = seriesOf([block], from, to);
      const thin = joinThin([thinDay(partOfDay(block, from, to))]);
      expect(thin.readings).toBe(all.raw.length);
      if (all.raw.length === 0) return;
      const ends = ({ raw: values, timesMs }: { raw: Float64Array; timesMs: Float64Array }) => [
        Math.min(...values),
        Math.max(...values),
        values[0],
        values.at(-1),
        timesMs[0],
        timesMs.at(-1),
      ];
      expect(ends(thin)).toEqual(ends(all));
      const gaps = [...thin.timesMs.keys()].filter(thin.isGap).length;
      expect(thin.raw.length).toBeLessThanOrEqual(4 * 24 + 4 * gaps);
    }),
    { numRuns: 300 },
  );
});
