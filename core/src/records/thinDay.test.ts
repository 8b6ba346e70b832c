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
  expect([readings, stepMs]).toEqual([60, { probes: MINUTE, standIns: 0 }]);
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

const mixed = (
  probe: readonly (readonly [minute: number, raw: number])[],
  standIn: readonly (readonly [minute: number, raw: number])[],
  dayMs = MAY,
): DayBlock => {
  const rows = [
    ...probe.map(([minute, raw]) => ({ minute, raw, flags: 0 })),
    ...standIn.map(([minute, raw]) => ({ minute, raw, flags: FLAGS.simulated })),
  ].toSorted((a, b) => a.minute - b.minute);
  const block = day(
    rows.map(({ minute, raw }) => [minute, raw] as const),
    dayMs,
  );
  return { ...block, flags: Uint8Array.from(rows, ({ flags }) => flags) };
};
const ofSource = ({ raw, flags }: Pick<DayBlock, 'raw' | 'flags'>, flag: number) =>
  [...raw].filter((_, at) => ((flags[at] ?? 0) & FLAGS.simulated) === flag);

test('where stand-ins read beside a probe within one hour, neither hides the peak of the other', () => {
  // The stand-in's 50 to 4000 lies around all that the probe reads; its spike to 2600 is still there.
  const probe = minutes(60, (at) => (at === 30 ? 2600 : 2000));
  const standIn = minutes(30, (at) => (at === 11.5 ? 50 : at === 17.5 ? 4000 : 1000), 0.5);
  const { block, readings, stepMs } = thinDay(mixed(probe, standIn));
  expect(ofSource(block, 0)).toEqual([2000, 2600, 2000]);
  expect(ofSource(block, FLAGS.simulated)).toEqual([1000, 50, 4000, 1000]);
  expect(readings).toBe(90);
  expect(stepMs).toEqual({ probes: MINUTE, standIns: MINUTE });
});

test('a gap of the probe is one though stand-ins filled it, within a day and from day to day', () => {
  const standIn = minutes(1440, () => 7, 0.5);
  const probe = [...minutes(100, () => 1), ...minutes(100, () => 2, 600)];
  const first = mixed(probe, standIn);
  // Two days of the stand-in alone, then the probe again.
  const days = [
    first,
    ...[1, 2].map((at) => mixed([], standIn, MAY + at * DAY)),
    mixed(
      minutes(100, () => 3),
      standIn,
      MAY + 3 * DAY,
    ),
  ];
  const joined = joinThin(days.map(thinDay));
  const gaps = [...joined.timesMs.keys()].filter(joined.isGap);
  expect(gaps.map((at) => [((joined.timesMs[at] ?? 0) - MAY) / MINUTE, joined.raw[at]])).toEqual([
    [600, 2],
    [3 * 1440, 3],
  ]);
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
