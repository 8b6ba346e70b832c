import { expect, test } from 'vitest';
import { clockTime, dayText, dayTime, shortTime } from './timeText.ts';

// 1 July 2026 (a Wednesday), 11:05:09 UTC: an hour later in London, in summer
const SUMMER = Date.UTC(2026, 6, 1, 11, 5, 9);

test('times follow the garden’s own zone', () => {
  expect(clockTime(SUMMER, 'Europe/London')).toBe('12:05:09');
  expect(shortTime(SUMMER, 'UTC')).toBe('11:05');
  expect(dayTime(SUMMER, 'Europe/London')).toBe('Wed 1 Jul, 12:05');
});

test('midnight is 00:00, and the day is that of the zone', () => {
  const lateUtc = Date.UTC(2026, 6, 1, 23, 0, 0);
  expect(shortTime(lateUtc, 'Europe/London')).toBe('00:00');
  expect(dayText(lateUtc, 'Europe/London')).toBe('2 Jul');
});
