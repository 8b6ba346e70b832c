import { expect, test } from 'vitest';
import { localTimeIn } from './localTime.ts';

test('local time: a summer evening in London, and the night when the clock is set back', () => {
  const london = localTimeIn('Europe/London');
  // 2026-07-01 is a Wednesday; 19:30:05 UTC is 20:30:05 there.
  expect(london(Date.UTC(2026, 6, 1, 19, 30, 5))).toEqual({ daySecond: 20 * 3600 + 1805, weekday: 2 });
  // On Sunday 2026-10-25 at 01:00 UTC it is two o'clock twice over: 00:59 UTC is 01:59, 01:01 UTC is 01:01.
  expect(london(Date.UTC(2026, 9, 25, 0, 59))).toEqual({ daySecond: 7140, weekday: 6 });
  expect(london(Date.UTC(2026, 9, 25, 1, 1))).toEqual({ daySecond: 3660, weekday: 6 });
});
