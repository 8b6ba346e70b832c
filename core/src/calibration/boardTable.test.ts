import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { boardTable, tenthsFromTable } from './boardTable.ts';
import { fitTwoPoint, spanReading } from './twoPoint.ts';

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
      const fit = fitTwoPoint({ rawCounts: dry, noiseCounts: 1 }, { rawCounts: wet, noiseCounts: 1 });
      fc.pre(fit.ok);
      const tenths = tenthsFromTable(boardTable(fit.value), raw);
      expect(Math.abs(tenths - 10 * spanReading(fit.value, raw).percent)).toBeLessThanOrEqual(1);
    }),
  );
});

test('references between two counts are rounded, and the table is sorted by raw', () => {
  const fit = fitTwoPoint({ rawCounts: 2000.5, noiseCounts: 1 }, { rawCounts: 999.4, noiseCounts: 1 });
  expect(fit.ok && boardTable(fit.value)).toEqual([
    { raw: 999, tenths: 1000 },
    { raw: 2001, tenths: 0 },
  ]);
});
