import fc from 'fast-check';
import { expect, test } from 'vitest';
import { electrodesResistor } from './electrodes.ts';

test('dry 90 kΩ, wet 10 kΩ: the geometric mean is 30 kΩ, of E12 33 kΩ; 1023 × (90/123 − 10/43) = 511 counts', () => {
  const found = electrodesResistor({ dryOhm: 90_000, wetOhm: 10_000, adcBits: 10, series: 'E12' });
  expect(found.worked.steps[0]?.value).toBeCloseTo(30_000, 6);
  expect(found.fixedOhm).toBe(33_000);
  expect(found.spanCounts).toBe(511);
  expect([found.dryCounts, found.wetCounts]).toEqual([749, 238]);
});

test('no other resistor of the series spreads the two further', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 100, max: 1e6 }),
      fc.integer({ min: 100, max: 1e6 }),
      fc.double({ min: 0.2, max: 5, noNaN: true }),
      (dryOhm, wetOhm, factor) => {
        const { worked } = electrodesResistor({ dryOhm, wetOhm, adcBits: 12, series: 'E96' });
        const span = (fixed: number) => Math.abs(dryOhm / (dryOhm + fixed) - wetOhm / (wetOhm + fixed));
        const best = worked.steps[0]?.value ?? NaN;
        expect(span(best)).toBeGreaterThanOrEqual(span(best * factor) - 1e-12);
      },
    ),
    { seed: 3 },
  );
});

test('nothing is no resistance', () => {
  expect(() => electrodesResistor({ dryOhm: 0, wetOhm: 10, adcBits: 10, series: 'E12' })).toThrow(RangeError);
});
