import { describe, expect, test } from 'vitest';
import { assumedOf } from './assumptions.ts';
import { pointOf, scatterOf, type Capture, type FitPoint } from './points.ts';
import { asGuess, bandOf, calibrate, uncertaintyOf, type ReadingNow } from './uncertainty.ts';

const usual = assumedOf({});
const span = { percentKind: 'span', noiseCounts: 2, assumed: usual, bendShare: 0 } as const;
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
const made = (points: readonly FitPoint[], percentKind: 'span' | 'volumetric' = 'span', assumed = usual) => {
  const bendShare = percentKind === 'span' ? 0 : 1;
  const one = calibrate(points, 'line', { ...span, percentKind, bendShare, assumed });
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
    expect(plusMinus).toBeCloseTo(2 * parts.noise, 9);
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
    expect(parts['known values']).toBeCloseTo(1.5, 3);
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
    expect(uncertaintyOf(shared, still).parts['known values']).toBeCloseTo(Math.hypot(1, 1.5), 3);
  });
  test('two points prove nothing about a water content between them; of span percent they are the definition', () => {
    const volumetric = made([point(3000, 5), point(1000, 45)], 'volumetric');
    // 10 % of the 40 between them for one arch, and 0.12 of that for a ripple; an S crosses nothing in the middle.
    expect(uncertaintyOf(volumetric, still).parts.fit).toBeCloseTo(Math.hypot(4, 0.48), 2);
    expect(uncertaintyOf(volumetric, { ...still, rawCounts: 3000 }).parts.fit).toBeLessThan(0.02);
    expect(uncertaintyOf(perfect, still).parts.fit).toBe(0);
  });
  test('who knows how far their probe bends says so, and the ± goes by it', () => {
    const straight = made([point(3000, 5), point(1000, 45)], 'volumetric', { ...usual, bend: 1 });
    expect(uncertaintyOf(straight, still).parts.fit).toBeCloseTo(Math.hypot(0.4, 0.048), 2);
  });
  test('a table between its own points is off by no more than its neighbours, taken as one and a half deviations', () => {
    const stepped = calibrate(
      [
        point(1000, 50, { sigmaPercent: 0.1 }),
        point(1900, 44, { sigmaPercent: 0.1 }),
        point(2100, 8, { sigmaPercent: 0.1 }),
        point(3000, 2, { sigmaPercent: 0.1 }),
      ],
      'table',
      { ...span, percentKind: 'volumetric', bendShare: 1 },
    );
    if (!stepped) throw new Error('no curve');
    // Half way from 44 to 50 the table says 47: three from either.
    const { parts } = uncertaintyOf(stepped, { ...still, rawCounts: 1450 });
    expect(parts.fit).toBeCloseTo(3 / 1.5, 6);
  });
  test('beyond the references it grows by what was clamped away, and further out by more', () => {
    const at = (rawCounts: number) => uncertaintyOf(perfect, { ...still, rawCounts });
    // 200 counts beyond the wet reference are ten percent.
    expect(at(800).parts.fit).toBeCloseTo(10, 9);
    expect(at(3100).parts.fit).toBeCloseTo(5, 9);
  });
  test('six degrees from the calibration cost 0.17 % of the range each; an unknown temperature counts as five', () => {
    expect(uncertaintyOf(perfect, { ...still, temperatureC: 26 }).parts.temperature).toBeCloseTo(1.02, 9);
    expect(uncertaintyOf(perfect, { ...still, temperatureC: null }).parts.temperature).toBeCloseTo(0.85, 9);
  });
  test('references whose temperature nobody knew are each five degrees off, and so is the reading', () => {
    const none = made([point(3000, 0, { temperatureC: null }), point(1000, 100, { temperatureC: null })]);
    expect(none.support.atC).toBeNull();
    // In the middle each reference counts by half.
    const degrees = Math.sqrt(2 * (0.5 * 5) ** 2 + 5 ** 2);
    expect(uncertaintyOf(none, { ...still, temperatureC: null }).parts.temperature).toBeCloseTo(
      0.17 * degrees,
      9,
    );
  });
  test('references at 14 and 26 °C leave nothing for a reading half way between in both', () => {
    const apart = made([point(3000, 0, { temperatureC: 14 }), point(1000, 100, { temperatureC: 26 })]);
    expect(apart.support.atC).toBe(20);
    expect(uncertaintyOf(apart, { ...still, temperatureC: 20 }).parts.temperature).toBeCloseTo(0, 9);
    // As dry as the dry one but six degrees warmer than it was.
    const dry = uncertaintyOf(apart, { ...still, rawCounts: 3000, temperatureC: 20 });
    expect(dry.parts.temperature).toBeCloseTo(0.17 * 6, 9);
  });
  test('a guess from a sister may be off by 5 % of the range more: twice 5 where nothing else is off', () => {
    const of = uncertaintyOf(perfect, still);
    expect(asGuess(of, perfect, 2000).plusMinus).toBeCloseTo(10, 6);
    expect(asGuess(of, perfect, 2000).parts.repeatability).toBeCloseTo(5, 6);
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
  test('three repeats: their mean; their spread pooled with what was known before, worked by hand', () => {
    const repeats = [capture(1000), capture(1010), capture(1020)];
    // Before: 1 % of 2000 counts and a noise of 4 ÷ √16, worth three repeats; the three add 10² + 10² of two.
    const scatter = scatterOf([repeats], 2000, 0.01);
    expect(scatter).toBeCloseTo(Math.sqrt((3 * (20 ** 2 + 1) + 200) / 5), 9);
    const one = pointOf({ captures: repeats, counts: 1010 }, known, 2000, scatter);
    expect(one.counts).toBe(1010);
    expect(one.sigma.repeat).toBeCloseTo(scatter / Math.sqrt(3), 9);
    expect(one.sigma.single).toBe(scatter);
  });
  test('captured once, what was known before is assumed beside its noise', () => {
    expect(scatterOf([[capture(1000)]], 2000, 0.01)).toBeCloseTo(Math.hypot(20, 1), 9);
  });
  test('two repeats that agree by chance are hardly believed; twenty are', () => {
    const alike = (times: number) =>
      scatterOf([Array.from({ length: times }, () => capture(1000))], 2000, 0.01);
    expect(alike(2)).toBeGreaterThan(17);
    expect(alike(20)).toBeLessThan(8);
  });
  test('repeats of all conditions speak together, each about its own mean', () => {
    const apart = scatterOf(
      [
        [capture(1000), capture(1060)],
        [capture(2000), capture(2060)],
      ],
      2000,
      0.01,
    );
    // Each pair adds 30² + 30² of one.
    expect(apart).toBeCloseTo(Math.sqrt((3 * 401 + 2 * 1800) / 5), 9);
  });
  test('captured too early it may be off by its distance from the end foreseen, or by three percent of the span', () => {
    const unsettled = (settling: Capture['settling']) =>
      pointOf({ captures: [capture(1000, { settling })], counts: 1000 }, known, 2000, 1).sigma.unsettled;
    expect(unsettled({ verdict: 'settling', fromEndCounts: -150 })).toBe(150);
    expect(unsettled({ verdict: 'settling', fromEndCounts: null })).toBe(60);
    expect(unsettled(null)).toBe(60);
    expect(unsettled({ verdict: 'stopped', fromEndCounts: null })).toBe(12);
    expect(unsettled({ verdict: 'steady', fromEndCounts: null })).toBe(6);
  });
});
