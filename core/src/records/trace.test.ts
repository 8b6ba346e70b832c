import { describe, expect, test } from 'vitest';
import { gapFinder, traceOf } from './trace.ts';

describe('gapFinder', () => {
  const gapsIn = (times: readonly number[]) => {
    const isGap = gapFinder(times);
    return times.map((_, at) => at).filter(isGap);
  };

  test('a distance more than five times the usual one is a gap', () => {
    expect(gapsIn([0, 10, 20, 30, 90, 100, 110])).toEqual([4]);
    expect(gapsIn([0, 10, 20, 30, 80, 90, 100])).toEqual([]);
  });

  test('a log that changes its pace has no gap at the change', () => {
    const slow = [0, 300, 600, 900, 1200, 1500];
    const fast = [1510, 1520, 1530, 1540, 1550, 1560];
    expect(gapsIn([...slow, ...fast])).toEqual([]);
    expect(gapsIn([...fast.map((t) => t - 1510), 60, 360, 660, 960, 1260])).toEqual([]);
  });

  test('a lone reading between two gaps is joined to neither side', () => {
    expect(gapsIn([0, 10, 20, 30, 40, 500, 1000, 1010, 1020, 1030])).toEqual([5, 6]);
  });

  test('two readings alone have no gap', () => {
    expect(gapsIn([0, 1e9])).toEqual([]);
  });
});

describe('traceOf', () => {
  test('a short series is drawn whole', () => {
    expect(traceOf([0, 1, 2], [5, 7, 6], 100)).toEqual([
      { x: 0, y: 5 },
      { x: 1, y: 7 },
      { x: 2, y: 6 },
    ]);
  });

  test('a gap breaks the line in its middle and is never joined', () => {
    expect(traceOf([0, 10, 100, 110], [1, 2, 3, 4], 50, (at) => at === 2)).toEqual([
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
    const trace = traceOf(times, values, 50);
    expect(trace.length).toBeLessThanOrEqual(4 * 51);
    expect(trace).toContainEqual({ x: 4321, y: 4095 });
    expect(trace).toContainEqual({ x: 7777, y: 0 });
    expect(trace[0]).toEqual({ x: 0, y: 1500 });
    expect(trace[trace.length - 1]).toEqual({ x: 9999, y: 1500 + (9999 % 3) });
    expect(trace.map((point) => point.x)).toEqual(trace.map((point) => point.x).toSorted((a, b) => a - b));
  });

  test('a stretch that begins with nothing known keeps its spike and its dip', () => {
    const values = [Number.NaN, 5, 9, 1, 5, Number.NaN];
    expect(traceOf([0, 1, 2, 3, 4, 5], values, 1, () => false)).toEqual([
      { x: 0, y: null },
      { x: 2, y: 9 },
      { x: 3, y: 1 },
      { x: 4, y: 5 },
      { x: 5, y: null },
    ]);
  });

  test('nothing gives nothing', () => {
    expect(traceOf([], [], 10)).toEqual([]);
  });
});
