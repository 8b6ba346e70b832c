import fc from 'fast-check';
import { expect, test } from 'vitest';
import { stripRange } from './stripRange.ts';

test('a calm stream gets at least two percent of full scale, on round numbers', () => {
  // 2 % of 4095 is 81.9: from 1459.05 to 1540.95, widened to tens
  expect(stripRange([1500, 1500], 4095)).toEqual({ low: 1450, high: 1550 });
});

test('a leap gets a tenth of room at either side', () => {
  // 1000 to 2000: half of 1200 about 1500, in hundreds
  expect(stripRange([1000, 2000], 4095)).toEqual({ low: 900, high: 2100 });
});

test('without readings the whole scale is shown', () => {
  expect(stripRange([], 1023)).toEqual({ low: 0, high: 1023 });
});

test('every reading is in sight', () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: 0, max: 65_535, noNaN: true }), { minLength: 1, maxLength: 30 }),
      (values) => {
        const { low, high } = stripRange(values, 4095);
        expect(Math.min(...values)).toBeGreaterThanOrEqual(low);
        expect(Math.max(...values)).toBeLessThanOrEqual(high);
        expect(high).toBeGreaterThan(low);
      },
    ),
  );
});

test('what is not known moves neither end', () => {
  expect(stripRange([Number.NaN, 1000, Number.NaN, 2000], 4095)).toEqual({ low: 900, high: 2100 });
  expect(stripRange([Number.NaN], 4095)).toEqual({ low: 0, high: 4095 });
});
