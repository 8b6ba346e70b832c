import { describe, expect, test } from 'vitest';
import { checkLimits, gapUnderDoubt, leastGapTenths, moveLimit } from './limits.ts';

test.each([
  [0, 10],
  [5, 10],
  [5.1, 11],
  [20, 40],
])('noise of %d tenths keeps the limits %d tenths apart', (noise, gap) => {
  expect(leastGapTenths(noise)).toBe(gap);
});

describe('checkLimits', () => {
  test.each([
    { says: 'a sound pair', start: 300, stop: 600, issue: null },
    { says: 'just far enough', start: 300, stop: 310, issue: null },
    {
      says: 'too close',
      start: 300,
      stop: 309,
      issue: { kind: 'too-close', gapTenths: 9, neededTenths: 10 },
    },
    {
      says: 'the wrong way round',
      start: 600,
      stop: 300,
      issue: { kind: 'too-close', gapTenths: -300, neededTenths: 10 },
    },
    { says: 'below the scale', start: -1, stop: 300, issue: { kind: 'off-scale', at: 'start' } },
    { says: 'above the scale', start: 300, stop: 1001, issue: { kind: 'off-scale', at: 'stop' } },
    { says: 'not a number', start: 300, stop: NaN, issue: { kind: 'not-a-number', at: 'stop' } },
  ])('$says', ({ start, stop, issue }) => {
    expect(checkLimits({ startTenths: start, stopTenths: stop }, 3)).toEqual(issue);
  });
});

describe('a range that ends before the scale does', () => {
  const range = { leastTenths: 55, mostTenths: 435, mostBy: 'curve' } as const;
  test.each([
    [100, 300, null],
    [54, 300, 'start'],
    [100, 436, 'stop'],
  ] as const)('%d and %d', (startTenths, stopTenths, at) => {
    const issue = checkLimits({ startTenths, stopTenths }, 0, range);
    expect(issue).toEqual(at && { kind: 'beyond', at, range });
  });
  test('no flag enters what lies beyond', () => {
    const limits = { startTenths: 100, stopTenths: 300 };
    expect(moveLimit(limits, 'stop', 900, 0, range).stopTenths).toBe(435);
    expect(moveLimit(limits, 'start', 0, 0, range).startTenths).toBe(55);
  });
});

test('a gap smaller than the ± says how wide it must be', () => {
  const limits = { startTenths: 300, stopTenths: 340 };
  expect(gapUnderDoubt(limits, 52.3)).toBe(53);
  expect(gapUnderDoubt(limits, 40)).toBeNull();
  expect(gapUnderDoubt(limits, null)).toBeNull();
});

describe('moveLimit', () => {
  const limits = { startTenths: 300, stopTenths: 600 };
  test.each([
    ['start', 250, { startTenths: 250, stopTenths: 600 }],
    ['start', 900, { startTenths: 590, stopTenths: 600 }],
    ['start', -50, { startTenths: 0, stopTenths: 600 }],
    ['stop', 700.4, { startTenths: 300, stopTenths: 700 }],
    ['stop', 100, { startTenths: 300, stopTenths: 310 }],
    ['stop', 2000, { startTenths: 300, stopTenths: 1000 }],
  ] as const)('%s to %d', (which, to, expected) => {
    expect(moveLimit(limits, which, to, 0)).toEqual(expected);
  });
});
