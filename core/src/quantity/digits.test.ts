import { expect, test } from 'vitest';
import { clockMsAt, digitsAt } from './digits.ts';

test.each([
  ['2026-05-03', 0, 4, 2026],
  ['2026-05-03', 5, 2, 5],
  ['x007', 1, 3, 7],
  ['12a', 0, 3, Number.NaN],
  ['12', 0, 3, Number.NaN],
  ['-1', 0, 2, Number.NaN],
])('digits of %j from %d, %d of them', (text, at, count, number) =>
  expect(digitsAt(text, at, count)).toBe(number),
);

test.each([
  ['06:30', 0, false, 23_400_000],
  ['T23:59:59Z', 1, true, 86_399_000],
  ['00:00:00', 0, true, 0],
  ['24:00', 0, false, Number.NaN],
  ['12:60', 0, false, Number.NaN],
  ['12:00:60', 0, true, Number.NaN],
  ['12.00', 0, false, Number.NaN],
  ['12:00.00', 0, true, Number.NaN],
  ['12:00', 0, true, Number.NaN],
])('the clock in %j from %d, with seconds: %s', (text, at, withSeconds, ms) =>
  expect(clockMsAt(text, at, withSeconds)).toBe(ms),
);
