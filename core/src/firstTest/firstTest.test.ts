import { expect, test } from 'vitest';
import { judgeTest, type TestSeen } from './firstTest.ts';

const scale = { lowCounts: 20, highCounts: 4075, spanCounts: 1800, references: null };
const seen = (of: Partial<TestSeen>): TestSeen => ({
  nowCounts: 3000,
  noiseCounts: 4,
  verdict: 'steady',
  startCounts: 3000,
  airCounts: 3000,
  ...of,
});

test('a touch moves the reading by a sixteenth of the span, resting or not', () => {
  // 6 % of 1800 are 108 counts.
  expect(judgeTest('touch', seen({ nowCounts: 2900, verdict: 'settling' }), scale)).toEqual({
    kind: 'waiting',
    movedFrac: 100 / 1800,
  });
  expect(judgeTest('touch', seen({ nowCounts: 2880, verdict: 'settling' }), scale)).toEqual({ kind: 'seen' });
  // Six times a noise of 25 are 150 counts.
  expect(judgeTest('touch', seen({ nowCounts: 2880, noiseCounts: 25 }), scale).kind).toBe('waiting');
});
test('air is believed at rest', () => {
  expect(judgeTest('air', seen({ verdict: 'settling' }), scale).kind).toBe('wait-for-rest');
  expect(judgeTest('air', seen({}), scale).kind).toBe('seen');
});
test('water is far from air, in either direction, and at rest', () => {
  expect(judgeTest('water', seen({ nowCounts: 2500 }), scale).kind).toBe('waiting');
  expect(judgeTest('water', seen({ nowCounts: 1300, verdict: 'settling' }), scale).kind).toBe(
    'wait-for-rest',
  );
  expect(judgeTest('water', seen({ nowCounts: 1300 }), scale).kind).toBe('seen');
  expect(judgeTest('water', seen({ nowCounts: 3700, airCounts: 2000 }), scale).kind).toBe('seen');
  expect(judgeTest('water', seen({ nowCounts: 1300, airCounts: null }), scale).kind).toBe('air-first');
});
test('a rail is a fault, whatever the step', () => {
  expect(judgeTest('touch', seen({ nowCounts: 4095 }), scale)).toEqual({ kind: 'at-rail', end: 'top' });
  expect(judgeTest('water', seen({ nowCounts: 3 }), scale)).toEqual({ kind: 'at-rail', end: 'bottom' });
});
