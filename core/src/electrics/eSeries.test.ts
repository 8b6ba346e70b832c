import { expect, test } from 'vitest';
import { E_SERIES, eValues, nextDown, nextUp } from './eSeries.ts';

// Rows of IEC 60063:2015, tables 1 and 2.
test('E12 and E24 are the tables of the standard', () => {
  expect(E_SERIES.E12).toEqual([1.0, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2]);
  expect(E_SERIES.E24).toHaveLength(24);
  expect(E_SERIES.E24.slice(9, 17)).toEqual([2.4, 2.7, 3.0, 3.3, 3.6, 3.9, 4.3, 4.7]);
});

test('E96 has 96 values; those that people know stand where the standard puts them', () => {
  expect(E_SERIES.E96).toHaveLength(96);
  for (const known of [1.0, 1.02, 1.1, 1.24, 1.5, 2.21, 3.01, 3.32, 4.02, 4.75, 4.99, 6.81, 8.06, 9.09, 9.76])
    expect(E_SERIES.E96).toContain(known);
});

test.each([
  { series: 'E12', ohm: 65, up: 68, down: 56 },
  { series: 'E12', ohm: 68, up: 68, down: 68 },
  { series: 'E24', ohm: 650, up: 680, down: 620 },
  { series: 'E24', ohm: 9.5e3, up: 10e3, down: 9.1e3 },
  { series: 'E96', ohm: 5000, up: 5110, down: 4990 },
  { series: 'E12', ohm: 0.95, up: 1, down: 0.82 },
] as const)('$series about $ohm ohm: $down below, $up above', ({ series, ohm, up, down }) => {
  expect(nextUp(series, ohm)).toBe(up);
  expect(nextDown(series, ohm)).toBe(down);
});

test('a stretch holds both of its ends, over decades', () => {
  expect(eValues('E12', 8200, 15_000)).toEqual([8200, 10_000, 12_000, 15_000]);
});

test('a stretch from zero is our mistake', () => {
  expect(() => eValues('E12', 0, 10)).toThrow(RangeError);
});
