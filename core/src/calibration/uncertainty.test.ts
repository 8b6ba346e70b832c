import { describe, expect, test } from 'vitest';
import { pointOf, repeatSigma, type Capture, type FitPoint } from './points.ts';
import { asGuess, bandOf, calibrate, uncertaintyOf, type ReadingNow } from './uncertainty.ts';

const span = { percentKind: 'span', noiseCounts: 2 } as const;
const point = (counts: number, percent: number, change: Partial<FitPoint> = {}): FitPoint => ({
  counts,
  percent,
  sigma: { repeat: 0, single: 0, unsettled: 0 },
  sigmaPercent: 0,
  common: [],
  temperatureC: 20,
  ...change,
});
const still: ReadingNow = { rawCounts: 2000, noiseCounts: 0, readings: 12, stepCounts: 0, temperatureC: 20 };
const made = (points: readonly FitPoint[], percentKind: 'span' | 'volumetric' = 'span') => {
  const one = calibrate(points, 'line', { ...span, percentKind });
  if (!one) throw new Error('no curve');
  return one;
};

describe('parts of ±', () => {
  const perfect = made([point(3000, 0), point(1000, 100)]);
  test('perfect references, no noise, the temperature of the calibration: nothing is left', () => {
    expect(uncertaintyOf(perfect, still).plusMinus).toBeCloseTo(0, 9);
  });
  test('noise: 8 counts at 20 counts a percent, the middle of 16, is 1.2533 · 8 ÷ 4 ÷ 20', () => {
    const { parts, plusMinus } = uncertaintyOf(perfect, { ...still, noiseCounts: 8, readings: 16 });
    expect(parts.noise).toBeCloseTo((1.2533 * 8) / 4 / 20, 4);
    expect(plusMinus).toBeCloseTo(2.1 * parts.noise, 9);
  });
  test('quantisation: a step of 12 counts is 12 ÷ √12 ÷ 20', () => {
    const { parts } = uncertaintyOf(perfect, { ...still, stepCounts: 12 });
    expect(parts.quantisation).toBeCloseTo(Math.sqrt(12) / 20, 9);
  });
  test('a dry reference that may be off by 20 counts is worth 1 % at the dry end, half in the middle, nothing at the wet end', () => {
    const loose = made([
      point(3000, 0, { sigma: { repeat: 20, single: 0, unsettled: 0 } }),
      point(1000, 100),
    ]);
    const at = (rawCounts: number) => uncertaintyOf(loose, { ...still, rawCounts }).parts.repeatability;
    expect(at(3000)).toBeCloseTo(1, 1);
    expect(at(2000)).toBeCloseTo(0.5, 1);
    expect(at(1000)).toBeCloseTo(0, 6);
  });
  test('an unsettled reference and a known value are parts of their own', () => {
    const both = made([
      point(3000, 0, { sigma: { repeat: 0, single: 0, unsettled: 40 } }),
      point(1000, 100, { sigmaPercent: 3 }),
    ]);
    const { parts } = uncertaintyOf(both, still);
    expect(parts.unsettled).toBeCloseTo(1, 1);
    expect(parts['known values']).toBeCloseTo(1.5, 6);
    expect(parts.repeatability).toBe(0);
  });
  test('the reading of a buried probe is one more pushing in: 30 counts of it at 20 a percent are 1.5', () => {
    const single = (counts: number) => ({ sigma: { repeat: 0, single: counts, unsettled: 0 } });
    const pushed = made([point(3000, 0, single(30)), point(1000, 100, single(10))]);
    expect(uncertaintyOf(pushed, still).parts.repeatability).toBeCloseTo(1.5, 9);
  });
  test('what all points share does not average out: one percent of each is one percent of the reading', () => {
    const shared = made([point(3000, 0, { common: [1, 0] }), point(1000, 100, { common: [1, 3] })]);
    // The second cause is worth 1.5 in the middle.
    expect(uncertaintyOf(shared, still).parts['known values']).toBeCloseTo(Math.hypot(1, 1.5), 9);
  });
  test('two points prove nothing about a water content between them; of span percent they are the definition', () => {
    const volumetric = made([point(3000, 5), point(1000, 45)], 'volumetric');
    // 4 % of the 40 between them.
    expect(uncertaintyOf(volumetric, still).parts.fit).toBeCloseTo(1.6, 9);
    expect(uncertaintyOf(perfect, still).parts.fit).toBe(0);
  });
  test('six degrees from the calibration cost 0.15 % of the range each; an unknown temperature counts as four', () => {
    expect(uncertaintyOf(perfect, { ...still, temperatureC: 26 }).parts.temperature).toBeCloseTo(0.9, 9);
    expect(uncertaintyOf(perfect, { ...still, temperatureC: null }).parts.temperature).toBeCloseTo(0.6, 9);
  });
  test('the temperature of a calibration is the mean of those that are known; where none is, four degrees count', () => {
    const with_ = (...temperatures: readonly (number | null)[]) =>
      made(
        [3000, 2000, 1000].map((counts, at) =>
          point(counts, [0, 50, 100][at] ?? 0, { temperatureC: temperatures[at] ?? null }),
        ),
      );
    // Mean 19: seven degrees off, 0.15 % each.
    const mean = with_(18, null, 20);
    expect(mean.temperature).toMatchObject({ atC: 19, known: false });
    expect(uncertaintyOf(mean, { ...still, temperatureC: 26 }).parts.temperature).toBeCloseTo(1.05, 9);
    const none = with_(null, null, null);
    expect(none.temperature).toBeNull();
    expect(uncertaintyOf(none, { ...still, temperatureC: 26 }).parts.temperature).toBeCloseTo(0.6, 9);
  });
  test('a drift is a share of the range from dry to wet, wherever that lies', () => {
    const high = made([point(3000, 20), point(2000, 40), point(1000, 60)]);
    // 0.15 % of 40 a degree.
    expect(uncertaintyOf(high, { ...still, temperatureC: 30 }).parts.temperature).toBeCloseTo(0.6, 9);
    const unknown = made([point(3000, 20, { temperatureC: null }), point(1000, 60, { temperatureC: null })]);
    expect(uncertaintyOf(unknown, still).parts.temperature).toBeCloseTo(0.24, 9);
  });
  test('a guess from a sister may be off by 5 % of the range more: 2.1 · 5 where nothing else is off', () => {
    const of = uncertaintyOf(perfect, still);
    expect(asGuess(of, perfect.curve, 2000).plusMinus).toBeCloseTo(10.5, 6);
    expect(asGuess(of, perfect.curve, 2000).parts.repeatability).toBeCloseTo(5, 6);
  });
  test('along the range the band is narrowest where it is held by what is known best', () => {
    const loose = made([
      point(3000, 0, { sigma: { repeat: 60, single: 0, unsettled: 0 } }),
      point(1000, 100),
    ]);
    const band = bandOf(loose, 11);
    expect(band).toHaveLength(11);
    expect(band[0]?.counts).toBe(3000);
    expect(band[0]?.plusMinus).toBeGreaterThan(2 * (band[10]?.plusMinus ?? 0));
  });
});

describe('points from captures', () => {
  const capture = (rawCounts: number, change: Partial<Capture> = {}): Capture => ({
    rawCounts,
    noiseCounts: 4,
    readings: 16,
    settling: { verdict: 'steady', fromEndCounts: 0 },
    ...change,
  });
  const known = { percent: 0, sigmaPercent: 0, common: [], temperatureC: null };
  test('three repeats: their mean, and their spread over √3, widened because they are few', () => {
    const one = pointOf([capture(1000), capture(1010), capture(1020)], known, 2000);
    expect(one.counts).toBe(1010);
    // Sample standard deviation 10; Student's t for two degrees of freedom is 1.32 at 68 %.
    expect(one.sigma.repeat).toBeCloseTo((1.32 * 10) / Math.sqrt(3), 9);
  });
  test('captured once, one percent of the span is assumed beside its noise', () => {
    expect(repeatSigma([capture(1000)], 2000)).toBeCloseTo(Math.hypot(20, 1), 9);
  });
  test('repeats that agree by chance are not believed closer than their noise', () => {
    expect(repeatSigma([capture(1000), capture(1000)], 2000)).toBe(1);
  });
  test('captured too early it may be off by its distance from the end foreseen, or by three percent of the span', () => {
    const early = (fromEndCounts: number | null) =>
      pointOf([capture(1000, { settling: { verdict: 'settling', fromEndCounts } })], known, 2000).sigma
        .unsettled;
    expect(early(-150)).toBe(150);
    expect(early(null)).toBe(60);
    expect(pointOf([capture(1000, { settling: null })], known, 2000).sigma.unsettled).toBe(60);
    expect(pointOf([capture(1000)], known, 2000).sigma.unsettled).toBe(10);
  });
});

test('few points miss the truth by Student’s t of their degrees of freedom, worked by hand', () => {
  // Residuals 1, −1, −1, 1 about a line stand at right angles to it, so least squares finds the line itself: 2 degrees of freedom are left of four points.
  const points = [1, -1, -1, 1].map((off, at) => ({
    counts: 1000 + 1000 * at,
    percent: 50 - 10 * at + off,
    sigma: { repeat: 0, single: 0, unsettled: 0 },
    sigmaPercent: 0.1,
    common: [],
    temperatureC: null,
  }));
  const made = calibrate(points, 'line', { percentKind: 'volumetric', noiseCounts: 1 });
  // Left out, an inner point is missed by its residual over 1 − 0.3; t of two degrees of freedom is 4.303, the normal quantile 1.96.
  expect(made?.fitSigma).toBeCloseTo((4.303 / 1.96) * (1 / 0.7), 6);
});
