import { describe, expect, test } from 'vitest';
import type { StreamFault } from '@plain-trowel/core/faults/streamFaults';
import type { Settling } from '@plain-trowel/core/settling/settlingWatch';
import { headlineOf, offerText } from './headlineText.ts';

const settling = (change: Partial<Settling>): Settling => ({
  verdict: 'settling',
  end: { counts: 1878, low: 1874, high: 1882 },
  left: { likelyS: 40, atMostS: 75 },
  now: { counts: 1896, sigma: 1 },
  driftCountsPerMin: -12.34,
  noiseCounts: 2,
  toleranceCounts: 20,
  beliefFurther: 0.9,
  watchedS: 60,
  readings: 60,
  spikes: 0,
  ...change,
});
const says = (change: Partial<Settling>) => headlineOf(null, settling(change), []);

describe('the first line about a number', () => {
  test('on its way: how long, and how much of the way is behind it', () => {
    expect(says({})).toMatchObject({ tone: 'wait', says: 'Not steady yet, about 40 s.', doneFrac: 0.6 });
    expect(says({})?.more).toBe('A value taken now is wrong.');
    expect(says({ end: null, left: null })?.more).toMatch(/^Too early to say where it ends\./);
  });
  test.each([
    [{ left: null }, 'Not steady yet.', null],
    [{ left: { likelyS: Infinity, atMostS: Infinity } }, 'Not steady yet.', null],
    [{ left: { likelyS: 0, atMostS: 20 } }, 'Not steady yet.', null],
    [{ left: { likelyS: 0.2, atMostS: 20 } }, 'Not steady yet, about 1 s.', 60 / 60.2],
  ])('%j', (change, line, doneFrac) => {
    expect(says(change)).toMatchObject({ tone: 'wait', says: line, doneFrac });
  });
  test('only what is steady may be used', () => {
    expect(says({ verdict: 'steady' })).toMatchObject({ tone: 'use', says: 'Steady: use it.' });
    for (const verdict of ['watching', 'disturbed', 'drifting'] as const)
      expect(says({ verdict })?.tone).not.toBe('use');
    expect(says({ verdict: 'drifting' })?.more).toContain('−12.3 counts a minute');
  });
  test('a silent stream or a reading at its rail says no, whatever was steady before', () => {
    const steady = settling({ verdict: 'steady' });
    expect(headlineOf({ rawCounts: 2600, atMs: 0, ageS: 8.4 }, steady, [])).toMatchObject({
      tone: 'no',
      says: 'No line for 8 s. The last was 2\u202f600.',
    });
    expect(headlineOf(null, steady, [{ kind: 'open', sinceMs: null }])?.tone).toBe('no');
    expect(headlineOf(null, null, [])).toBeNull();
  });
});

test('no fault of a stream leaves it to be used, however still it is', () => {
  const faults: StreamFault[] = [
    { kind: 'short', sinceMs: null },
    { kind: 'clipped', end: 'top', shareFrac: 0.2 },
    { kind: 'stuck', forS: 60, counts: 1890 },
    { kind: 'hum', periodS: 2, amplitudeCounts: 30 },
    { kind: 'leap', atMs: 0, byCounts: 400 },
    { kind: 'jumping', leaps: 4, byCounts: 400 },
    { kind: 'beyond-wet', byFrac: 0.2 },
    { kind: 'daily-wave', amplitudeCounts: 40, days: 2 },
  ];
  for (const fault of faults) {
    const line = headlineOf(null, settling({ verdict: 'steady' }), [fault]);
    expect([fault.kind, line?.tone]).not.toEqual([fault.kind, 'use']);
  }
  expect(
    headlineOf(null, settling({ verdict: 'steady' }), [{ kind: 'stuck', forS: 60, counts: 1890 }])?.tone,
  ).toBe('no');
  expect(offerText(settling({ verdict: 'steady' }), 1896, false, false)).toBe(
    'Capture in spite of the fault',
  );
});

describe('the button of a capture', () => {
  test.each([
    [{ verdict: 'steady' as const }, 1896, false, 'Capture'],
    [{ verdict: 'steady' as const }, 1896, true, 'Capture again'],
    // 1896 is 22 above 1874 and 14 above 1882
    [{}, 1896, false, 'Capture early, ± 22'],
    [{ end: null }, 1896, false, 'Capture early, error not known'],
    [{}, null, false, 'Capture early, error not known'],
  ])('%j at %s', (change, counts, again, text) => {
    expect(offerText(settling(change), counts, again, true)).toBe(text);
  });
});
