import { describe, expect, test } from 'vitest';
import type { SettlingVerdict } from '../settling/settlingWatch.ts';
import { judgeAtRest, type SeenNow } from './atRest.ts';
import { settlingOf, valueOf } from './seenForTests.ts';

const seen = (
  counts: number,
  verdict: SettlingVerdict = 'stopped',
  change: Partial<SeenNow> = {},
): SeenNow => ({
  now: valueOf(counts),
  capture: valueOf(counts),
  settling: settlingOf(verdict, counts, 30),
  isSpoilt: false,
  spanCounts: 1800,
  lowCounts: 8,
  highCounts: 4087,
  ...change,
});

describe('a reading that is taken by itself', () => {
  test('is taken at rest, where nothing was captured before', () => {
    expect(judgeAtRest(seen(2800), [])).toMatchObject({
      kind: 'ready',
      taken: { value: { rawCounts: 2800 }, settling: { verdict: 'stopped' } },
    });
  });
  test('waits while it moves, and says for how long', () => {
    expect(judgeAtRest(seen(2800, 'settling'), [])).toEqual({ kind: 'wait-for-rest', leftS: 30 });
  });
  test.each([
    // A twentieth of 1800 counts is 90: nearer than that to the dry soil it still sits in it.
    [2711, 'wait-for-change'],
    [2890, 'wait-for-change'],
    [2709, 'ready'],
    [2891, 'ready'],
  ] as const)('at %d, with dry soil at 2800: %s', (counts, kind) =>
    expect(judgeAtRest(seen(counts), [2800]).kind).toBe(kind),
  );
  test('in much noise it must have moved by more than the noise does', () => {
    const noisy = { now: valueOf(2650, 30), capture: valueOf(2650, 30) };
    expect(judgeAtRest(seen(2650, 'stopped', noisy), [2800]).kind).toBe('wait-for-change');
  });
  test('of several conditions none may be the one it is still in', () => {
    expect(judgeAtRest(seen(2000), [2800, 2050]).kind).toBe('wait-for-change');
  });
  test.each([
    ['nothing comes', { now: null }, 'no-reading'],
    ['it sits at the top', { now: valueOf(4090) }, 'at-rail'],
    ['its stream is not sound', { isSpoilt: true }, 'spoilt'],
    ['too little has come since the change', { capture: null }, 'wait-for-rest'],
  ] as const)('takes nothing while %s', (_, change, kind) =>
    expect(judgeAtRest(seen(2800, 'stopped', change), []).kind).toBe(kind),
  );
});
