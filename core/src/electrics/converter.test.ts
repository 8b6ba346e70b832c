import { expect, test } from 'vitest';
import { fullScaleCounts, plausibleWithin } from './converter.ts';

test.each([
  [8, 255],
  [10, 1023],
  [12, 4095],
])('a %d-bit converter tops out at %d counts', (bits, counts) => {
  expect(fullScaleCounts(bits)).toBe(counts);
});

test.each([0, 25, 9.5, NaN])('refuses %d bits', (bits) => {
  expect(() => fullScaleCounts(bits)).toThrow(RangeError);
});

test.each([
  // 0.5 % of 4095 is 20.475, of 1023 is 5.115, of 7 is below one count
  { bits: 12, lowCounts: 20, highCounts: 4075 },
  { bits: 10, lowCounts: 5, highCounts: 1018 },
  { bits: 3, lowCounts: 1, highCounts: 6 },
])('$bits bits: plausible from $lowCounts to $highCounts', ({ bits, ...window }) => {
  expect(plausibleWithin(fullScaleCounts(bits))).toEqual(window);
});
