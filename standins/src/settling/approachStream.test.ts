import { describe, expect, test } from 'vitest';
import { SettlingWatch } from '@plain-trowel/core/settling/settlingWatch';
import { approachAt, makeStream } from './approachStream.ts';

const short = Array.from({ length: 80 }, (_, at) => makeStream(104_729 * (at + 1))).filter(
  (stream) => stream.samples.length <= 250,
);

describe('made-up streams', () => {
  test('the same seed gives the same stream', () => {
    expect(makeStream(5).samples).toEqual(makeStream(5).samples);
  });
  test('the true curve has no gap where water is poured: each approach begins where the one before was', () => {
    expect(short.length).toBeGreaterThan(15);
    for (const { approaches } of short)
      for (const [at, one] of approaches.slice(1).entries()) {
        const before = approaches[at];
        const left = (before?.end ?? 0) + (before?.away(one.fromS - before.fromS) ?? 0);
        expect(one.end + one.away(0)).toBeCloseTo(left, 6);
      }
  });
  test('readings scatter about the true curve by their noise, but for the wild ones', () => {
    for (const { samples, approaches, noiseFrac, spanCounts } of short) {
      const off = samples.map(({ atS, value }) => {
        const one = approachAt(approaches, atS);
        return Math.abs(value - (one?.end ?? 0) - (one?.away(atS - one.fromS) ?? 0));
      });
      const within = off.filter((one) => one <= 4 * noiseFrac * spanCounts + 1).length;
      // One in a hundred is wild; the chance that more than six in a hundred are is below one in a thousand.
      expect(within / off.length).toBeGreaterThan(0.94);
    }
  });
});

test('of short streams hardly any is called steady while it is more than 2 % of the span from its end', () => {
  const isFalse = short.slice(0, 12).map((stream) => {
    const watch = new SettlingWatch({ spanCounts: stream.spanCounts });
    const [first] = stream.approaches;
    const untilS = stream.approaches[1]?.fromS ?? Infinity;
    for (const { atS, value } of stream.samples) {
      if (atS >= untilS) return false;
      watch.push(atS, value);
      if (watch.settling().verdict === 'steady')
        return Math.abs(first?.away(atS) ?? 0) > 0.02 * stream.spanCounts;
    }
    return false;
  });
  expect(isFalse.filter(Boolean).length).toBeLessThanOrEqual(1);
});
