import fc from 'fast-check';
import { expect, test } from 'vitest';
import { METRIC, shownUnit, type Units } from './units.ts';

const AMERICAN: Units = { temperature: 'F', volume: 'gal', length: 'in' };

test.each([
  // Ice, body heat, the point where both scales meet.
  ['°C', 0, 32],
  ['°C', 37, 98.6],
  ['°C', -40, -40],
  ['l', 3.785411784, 1],
  ['l', 20, 5.283441],
  ['cm', 2.54, 1],
  ['cm', 7, 2.755906],
  ['ml', 120, 120],
  ['V', 12, 12],
] as const)('%s: %d is shown as %d', (unit, metric, shown) =>
  expect(shownUnit(AMERICAN, unit).show(metric)).toBeCloseTo(shown, 5),
);
test('a difference of temperatures has no zero to move: 10 °C are 18 °F', () =>
  expect(shownUnit(AMERICAN, '°C', true).show(10)).toBeCloseTo(18, 9));
test('there and back again nothing changes, and metric is left alone', () => {
  for (const unit of ['°C', 'l', 'cm', 'ml']) {
    const { show, store } = shownUnit(AMERICAN, unit);
    fc.assert(
      fc.property(fc.double({ min: -1e4, max: 1e4, noNaN: true }), (value) => {
        expect(store(show(value))).toBeCloseTo(value, 7);
        expect(shownUnit(METRIC, unit).show(value)).toBe(value);
      }),
    );
  }
});
