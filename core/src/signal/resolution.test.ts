import { expect, test } from 'vitest';
import { presentValue } from './presentValue.ts';
import { quantisationSigma, stepOf } from './resolution.ts';
import { StreamBuffer } from './streamBuffer.ts';
import { workPlusMinus } from './workPresent.ts';

test('the step is the largest number that divides every difference', () => {
  expect(stepOf([512, 516, 508, 516])).toBe(4);
  // 6 and 9 apart: three divides both.
  expect(stepOf([100, 106, 115])).toBe(3);
  expect(stepOf([7, 8, 12])).toBe(1);
});

test('printed decimals have a step too, and binary rounding is not taken for one', () => {
  expect(stepOf([31.4, 31.5, 31.7])).toBeCloseTo(0.1, 9);
  expect(stepOf([18.25, 18.5, 19])).toBeCloseTo(0.25, 9);
});

test('values that are all the same, or none, show no step', () => {
  expect(stepOf([])).toBeNull();
  expect(stepOf([5, 5, 5])).toBeNull();
});

test('absurd values end, and count for nothing', () => {
  expect(stepOf([1e308, -1e308, 0])).toBeNull();
  expect(stepOf([Number.NaN, Infinity, 3, 5])).toBe(2);
  expect(stepOf([1e9, 1e9 - 4])).toBe(4);
});

test('rounding to whole steps adds the deviation of an even spread over one step', () => {
  // Variance of an even spread over a step of 6: 6² ÷ 12 = 3.
  expect(quantisationSigma(6)).toBeCloseTo(Math.sqrt(3), 12);
});

test('± of the middle: twice the noise of a median of n, with the rounding', () => {
  const shown = workPlusMinus({
    rawCounts: 800,
    noiseCounts: 8,
    spreadCounts: 8,
    stepCounts: 8,
    driftCountsPerMin: 0,
    readings: 16,
    windowS: 4,
    atMs: 0,
  });
  // 1.2533 × 8 ÷ √16 = 2.5066; 8 ÷ √12 = 2.3094; 2 × √(2.5066² + 2.3094²) = 6.8166.
  expect(shown.value).toBeCloseTo(6.8166, 3);
  expect(shown.unit).toBe('counts');
});

test('while no step has been seen a converter’s whole count is believed', () => {
  const buffer = new StreamBuffer(8);
  for (let at = 0; at < 6; at += 1) buffer.push(at * 100, 700);
  const present = presentValue(buffer, { seconds: 60, atLeast: 1 });
  if (!present) throw new Error('no reading');
  // No noise at all: 2 × 1 ÷ √12.
  expect(workPlusMinus(present).value).toBeCloseTo(2 / Math.sqrt(12), 9);
});
