import { describe, expect, test } from 'vitest';
import { traceOf, usualGapMs } from './trace.ts';

test('the usual gap is five times the middle distance, whatever one long pause was', () => {
  expect(usualGapMs([0, 10, 20, 1000, 1010])).toBe(50);
  expect(usualGapMs([0, 10])).toBe(Infinity);
});

describe('traceOf', () => {
  test('a short series is drawn whole', () => {
    expect(traceOf([0, 1, 2], [5, 7, 6], 100, Infinity)).toEqual([
      { x: 0, y: 5 },
      { x: 1, y: 7 },
      { x: 2, y: 6 },
    ]);
  });

  test('a gap breaks the line in its middle and is never joined', () => {
    expect(traceOf([0, 10, 100, 110], [1, 2, 3, 4], 50, 50)).toEqual([
      { x: 0, y: 1 },
      { x: 10, y: 2 },
      { x: 55, y: null },
      { x: 100, y: 3 },
      { x: 110, y: 4 },
    ]);
  });

  test('ten thousand readings in fifty buckets keep the one spike and the one dip', () => {
    const times = Float64Array.from({ length: 10_000 }, (_, at) => at);
    const values = Float64Array.from({ length: 10_000 }, (_, at) =>
      at === 4321 ? 4095 : at === 7777 ? 0 : 1500 + (at % 3),
    );
    const trace = traceOf(times, values, 50, Infinity);
    expect(trace.length).toBeLessThanOrEqual(4 * 51);
    expect(trace).toContainEqual({ x: 4321, y: 4095 });
    expect(trace).toContainEqual({ x: 7777, y: 0 });
    expect(trace[0]).toEqual({ x: 0, y: 1500 });
    expect(trace[trace.length - 1]).toEqual({ x: 9999, y: 1500 + (9999 % 3) });
    expect(trace.map((point) => point.x)).toEqual(trace.map((point) => point.x).toSorted((a, b) => a - b));
  });

  test('nothing gives nothing', () => {
    expect(traceOf([], [], 10, 1)).toEqual([]);
  });
});
