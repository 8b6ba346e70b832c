import { expect, test } from 'vitest';
import { EARLIEST_MS, LATEST_MS } from '../quantity/moment.ts';
import { mergeDay } from './mergeDay.ts';
import {
  byDay,
  DAY_MS,
  dayOf,
  FLAGS,
  isReading,
  isSoundBlock,
  ofProbes,
  seriesOf,
  type Reading,
} from './series.ts';

const at = (timeMs: number, raw: number, flags = 0): Reading => ({ timeMs, raw, flags });
const day = 20_000 * DAY_MS;

test('a day begins at midnight UTC', () => {
  expect(dayOf(day)).toBe(day);
  expect(dayOf(day - 1)).toBe(day - DAY_MS);
  expect(dayOf(day + DAY_MS - 1)).toBe(day);
});

test('readings are split by their day', () => {
  const days = byDay([at(day + 5, 1), at(day - 5, 2), at(day + 6, 3)]);
  expect([...days].map(([dayMs, readings]) => [dayMs - day, readings.map((one) => one.raw)])).toEqual([
    [0, [1, 3]],
    [-DAY_MS, [2]],
  ]);
});

test('a series joins days and is cut to the time asked for, both ends included', () => {
  const yesterday = mergeDay(null, 'c', day - DAY_MS, [at(day - 2000, 1), at(day - 1000, 2)], 'keep').block;
  const today = mergeDay(null, 'c', day, [at(day, 3), at(day + 1000, 4)], 'keep').block;
  const series = seriesOf([yesterday, today], day - 1000, day);
  expect([...series.timesMs]).toEqual([day - 1000, day]);
  expect([...series.raw]).toEqual([2, 3]);
});

test('a reading beside another is shown only where it is asked for', () => {
  const recorded = mergeDay(null, 'c', day, [at(day, 3)], 'keep').block;
  const { block } = mergeDay(recorded, 'c', day, [at(day, 8), at(day + 1, 4)], 'beside');
  expect([...seriesOf([block], day, day + 1).raw]).toEqual([3, 4]);
  const all = seriesOf([block], day, day + 1, true);
  expect([...all.raw]).toEqual([3, 8, 4]);
  expect([...all.flags]).toEqual([0, FLAGS.beside, 0]);
});

test('where a probe was read, what stand-ins read says nothing of its plot; where there is nothing else, they speak', () => {
  const rows = (flags: readonly number[]) => ({
    timesMs: Float64Array.from(flags, (_, row) => day + row),
    raw: Float64Array.from(flags, (_, row) => 10 + row),
    flags: Uint8Array.from(flags),
  });
  const mixed = ofProbes(rows([FLAGS.simulated, 0, FLAGS.simulated | FLAGS.imported, FLAGS.imported]));
  expect([...mixed.timesMs]).toEqual([day + 1, day + 3]);
  expect([...mixed.raw]).toEqual([11, 13]);
  expect([...mixed.flags]).toEqual([0, FLAGS.imported]);
  const standIns = rows([FLAGS.simulated, FLAGS.simulated]);
  expect(ofProbes(standIns)).toBe(standIns);
  expect(ofProbes(rows([])).raw).toHaveLength(0);
});

test.each([
  [EARLIEST_MS, 1512, true],
  [EARLIEST_MS - 1, 1512, false],
  [LATEST_MS - 1, -1e9, true],
  [LATEST_MS, 1512, false],
  [day, 1e9 + 1, false],
  [day, Number.NaN, false],
  [Number.NaN, 1512, false],
])('at %d a value of %d is a reading: %s', (timeMs, raw, isOne) =>
  expect(isReading({ timeMs, raw })).toBe(isOne),
);

const sound = mergeDay(null, 'c', day, [at(day, 3), at(day + 5, 4)], 'keep').block;
test.each([
  ['as written', sound, true],
  ['nothing', undefined, false],
  ['a text', 'block', false],
  ['a column missing', { ...sound, raw: undefined }, false],
  ['a column too short', { ...sound, raw: new Float64Array(1) }, false],
  ['a column of another kind', { ...sound, flags: [0, 0] }, false],
  ['times that fall', { ...sound, offsetsMs: Uint32Array.of(5, 0) }, false],
  ['a time beyond the day', { ...sound, offsetsMs: Uint32Array.of(5, DAY_MS) }, false],
  ['a value that is no number', { ...sound, raw: Float64Array.of(3, Number.NaN) }, false],
  ['a day that begins at noon', { ...sound, dayMs: day + DAY_MS / 2 }, false],
])('a stored block is sound or it is not: %s', (_, stored, isSound) =>
  expect(isSoundBlock(stored)).toBe(isSound),
);
