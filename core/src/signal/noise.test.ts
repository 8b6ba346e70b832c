import { expect, test } from 'vitest';
import { medianOf, noiseOf, spreadOf } from './noise.ts';

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
