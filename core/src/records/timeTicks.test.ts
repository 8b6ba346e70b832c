import { expect, test } from 'vitest';
import { tickStepMs, timeTicks, zoneOffsetMs } from './timeTicks.ts';

const SUMMER_NOON = Date.UTC(2026, 6, 1, 12);
const HOUR = 3_600_000;

test('London is an hour ahead of UTC in July and level with it in January', () => {
  expect(zoneOffsetMs(SUMMER_NOON, 'Europe/London')).toBe(HOUR);
  expect(zoneOffsetMs(Date.UTC(2026, 0, 1, 12), 'Europe/London')).toBe(0);
});

test('a step is the finest round one that does not crowd', () => {
  expect(tickStepMs(60_000, 6)).toBe(10_000);
  expect(tickStepMs(24 * HOUR, 8)).toBe(3 * HOUR);
  expect(tickStepMs(24 * HOUR, 4)).toBe(6 * HOUR);
  expect(tickStepMs(1e12, 4)).toBe(28 * 24 * HOUR);
});

test('six-hour marks fall on the zone’s own hours', () => {
  const { ticksMs, stepMs } = timeTicks(SUMMER_NOON, SUMMER_NOON + 24 * HOUR, 4, 'Europe/London');
  expect(stepMs).toBe(6 * HOUR);
  // 18:00 in London is 17:00 UTC
  expect(ticksMs.map((at) => (at - SUMMER_NOON) / HOUR)).toEqual([5, 11, 17, 23]);
});

test('both ends count when they are round', () => {
  expect(timeTicks(0, 4 * HOUR, 4, 'UTC').ticksMs).toEqual([0, HOUR, 2 * HOUR, 3 * HOUR, 4 * HOUR]);
});
