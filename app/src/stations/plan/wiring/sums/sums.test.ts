import { describe, expect, test } from 'vitest';
import { solveSum, SUM_IDS, SUMS, sumOf, type SumId, type SumValues } from './sums.ts';

const solve = (id: SumId, change: SumValues = {}) => solveSum(sumOf(id), change, 'E12');

test('every sum stands once, and its first values lie in their own ranges', () => {
  expect(SUMS.map((sum) => sum.id)).toEqual([...SUM_IDS]);
  for (const field of SUMS.flatMap((sum) => sum.fields)) {
    expect(field.value).toBeGreaterThanOrEqual(field.least);
    expect(field.value).toBeLessThanOrEqual(field.most);
  }
});

test.each(SUM_IDS)('%s answers with its first values, and shows its working', (id) => {
  const found = solve(id);
  if (!found.ok) throw new Error(found.says);
  expect(Number.isFinite(found.worked.value)).toBe(true);
  expect(found.worked.steps.length).toBeGreaterThan(0);
  for (const line of found.lines) expect(line).not.toMatch(/NaN|undefined|Infinity/);
});

describe('what a sum says when there is no answer', () => {
  test.each([
    ['led', { forwardV: 3.4 }, /stays dark/],
    ['divider', { inV: 3 }, /no divider is needed/],
    ['ntc', { highC: -10 }, /warmest must lie above/],
    ['base', { loadMa: 2000 }, /Take a MOSFET/],
    ['gate', { gateFullOnV: 4.5 }, /logic-level/],
    ['i2c', { busPf: 500 }, /Shorten the cable/],
    ['shunt', { probeV: 11 }, /Raise the supply/],
    ['cable', { areaMm2: 0 }, /Give a cross-section/],
    ['solar', { latitudeDeg: 80 }, /sun does not rise/],
    ['fuse', { currentMa: 9000 }, /thicker cable/],
  ] as const)('%s', (id, change, says) => {
    const found = solve(id, change);
    expect(found.ok ? '' : found.says).toMatch(says);
  });
});

test('a gauge goes before a cross-section: 18 AWG is 0.823 mm², so 5 m at 900 mA lose 0.191 V', () => {
  const found = solve('cable', { awg: 18 });
  expect(found.ok && found.worked.value).toBeCloseTo((2 * 5 * 0.9 * 0.0175) / 0.823, 3);
});
