import { expect, test } from 'vitest';
import { MONTH_MS, tickStepMs, timeTicks, zoneOffsetMs } from './timeTicks.ts';

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
  expect(tickStepMs(365 * 24 * HOUR, 7)).toBe(2 * MONTH_MS);
  expect(tickStepMs(1e12, 4)).toBe(60 * MONTH_MS);
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

test('behind a change of clocks marks still fall on the zone’s own midnights and hours', () => {
  const from = Date.UTC(2026, 9, 20, 23);
  const { ticksMs } = timeTicks(from, from + 7 * 24 * HOUR, 7, 'Europe/London');
  // Midnight is 23:00 UTC until the 25th of October, 00:00 UTC from the 26th on.
  expect(ticksMs.map((at) => new Date(at).toISOString().slice(5, 13))).toEqual([
    '10-20T23',
    '10-21T23',
    '10-22T23',
    '10-23T23',
    '10-24T23',
    '10-26T00',
    '10-27T00',
  ]);
  const spring = timeTicks(Date.UTC(2026, 2, 29), Date.UTC(2026, 2, 29, 12), 4, 'Europe/London');
  expect(spring.ticksMs.map((at) => new Date(at).toISOString().slice(11, 16))).toEqual([
    '00:00',
    '02:00',
    '05:00',
    '08:00',
    '11:00',
  ]);
});

test('in a season and longer they stand at the beginnings of months', () => {
  const { ticksMs, stepMs } = timeTicks(Date.UTC(2025, 10, 12), Date.UTC(2026, 10, 12), 7, 'Europe/London');
  expect(stepMs).toBe(2 * MONTH_MS);
  expect(ticksMs.map((at) => new Date(at).toISOString().slice(0, 13))).toEqual([
    '2026-01-01T00',
    '2026-03-01T00',
    '2026-04-30T23',
    '2026-06-30T23',
    '2026-08-31T23',
    '2026-11-01T00',
  ]);
});
