import { expect, test } from 'vitest';
import type { DayReplay, Stretch } from '@plain-trowel/core/garden/bind/replayDay';
import { holdsOf, replaySentence } from './replayText.ts';

const stretch = (minutes: number, reason: Stretch['reason'], isOn = false): Stretch => ({
  fromMs: 0,
  toMs: minutes * 60_000,
  isOn,
  reason,
});
const day = (change: Partial<DayReplay>): DayReplay => ({
  stretches: [stretch(1440, 'not-below-start')],
  runs: 0,
  volumeMl: 0,
  readings: 288,
  ...change,
});

test('a day in a sentence: runs, water, and what held it longest', () => {
  expect(replaySentence(day({}))).toBe('It would not have run.');
  expect(replaySentence(day({ runs: 1, volumeMl: 120 }))).toBe('It would have run once and given 120 ml.');
  const held = day({
    runs: 3,
    volumeMl: 360,
    stretches: [
      stretch(20, 'soaking'),
      stretch(30, 'outside-hours'),
      stretch(15, 'soaking'),
      stretch(1000, 'not-below-start'),
      stretch(1, 'below-start', true),
    ],
  });
  expect(holdsOf(held).map((one) => one.reason)).toEqual(['soaking', 'outside-hours', 'soaking']);
  // 20 and 15 minutes of soaking are more than the 30 outside of the hours.
  expect(replaySentence(held)).toBe(
    'It would have run 3 times and given 360 ml. Longest held, for 35 min: the last dose is soaking in.',
  );
  expect(replaySentence(day({ readings: 0 }))).toMatch(/no readings of yesterday/);
});
