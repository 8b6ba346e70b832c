import { expect, test } from 'vitest';
import { summaryOf } from './summary.ts';

test('three readings by hand', () => {
  expect(summaryOf([1000, 2000, 61_000], [40, 55, 38])).toEqual({
    last: 38,
    lowest: 38,
    highest: 55,
    change: -2,
    durationS: 60,
    readings: 3,
  });
});

test('one reading has neither change nor duration', () => {
  expect(summaryOf([5], [7])).toMatchObject({ change: 0, durationS: 0, lowest: 7, highest: 7 });
});

test('nothing gives nothing', () => {
  expect(summaryOf([], [])).toBeNull();
});
