import { expect, test } from 'vitest';
import { isBetween } from './hours.ts';

test.each([
  // 20:00 to 07:00, in minutes.
  [1200, 420, 1199, false],
  [1200, 420, 1200, true],
  [1200, 420, 0, true],
  [1200, 420, 419, true],
  [1200, 420, 420, false],
  [60, 120, 59, false],
  [60, 120, 60, true],
  [60, 120, 120, false],
  // No time at all.
  [60, 60, 60, false],
])('between %d and %d lies %d: %s', (from, to, at, isSo) => expect(isBetween(from, to, at)).toBe(isSo));
