import { describe, expect, test } from 'vitest';
import { modelAt } from './curve.ts';
import { chooseKind, fitCurve, leaveOneOut, tryAll } from './fitCurve.ts';
import type { FitPoint } from './points.ts';

const settings = { percentKind: 'volumetric', noiseCounts: 2 } as const;
const point = (counts: number, percent: number, change: Partial<FitPoint> = {}): FitPoint => ({
  counts,
  percent,
  sigma: { repeat: 5, single: 5, unsettled: 0 },
  sigmaPercent: 0.5,
  common: [],
  temperatureC: null,
  ...change,
});
const curveOf = (points: readonly FitPoint[], kind: Parameters<typeof fitCurve>[1]) => {
  const fitted = fitCurve(points, kind, settings);
  if (!fitted.ok) throw new Error(fitted.issue.kind);
  return fitted.value;
};

describe('least squares', () => {
  test('two points: the line goes through both', () => {
    const line = curveOf([point(3000, 5), point(1000, 45)], 'line');
    expect(modelAt(line.shape, 3000, null)).toBeCloseTo(5, 9);
    expect(modelAt(line.shape, 1000, null)).toBeCloseTo(45, 9);
    expect(line).toMatchObject({ dryCounts: 3000, wetCounts: 1000, direction: 'falling' });
  });
  test('a line nearest to (0,1) (1,3) (2,4) (3,4): slope 1 and constant 1.5, worked by hand', () => {
    // Means 1.5 and 3; Σ(x−x̄)(y−ȳ) = 3 + 0 + 0.5 + 1.5 = 5, Σ(x−x̄)² = 5.
    const line = curveOf([point(0, 1), point(1, 3), point(2, 4), point(3, 4)], 'line');
    expect(modelAt(line.shape, 0, null)).toBeCloseTo(1.5, 9);
    expect(modelAt(line.shape, 3, null)).toBeCloseTo(4.5, 9);
  });
  test('a point that is known worse pulls less', () => {
    const near = (sigmaPercent: number) =>
      modelAt(
        curveOf([point(0, 0), point(1, 1), point(2, 8, { sigmaPercent }), point(3, 3)], 'line').shape,
        2,
        null,
      );
    // Alike they are met at 4.2, worked by hand: means 1.5 and 3, slope 8 ÷ 5; the raw value's own share makes it 3.8 here. Alone the rest says 2.
    expect(near(0.5)).toBeGreaterThan(3.5);
    expect(near(500)).toBeLessThan(near(0.5) - 0.5);
  });
  test('the inverse curve of a probe whose percent goes with one over the voltage is found exactly', () => {
    const curve = curveOf(
      [1000, 1400, 2000, 3000].map((counts) => point(counts, -10 + 60_000 / counts)),
      'inverse',
    );
    expect(modelAt(curve.shape, 1700, null)).toBeCloseTo(-10 + 60_000 / 1700, 6);
  });
  test('references that lie more than five degrees apart give the temperature its own number', () => {
    const warm = (counts: number, c: number) =>
      point(counts, 50 - counts / 100 + 0.3 * (c - 20), { temperatureC: c });
    const curve = curveOf([warm(1000, 14), warm(2000, 26), warm(3000, 16), warm(4000, 24)], 'line');
    if ('knots' in curve.shape) throw new Error('a table');
    expect(curve.shape.temperature?.perDegree).toBeCloseTo(0.3, 6);
    expect(modelAt(curve.shape, 2500, 25)).toBeCloseTo(50 - 25 + 0.3 * 5, 6);
    const close = curveOf([warm(1000, 18), warm(2000, 22), warm(3000, 19), warm(4000, 20)], 'line');
    expect('knots' in close.shape ? null : close.shape.temperature).toBeNull();
  });
});

describe('a temperature that went along with the moisture', () => {
  test.each([
    [
      [2980, 5.5, 22],
      [2205, 24.5, 18],
      [1420, 43.5, 14],
    ],
    [
      [3000, 5, 22],
      [2000, 25, 18],
      [1000, 45, 14],
    ],
    [
      [3000, 5, 26],
      [2600, 13, 24],
      [2200, 21, 21],
      [1600, 33, 16],
      [1000, 45, 12],
    ],
  ])(
    'soil that cooled while it was made wetter gives a falling line by the counts alone: %j …',
    (...rows) => {
      const points = rows.map(([counts = 0, percent = 0, c = 0]) =>
        point(counts, percent, { temperatureC: c }),
      );
      const curve = curveOf(points, 'line');
      expect('knots' in curve.shape ? null : curve.shape.temperature).toBeNull();
      expect(curve.direction).toBe('falling');
      for (const one of points)
        expect(Math.abs(modelAt(curve.shape, one.counts, null) - one.percent)).toBeLessThan(0.5);
    },
  );
  test('a degree whose worth is within chance is left out', () => {
    const scatter = [0.4, -0.5, 0.3, -0.2];
    const points = [14, 26, 16, 24].map((c, at) =>
      point(1000 + 1000 * at, 50 - 10 * at + (scatter[at] ?? 0), { temperatureC: c }),
    );
    const curve = curveOf(points, 'line');
    expect('knots' in curve.shape ? null : curve.shape.temperature).toBeNull();
  });
  test('left out in turn, points are missed by fits that take the temperature up like that of all', () => {
    const points = [14, 26, 16, 24, 15, 25].map((c, at) =>
      point(1000 + 500 * at, 50 - 5 * at + 0.4 * (c - 20), { temperatureC: c, sigmaPercent: 0.1 }),
    );
    expect(leaveOneOut(points, 'line', settings)).toBeCloseTo(0, 6);
  });
});

describe('through every point', () => {
  test.each(['table', 'monotone'] as const)('%s goes through them, whatever their order', (kind) => {
    const points = [point(2000, 20), point(1000, 44), point(3000, 4)];
    const curve = curveOf(points, kind);
    for (const one of points) expect(modelAt(curve.shape, one.counts, null)).toBeCloseTo(one.percent, 9);
  });
  test('a table that turns back is refused', () => {
    const points = [point(1000, 40), point(2000, 45), point(3000, 4)];
    expect(fitCurve(points, 'table', settings)).toMatchObject({ issue: { kind: 'not-monotone' } });
  });
  test('one raw value for two percents is refused, too few points are counted', () => {
    const twice = [point(1000, 40), point(1000, 30), point(3000, 4)];
    expect(fitCurve(twice, 'table', settings)).toMatchObject({
      issue: { kind: 'same-counts', counts: 1000 },
    });
    expect(fitCurve([point(1, 2)], 'line', settings)).toEqual({
      ok: false,
      issue: { kind: 'too-few', has: 1, needs: 2 },
    });
  });
});

describe('choosing by leave-one-out', () => {
  test('the error is what inner points are missed by when they are left out', () => {
    // Without (1, 3) the line through the others (0,0) (2,2) says 1 there: missed by 2.
    expect(leaveOneOut([point(0, 0), point(1, 3), point(2, 2)], 'line', settings)).toBeCloseTo(2, 9);
    expect(leaveOneOut([point(0, 0), point(2, 2)], 'line', settings)).toBeNull();
  });
  test('points on a line are given a line, though every other kind fits them as well', () => {
    const wobble = [0.1, -0.15, 0.1, -0.05, 0.12, -0.1];
    const points = wobble.map((off, at) => point(1000 + 400 * at, 45 - 7 * at + off));
    expect(chooseKind(tryAll(points, settings))).toBe('line');
  });
  test('points of one over the voltage are given the inverse curve', () => {
    const points = [1000, 1300, 1700, 2200, 3000].map((counts) => point(counts, -10 + 60_000 / counts));
    expect(chooseKind(tryAll(points, settings))).toBe('inverse');
  });
  test('none can be chosen where none can be had', () => {
    expect(chooseKind(tryAll([point(1, 2)], settings))).toBeNull();
  });
});
