import { expect, test } from 'vitest';
import type { Settling } from './settlingWatch.ts';
import { readable } from '../quantity/workedForTests.ts';
import { workWarmUp } from './warmUp.ts';
import { workEnd, workWait } from './workSettling.ts';

const settling: Settling = {
  verdict: 'settling',
  end: { counts: 1512.4, low: 1498.2, high: 1530.7 },
  left: { likelyS: 40, atMostS: 120 },
  now: { counts: 1600, sigma: 2 },
  driftCountsPerMin: -30,
  noiseCounts: 4.2,
  toleranceCounts: 27,
  beliefFurther: 0.9,
  watchedS: 62,
  readings: 124,
  spikes: 1,
};

test('the end value names its interval, and what it rests on', () => {
  const worked = workEnd(settling);
  expect(worked).toMatchObject({ value: 1512.4, unit: 'counts' });
  expect(worked?.note).toContain('between 1498 and 1531');
  expect(worked?.steps[0]?.inputs.readings?.value).toBe(124);
});
test('without an end there is nothing to work out', () =>
  expect(workEnd({ ...settling, end: null })).toBeNull());
test('the wait names how long it takes at most, or that no end is in sight', () => {
  const left = { likelyS: 40, atMostS: 120 };
  expect(workWait(settling, left, 36)).toMatchObject({ value: 40, unit: 's' });
  expect(workWait(settling, left, 36).note).toContain('120 s');
  expect(workWait(settling, { ...left, atMostS: Infinity }, 36).note).toContain('no end is in sight');
});
test('both say what they looked at', () => {
  const rest = 'readings, ; time watched, s; noise of one reading, counts';
  expect(readable(workEnd(settling))).toEqual([
    `end value, counts: median of the ends of all curves through 124 in 62, noise 4.2; ${rest}`,
  ]);
  expect(readable(workWait(settling, { likelyS: 40, atMostS: 120 }, 36))).toEqual([
    `wait, s: median time until within 36 of the end, over all curves through 124 in 62; ${rest}; tolerance, counts`,
  ]);
});
test('after switching on it waits the longest of the runs and a quarter more', () => {
  const run = (warmUpS: number) => ({ onMs: 0, warmUpS, endCounts: 2000, readings: 60 });
  const working = workWarmUp([run(1.2), run(2), run(0.4)]);
  expect(working).toMatchObject({ value: 2.5, unit: 's' });
  expect(readable(working)).toEqual([
    'wait after switching on, s: 2.0 × 1.25; longest of 3 runs, s; margin, ',
  ]);
});
