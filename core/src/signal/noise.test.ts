import { expect, test } from 'vitest';
import { medianOf, noiseOf, spreadOf } from './noise.ts';

/** Even numbers in 0..1, the same for a seed (Park & Miller 1988). */
function seeded(seed: number): () => number {
  let state = seed % 2_147_483_647;
  return () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
}

test('noise by hand: differences 2 −1 3 −2 1 have median 1, deviations 1 2 2 3 0, MAD 2', () => {
  expect(noiseOf([10, 12, 11, 14, 12, 13])).toBeCloseTo((1.4826 * 2) / Math.SQRT2, 10);
});

test('a steady drift is not noise', () => {
  expect(noiseOf([100, 103, 106, 109, 112])).toBe(0);
});

test('one wild line does not raise the noise of a calm stream much', () => {
  const calm = Array.from({ length: 41 }, (_, at) => 1500 + (at % 2 === 0 ? 2 : -2));
  const wild = calm.map((value, at) => (at === 20 ? 4095 : value));
  expect(noiseOf(wild)).toBeLessThan(noiseOf(calm) * 1.2);
});

test('spread by hand: 10 12 11 14 12 has median 12, deviations 2 0 1 2 0, MAD 1', () => {
  expect(spreadOf([10, 12, 11, 14, 12])).toBeCloseTo(1.4826, 10);
});

test('spread owns up to a drift that noise leaves out', () => {
  expect(spreadOf([100, 110, 120, 130, 140])).toBeGreaterThan(10);
});

test('a stream of whole steps that is mostly one value is not called noiseless', () => {
  // median 277, deviations 0 ×7, 1 ×2, 2 ×1; the furthest of ten left out: 2 / 9 × √(π/2)
  expect(spreadOf([277, 277, 278, 277, 277, 276, 277, 277, 279, 277])).toBeCloseTo(
    (2 / 9) * Math.sqrt(Math.PI / 2),
    10,
  );
});

test('one wild line in a motionless stream still counts for nothing', () => {
  const still = Array.from({ length: 30 }, (_, at) => (at === 12 ? 4095 : 277));
  expect(spreadOf(still)).toBe(0);
  expect(noiseOf(still)).toBe(0);
});

test('too few readings have neither', () => {
  expect(noiseOf([5, 9])).toBe(0);
  expect(spreadOf([5])).toBe(0);
});

test('the median of an even count lies between the middle two', () => {
  expect(medianOf([4, 1, 3, 2])).toBe(2.5);
});

test.each([0.3, 0.4, 0.5, 0.6, 0.7, 1])(
  'noise of %s counts is found in whole counts, wherever between two of them the true value lies',
  (sigma) => {
    const found = Array.from({ length: 60 }, (_, seed) => {
      const flat = seeded(7919 * (seed + 1));
      // Twelve even numbers less six come near enough to a normal one.
      const bell = () => Array.from({ length: 12 }, flat).reduce((sum, one) => sum + one, -6);
      const between = flat();
      return noiseOf(Array.from({ length: 80 }, () => Math.round(1000 + between + sigma * bell())));
    }).sort((a, b) => a - b);
    expect((found[30] ?? 0) / sigma).toBeGreaterThan(0.9);
    expect((found[30] ?? 0) / sigma).toBeLessThan(1.1);
    // Nine in ten are not far off; at 0.3 counts whole numbers hardly show any noise.
    expect((found[54] ?? 0) / sigma).toBeLessThan(1.5);
  },
);
