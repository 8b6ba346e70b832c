import { describe, expect, test } from 'vitest';
import { readable } from '../quantity/workedForTests.ts';
import { curveFrom, lineBetween } from './curveForTests.ts';
import { workLimitCounts, workPercent, workSpan, workUncertainty } from './workCurve.ts';

/** 20 counts a percent: 3000 is dry, 1000 wet. */
const line = lineBetween(3000, 1000);
/** Percent = −25 + 50 000 ÷ raw: 0 at 2000, 100 at 400. */
const inverse = curveFrom(
  { kind: 'inverse', origin: 0, unit: 50_000, weights: [-25, 1], temperature: null },
  [2000, 400],
);
/** 100 − 100·u with u from 1000 to 3000, and half a percent for each degree above 20 °C. */
const warm = curveFrom(
  { kind: 'line', origin: 1000, unit: 2000, weights: [100, -100], temperature: { perDegree: 0.5, atC: 20 } },
  [3000, 1000],
);
const table = curveFrom(
  {
    kind: 'table',
    knots: [
      { counts: 1000, percent: 100 },
      { counts: 2000, percent: 40 },
      { counts: 3000, percent: 0 },
    ],
  },
  [3000, 1000],
);

describe('the percent of a reading', () => {
  test('on a line', () => {
    const working = workPercent(line, 2200, null);
    expect(working).toMatchObject({ title: 'Moisture now', value: 40, unit: '% span' });
    expect(readable(working)).toEqual([
      'percent, % span: 0.0 + (3 000 − 2 200) ÷ (3 000 − 1 000) × (100.0 − 0.0); dry reference, counts; reading now, counts; wet reference, counts; percent at the dry end, %; percent at the wet end, %',
    ]);
  });
  test('over the voltage', () => {
    const working = workPercent(inverse, 1000, null);
    // −25 + 50.
    expect(working.value).toBeCloseTo(25, 9);
    expect(readable(working)).toEqual([
      'percent, % span: −25.00 + 1.00 × 50.0000; constant, %; slope, %; 50000 ÷ reading now, ; bend, %',
    ]);
  });
  test('put right by the temperature, where one is known', () => {
    expect(workPercent(warm, 2000, null).value).toBeCloseTo(50, 9);
    const working = workPercent(warm, 2000, null, 26);
    expect(working.value).toBeCloseTo(53, 9);
    expect(readable(working)).toEqual([
      'percent, % span: 100.00 + −100.00 × 0.5000; constant, %; slope, %; (reading now − 1000) ÷ 2000, ; bend, %',
      'put right by the soil temperature, % span: 50.0 + 0.500 × (26.0 − 20.0); percent by the counts, %; percent per degree, % per °C; soil temperature now, °C; temperature of the calibration, °C',
    ]);
  });
  test('between knots, and kept within the references', () => {
    expect(workPercent(table, 2500, null).value).toBeCloseTo(20, 9);
    const beyond = workPercent(line, 3100, null);
    expect(beyond.value).toBe(0);
    expect(beyond.note).toMatch(/^Clamped: the reading lies 100 counts beyond the dry reference/);
    expect(readable(beyond)[1]).toBe(
      'kept within the references, % span: between 0.0 and 100.0: −5.0; driest, %; wettest, %; what the curve says, %',
    );
  });
});

describe('a limit in raw counts', () => {
  test('on a line by its formula', () => {
    const working = workLimitCounts(line, 'Start limit', 45);
    // 3000 − 45 · 20.
    expect(working).toMatchObject({ title: 'Start limit', value: 2100, unit: 'counts' });
    expect(readable(working)).toEqual([
      'limit in raw counts, counts: 3 000 + (45.0 − 0.0) ÷ (100.0 − 0.0) × (1 000 − 3 000); dry reference, counts; start limit, % span; wet reference, counts; percent at the dry end, %; percent at the wet end, %',
    ]);
  });
  test('on a curve by looking for it', () => {
    const working = workLimitCounts(inverse, 'Stop limit', 25);
    expect(working.value).toBeCloseTo(1000, 3);
    expect(readable(working)[0]).toMatch(
      /^limit in raw counts, counts: raw value between 2 000 and 400 at which the curve says 25\.0;/,
    );
  });
});

describe('what one percent is worth', () => {
  test('on a line everywhere the same', () => {
    const working = workSpan(line);
    expect(working).toMatchObject({ title: 'Counts per percent', value: 20, unit: 'counts per % span' });
    expect(readable(working)).toEqual([
      'span, counts: |1 000 − 3 000|; wet reference, counts; dry reference, counts',
      'counts per percent, counts per % span: 2 000 ÷ 100.0; span, counts; percent from dry to wet, %',
    ]);
  });
  test('on a curve in the middle of its range', () => {
    const working = workSpan(inverse);
    // At 1200 counts the slope is 50 000 ÷ 1200².
    expect(working.value).toBeCloseTo(1200 ** 2 / 50_000, 2);
    expect(readable(working)[1]).toBe(
      'counts per percent in the middle, counts per % span: 1 ÷ slope of the curve at 1 200; middle of the range, counts',
    );
  });
});

test('± is twice the root of its parts squared: of 0.3 and 0.4 it is 1', () => {
  const parts = {
    noise: 0.3,
    quantisation: 0.4,
    repeatability: 0,
    unsettled: 0,
    'known values': 0,
    fit: 0,
    temperature: 0,
  };
  const working = workUncertainty(line, { parts, plusMinus: 1 });
  expect(working.value).toBeCloseTo(1, 9);
  expect(readable(working)[0]).toMatch(/^±, % span: 2 × √\(0\.30² \+ 0\.40² \+ 0\.00²/);
});
