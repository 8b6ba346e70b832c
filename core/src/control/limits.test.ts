import { describe, expect, test } from 'vitest';
import { checkLimits, leastGapTenths, moveLimit } from './limits.ts';

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
