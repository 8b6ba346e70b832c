import { expect, test } from 'vitest';
import { LONGEST_GAP_S, logUnder } from './compareVersions.ts';
import { lineBetween } from './curveForTests.ts';

const MINUTE = 60_000;
/** 20 counts a percent: 3000 is dry, 1000 wet. */
const curve = lineBetween(3000, 1000);
const rawOf = (percent: number) => 3000 - 20 * percent;
const at = (minutes: readonly number[]) => minutes.map((one) => one * MINUTE);
const raw = (...percents: readonly number[]) => percents.map(rawOf);

test('lowest, mean, highest and last are those of the percent', () => {
  expect(logUnder(at([0, 1, 2, 3]), raw(40, 10, 70, 60), curve, null)).toEqual({
    lowest: 10,
    mean: 45,
    highest: 70,
    last: 60,
    belowS: 0,
  });
});

test('no readings are no log', () => {
  expect(logUnder([], [], curve, 30)).toBeNull();
});

test('time below the start limit runs from a reading below it to the next reading', () => {
  // Below from the minute 1 to 4; the last reading is below as well, and nothing follows it.
  expect(logUnder(at([0, 1, 3, 4, 5]), raw(40, 29, 20, 35, 10), curve, 30)?.belowS).toBe(180);
});

test('just at the limit is not below it', () => {
  expect(logUnder(at([0, 1, 2]), raw(30, 30, 30), curve, 30)?.belowS).toBe(0);
});

test('a silence says nothing of what happened in it', () => {
  const longest = LONGEST_GAP_S / 60;
  expect(logUnder(at([0, longest]), raw(10, 10), curve, 30)?.belowS).toBe(LONGEST_GAP_S);
  expect(logUnder(at([0, longest + 1]), raw(10, 10), curve, 30)?.belowS).toBe(0);
});
