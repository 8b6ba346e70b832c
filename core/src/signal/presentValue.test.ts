import { describe, expect, test } from 'vitest';
import { captureValue, hasDrift, presentValue, summarise, WATCH_WINDOW } from './presentValue.ts';
import { StreamBuffer } from './streamBuffer.ts';

const stream = (values: readonly number[], everyMs: number) => {
  const buffer = new StreamBuffer(100);
  values.forEach((value, at) => buffer.push(at * everyMs, value));
  return buffer;
};

test('nothing read, nothing said', () => {
  expect(presentValue(new StreamBuffer(4), { seconds: 4, atLeast: 3 })).toBeNull();
});

test('the value is the median of the last seconds only', () => {
  const present = presentValue(stream([900, 900, 900, 500, 502, 501], 1000), { seconds: 2, atLeast: 1 });
  expect(present).toMatchObject({ rawCounts: 501, readings: 3, windowS: 2, atMs: 5000 });
});

test('on a slow stream the window reaches back for enough readings', () => {
  const present = presentValue(stream([10, 11, 12, 13], 60_000), { seconds: 4, atLeast: 3 });
  expect(present).toMatchObject({ rawCounts: 12, readings: 3, windowS: 120 });
});

test('drift is told per minute: a fall of 2 counts a second is −120 a minute', () => {
  const present = summarise(stream([100, 98, 96, 94], 1000).since(0));
  expect(present?.driftCountsPerMin).toBeCloseTo(-120, 9);
  expect(present?.noiseCounts).toBe(0);
});

test('a single reading has no drift, noise or spread', () => {
  expect(summarise(stream([7], 1000).since(0))).toEqual({
    rawCounts: 7,
    noiseCounts: 0,
    stepCounts: null,
    spreadCounts: 0,
    driftCountsPerMin: 0,
    readings: 1,
    windowS: 0,
    atMs: 0,
  });
});

describe('a drift', () => {
  /** Scattered evenly between −1 and 1, the same each time. */
  const scatter = (at: number) => {
    const turned = Math.sin((at + 1) * 12.9898) * 43_758.5453;
    return 2 * (turned - Math.floor(turned)) - 1;
  };
  const of = (slopePerS: number, noise: number) => {
    const buffer = new StreamBuffer(100);
    for (let at = 0; at < 40; at += 1)
      buffer.push(at * 250, Math.round(2000 + slopePerS * (at / 4) + noise * scatter(at)));
    const value = presentValue(buffer, { seconds: 10, atLeast: 12 });
    return value !== null && hasDrift(value);
  };
  test.each([
    ['none, in noise', 0, 4, false],
    // 0.3 counts a second move it by 3 counts in ten seconds, beside a noise of 4.
    ['that noise can make', 0.3, 4, false],
    ['that it cannot', 5, 4, true],
    ['without any noise, below a step', 0.02, 0, false],
  ] as const)('%s', (_, slope, noise, real) => expect(of(slope, noise)).toBe(real));
});

describe('what is captured', () => {
  test('the way to rest is left out: the later half of what came since the change counts, where it has readings enough', () => {
    const buffer = new StreamBuffer(100);
    // Ten seconds, four readings a second: falling for three, then at 1250.
    for (let at = 0; at < 40; at += 1) buffer.push(at * 250, at < 12 ? 3000 - 140 * at : 1250);
    expect(captureValue(buffer, 0)).toMatchObject({ rawCounts: 1250, spreadCounts: 0, readings: 20 });
  });
  // Two readings a second: air at 2900 for ten seconds, then water at 1200.
  const buffer = new StreamBuffer(100);
  for (let at = 0; at < 20; at += 1) buffer.push(at * 500, 2900);
  for (let at = 20; at < 26; at += 1) buffer.push(at * 500, 1200);
  test('are only the readings after the last change, never a mix of both', () => {
    expect(captureValue(buffer, 10_000)).toMatchObject({ rawCounts: 1200, spreadCounts: 0, readings: 6 });
    expect(captureValue(buffer, -Infinity)?.readings).toBeGreaterThan(12);
  });
  test('is nothing before there are three of them', () => {
    expect(captureValue(buffer, 11_500)?.readings).toBe(3);
    expect(captureValue(buffer, 12_000)).toBeNull();
    expect(captureValue(buffer, 99_000)).toBeNull();
    expect(captureValue(new StreamBuffer(3), 0)).toBeNull();
  });
});

test.each([
  ['ten minutes apart: its last reading alone', 600, 2600 + 4 * 50],
  ['a minute apart: the middle of the last two minutes', 60, 2600 + 3 * 50],
  ['ten seconds apart: the middle of five', 10, 2600 + 2 * 50],
])('what a slow stream says now does not reach back for hours: %s', (_, gapS, rawCounts) => {
  const buffer = new StreamBuffer(100);
  for (let at = 0; at < 5; at += 1) buffer.push(at * gapS * 1000, 2600 + at * 50);
  expect(presentValue(buffer, WATCH_WINDOW)?.rawCounts).toBe(rawCounts);
});
