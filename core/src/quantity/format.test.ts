import { describe, expect, test } from 'vitest';
import {
  formatCounts,
  formatDuration,
  formatFlow,
  formatNumber,
  formatPercent,
  formatVolume,
} from './format.ts';

const plain = (text: string) => text.replaceAll('\u202f', '_');

describe('formatNumber', () => {
  test.each([
    [0, 0, '0'],
    [999, 0, '999'],
    [1512, 0, '1_512'],
    [1234567, 0, '1_234_567'],
    [-0.04, 1, '0.0'],
    [-2.25, 1, '−2.3'],
    [12.5, 2, '12.50'],
    [1234.5, 1, '1_234.5'],
  ])('shows %d with %d decimals as %s', (value, decimals, shown) => {
    expect(plain(formatNumber(value, decimals))).toBe(shown);
  });

  test.each([NaN, Infinity, -Infinity])('shows a dash for %d', (value) => {
    expect(formatNumber(value, 1)).toBe('–');
  });
});

test('counts stay whole when they are whole, and keep their fraction when a board prints volts', () => {
  expect(plain(formatCounts(2871))).toBe('2_871');
  expect(formatCounts(1.2345)).toBe('1.234');
  expect(formatCounts(512.25)).toBe('512.3');
});

test('a percent always carries its kind', () => {
  expect(formatPercent(31.44, 'span')).toBe('31.4 % span');
});

test.each([
  [0, '0 s'],
  [8.4, '8 s'],
  [60, '1 min'],
  [200, '3 min 20 s'],
  [7_500, '2 h 5 min'],
  [3_605, '1 h'],
  [356_400, '4 d 3 h'],
  [Infinity, '–'],
])('%d seconds read as %s', (seconds, shown) => {
  expect(formatDuration(seconds)).toBe(shown);
});

test('volumes and flows come with their unit', () => {
  expect(plain(formatVolume(12_500))).toBe('12_500 ml');
  expect(formatFlow(9.126)).toBe('9.13 ml/s');
});
