import { expect, test } from 'vitest';
import { extentOf } from './extent.ts';

test('the ends of a few numbers, and of none', () => {
  expect(extentOf([3, -1, 2])).toEqual({ low: -1, high: 3 });
  expect(extentOf([5])).toEqual({ low: 5, high: 5 });
  expect(extentOf([])).toBeNull();
});

test('a million numbers are no more than a few', () => {
  expect(extentOf(Float64Array.from({ length: 1_000_000 }, (_, at) => at))).toEqual({
    low: 0,
    high: 999_999,
  });
});
