import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { boardTable, fitTable, tenthsFromTable } from './boardTable.ts';
import { readCurve } from './curve.ts';
import { curveFrom, lineBetween } from './curveForTests.ts';

describe('tenthsFromTable', () => {
  const falling = [
    { raw: 1000, tenths: 1000 },
    { raw: 1300, tenths: 0 },
  ];
  test.each([
    [900, 1000],
    [1000, 1000],
    // 1 count in: 1 × −1000 / 300 = −3.33…, truncated toward zero to −3
    [1001, 997],
    // 200 counts in: −666.66… becomes −666
    [1200, 334],
    [1300, 0],
    [4095, 0],
  ])('raw %d is %d tenths', (raw, tenths) => {
    expect(tenthsFromTable(falling, raw)).toBe(tenths);
  });

  test('a four-point table that happens to be straight equals its end points', () => {
    const bent = [
      { raw: 100, tenths: 0 },
      { raw: 200, tenths: 250 },
      { raw: 400, tenths: 750 },
      { raw: 500, tenths: 1000 },
    ];
    for (let raw = 90; raw <= 510; raw += 10)
      expect(tenthsFromTable(bent, raw)).toBe(
        tenthsFromTable(
          [
            { raw: 100, tenths: 0 },
            { raw: 500, tenths: 1000 },
          ],
          raw,
        ),
      );
  });

  test.each([
    ['one point', [{ raw: 1, tenths: 0 }]],
    ['nine points', Array.from({ length: 9 }, (_, raw) => ({ raw, tenths: raw }))],
    [
      'points out of order',
      [
        { raw: 5, tenths: 0 },
        { raw: 2, tenths: 9 },
      ],
    ],
  ])('refuses %s', (_, table) => {
    expect(() => tenthsFromTable(table, 6)).toThrow(RangeError);
  });
});

test('the board’s whole numbers stay within a tenth of the screen’s percent', () => {
  const counts = fc.integer({ min: 0, max: 4095 });
  fc.assert(
    fc.property(counts, counts, counts, (dry, wet, raw) => {
      fc.pre(Math.abs(dry - wet) >= 10);
      const line = lineBetween(dry, wet);
      const tenths = tenthsFromTable(boardTable(line), raw);
      expect(Math.abs(tenths - 10 * readCurve(line, raw).percent)).toBeLessThanOrEqual(1);
    }),
  );
});

test('references between two counts are rounded, and the table is sorted by raw', () => {
  expect(boardTable(lineBetween(2000.5, 999.4))).toEqual([
    { raw: 999, tenths: 1000 },
    { raw: 2001, tenths: 0 },
  ]);
});

test('a curve becomes the shortest table within the bound, and its largest error is told', () => {
  const inverse = curveFrom(
    { kind: 'inverse', origin: 0, unit: 3000, weights: [-20, 20], temperature: null },
    [1000, 3000],
  );
  const fitted = fitTable(inverse, 4);
  expect(fitted.holds).toBe(true);
  expect(fitted.table.length).toBeGreaterThan(2);
  // Held against every raw value, not only against those that were looked at.
  let largest = 0;
  for (let raw = 1000; raw <= 3000; raw += 1)
    largest = Math.max(
      largest,
      Math.abs(tenthsFromTable(fitted.table, raw) - 10 * readCurve(inverse, raw).percent),
    );
  expect(largest).toBeLessThanOrEqual(fitted.largestTenths + 0.5);
  expect(largest).toBeLessThanOrEqual(4.5);
  const coarse = fitTable(inverse, 40);
  expect(coarse.table.length).toBeLessThan(fitted.table.length);
});

test('with eight points the bound may not hold, and then it says so', () => {
  const inverse = curveFrom(
    { kind: 'inverse', origin: 0, unit: 3000, weights: [-5, 5], temperature: null },
    [250, 3000],
  );
  const fitted = fitTable(inverse, 0.2);
  expect(fitted.table.length).toBeLessThanOrEqual(8);
  expect(fitted.holds).toBe(false);
  expect(fitted.largestTenths).toBeGreaterThan(0.2);
});

test('a straight line needs two points and no more', () => {
  expect(fitTable(lineBetween(3000, 1000)).table).toHaveLength(2);
});

test('a table of one point or of nine is our mistake, and says so', () => {
  const points = (count: number) =>
    Array.from({ length: count }, (_, at) => ({ raw: 100 * at, tenths: 10 * at }));
  for (const count of [0, 1, 9])
    expect(() => tenthsFromTable(points(count), 50)).toThrow(`${count} points; a table has 2 to 8`);
  expect(tenthsFromTable(points(2), 50)).toBe(5);
  expect(tenthsFromTable(points(8), 650)).toBe(65);
});
