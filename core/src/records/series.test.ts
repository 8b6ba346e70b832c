import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { byDay, DAY_MS, dayOf, mergeDay, seriesOf, type Reading } from './series.ts';

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

describe('mergeDay', () => {
  test('sorts what comes out of order', () => {
    const block = mergeDay(null, 'c', day, [at(day + 200, 2), at(day + 1000, 3), at(day + 30, 1)]);
    expect([...block.offsetsMs]).toEqual([30, 200, 1000]);
    expect([...block.raw]).toEqual([1, 2, 3]);
  });

  test('the newer of two readings at one millisecond stays', () => {
    const first = mergeDay(null, 'c', day, [at(day + 30, 1), at(day + 40, 2)]);
    const second = mergeDay(first, 'c', day, [at(day + 40, 9, 2)]);
    expect([...second.raw]).toEqual([1, 9]);
    expect([...second.flags]).toEqual([0, 2]);
    expect([...first.raw]).toEqual([1, 2]);
  });

  test('an equal reading keeps the origin it was first recorded with', () => {
    const measured = mergeDay(null, 'c', day, [at(day + 40, 2, 0)]);
    expect([...mergeDay(measured, 'c', day, [at(day + 40, 2, 2)]).flags]).toEqual([0]);
  });

  test('putting the same readings in again changes nothing, in whatever order and portions', () => {
    const readings = fc.array(
      fc.record({ offset: fc.integer({ min: 0, max: DAY_MS - 1 }), raw: fc.integer() }),
      { maxLength: 40 },
    );
    fc.assert(
      fc.property(readings, fc.nat(40), (rows, cut) => {
        const all = rows.map((row) => at(day + row.offset, row.offset % 97));
        const once = mergeDay(null, 'c', day, all);
        const twice = mergeDay(
          mergeDay(once, 'c', day, all.slice(cut)),
          'c',
          day,
          all.slice(0, cut).reverse(),
        );
        expect(twice).toEqual(once);
      }),
    );
  });
});

test('a series joins days and is cut to the time asked for, both ends included', () => {
  const yesterday = mergeDay(null, 'c', day - DAY_MS, [at(day - 2000, 1), at(day - 1000, 2)]);
  const today = mergeDay(null, 'c', day, [at(day, 3), at(day + 1000, 4)]);
  const series = seriesOf([yesterday, today], day - 1000, day);
  expect([...series.timesMs]).toEqual([day - 1000, day]);
  expect([...series.raw]).toEqual([2, 3]);
});
