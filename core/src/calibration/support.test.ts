import { describe, expect, test } from 'vitest';
import { makeCurve } from './curve.ts';
import type { FitPoint } from './points.ts';
import { supportOf, type SupportSettings } from './support.ts';

const point = (counts: number, percent: number, change: Partial<FitPoint> = {}): FitPoint => ({
  counts,
  percent,
  sigma: { repeat: 0, single: 0, unsettled: 0 },
  sigmaPercent: 1,
  common: [],
  temperatureC: 20,
  ...change,
});
const line = (() => {
  const made = makeCurve(
    { kind: 'line', origin: 0, unit: 4000, weights: [0, 40], temperature: null },
    'volumetric',
    [0, 4000],
    1,
  );
  if (!made.ok) throw new Error(made.issue.kind);
  return made.value;
})();
const straight: SupportSettings = { isDefinition: false, bendPercent: 0, driftPerDegree: 0, swingC: 5 };
const of = (points: readonly FitPoint[], change: Partial<SupportSettings> = {}) =>
  supportOf(points, line, { ...straight, ...change });

describe('by the points', () => {
  const three = [point(0, 0), point(2000, 20), point(4000, 40)];
  test('three points of ± 1 on a straight line: √(1 ÷ 3) in the middle, √(5 ÷ 6) at an end, as the textbooks have it', () => {
    // Variance 1/n + (x − x̄)² ÷ Σ(x − x̄)²: 1/3, and 1/3 + 2000² ÷ (2 · 2000²).
    const at = (counts: number) => of(three).at(counts, 20).parts.known;
    expect(at(2000)).toBeCloseTo(Math.sqrt(1 / 3), 6);
    expect(at(4000)).toBeCloseTo(Math.sqrt(5 / 6), 6);
  });
  test('beyond the points it grows: √(1/3 + 2) one stretch further out', () => {
    expect(of(three).at(6000, 20).parts.known).toBeCloseTo(Math.sqrt(1 / 3 + 2), 6);
    expect(of(three).at(6000, 20).percent).toBeCloseTo(60, 6);
  });
  test('what all points share does not average out', () => {
    const shared = three.map((one) => ({ ...one, sigmaPercent: 0, common: [2] }));
    expect(of(shared).at(1000, 20).parts.known).toBeCloseTo(2, 3);
  });
  test('a bow that the points show is in the estimate, and what they leave open is in the ±', () => {
    const bowed = [0, 1000, 2000, 3000, 4000].map((counts) => {
      const s = counts / 4000;
      return point(counts, 40 * s + 4 * 4 * s * (1 - s), { sigmaPercent: 0.05 });
    });
    const five = of(bowed, { bendPercent: 4 });
    expect(five.at(2000, 20).percent).toBeCloseTo(24, 1);
    expect(five.at(1500, 20).parts.fit).toBeLessThan(0.5);
    // With the ends alone, nothing of it is known.
    const two = of([point(0, 0), point(4000, 40)], { bendPercent: 4 });
    expect(two.at(2000, 20).percent).toBeCloseTo(20, 6);
    expect(two.at(2000, 20).parts.fit).toBeGreaterThan(4);
  });
  test('points that scatter far more than was said of them are not believed: worked by hand', () => {
    // Residuals 1, −1, −1, 1 stand at right angles to every line: squares 4 · (1 ÷ 0.1)² = 400, two degrees of freedom.
    const points = [1, -1, -1, 1].map((off, at) => point(1000 * at, 10 * at + off, { sigmaPercent: 0.1 }));
    const scattered = of(points);
    const hidden = 40 * 1e-4; // no point is believed nearer than that
    expect(scattered.excess).toBeCloseTo(Math.sqrt((6 + 4 / (0.1 ** 2 + hidden ** 2)) / (6 + 2)), 6);
    // In the middle each of four counts by a quarter.
    expect(scattered.at(1500, 20).parts.known).toBeCloseTo((scattered.excess * 0.1) / 2, 3);
  });
});

test('between two points a curve that does not turn back stays between their percents; beyond them nothing is said', () => {
  const { between } = of([point(3000, 30), point(1000, 10), point(2000, 20)]);
  expect(between(1400)).toEqual({ low: 10, high: 20 });
  expect(between(2600)).toEqual({ low: 20, high: 30 });
  expect(between(900)).toBeNull();
  expect(between(3100)).toBeNull();
});

test('a probe that bends far more than is usual shows it: its bows are let loose, and its points are believed', () => {
  const bent = [0, 800, 1600, 2400, 3200, 4000].map((counts) => {
    const s = counts / 4000;
    return point(counts, 40 * s + 0.35 * 40 * 4 * s * (1 - s), { sigmaPercent: 0.3 });
  });
  const shown = of(bent, { bendPercent: 2 });
  expect(shown.excess).toBeLessThan(1.5);
  for (const one of bent) expect(Math.abs(shown.at(one.counts, 20).percent - one.percent)).toBeLessThan(1);
});

describe('temperature', () => {
  test('a degree that was shown is in the estimate at that temperature', () => {
    const warm = [14, 26, 16, 24].map((c, at) =>
      point(1000 * at, 10 * at + 0.3 * (c - 20), { sigmaPercent: 0.01, temperatureC: c }),
    );
    const shown = of(warm, { driftPerDegree: 0.1 });
    expect(shown.at(1500, 30).percent).toBeCloseTo(15 + 3, 1);
    expect(shown.at(1500, 30).parts.temperature).toBeLessThan(0.1);
  });
  test('temperatures that went along with the moisture tell nothing, and cost what a degree may be worth', () => {
    const along = [22, 18, 14].map((c, at) =>
      point(2000 * at, 20 * at, { sigmaPercent: 0.01, temperatureC: c }),
    );
    const told = of(along, { driftPerDegree: 0.1 });
    // As wet as the wettest, eight degrees warmer than it was.
    expect(told.at(4000, 22).parts.temperature).toBeCloseTo(0.8, 2);
  });
  test('one that nobody measured may be five degrees off', () => {
    const known = [point(0, 0), point(2000, 20), point(4000, 40)];
    expect(of(known, { driftPerDegree: 0.1 }).at(2000, null).parts.temperature).toBeCloseTo(0.5, 3);
  });
});

test('points that define the scale: straight between them, and theirs is all it may be off by', () => {
  const defined = of(
    [
      point(0, 0, { sigmaPercent: 0, sigma: { repeat: 100, single: 0, unsettled: 0 } }),
      point(1000, 50, { sigmaPercent: 0 }),
      point(4000, 100, { sigmaPercent: 0 }),
    ],
    { isDefinition: true },
  );
  expect(defined.at(2500, 20).percent).toBe(75);
  // Slope of the curve that is in use: 0.01 % for a count; half of 100 counts of it half way to the next point.
  expect(defined.at(500, 20).parts.repeatability).toBeCloseTo(0.5, 9);
  expect(defined.at(2500, 20).parts.repeatability).toBe(0);
});

test('points that cannot be told from each other support nothing', () => {
  const alike = of([point(1000, 10, { sigmaPercent: Number.NaN }), point(1000, 10)]);
  expect(alike.at(1000, 20).parts.fit).toBe(40);
});
