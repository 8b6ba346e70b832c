import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { countsAtPercent, makeCurve, modelAt, percentPerCount, readCurve, type CurveShape } from './curve.ts';
import { curveFrom, lineBetween } from './curveForTests.ts';
import { hermiteAt, hermiteSlopes } from './hermite.ts';
import { workLimitCounts, workPercent, workSpan } from './workCurve.ts';

describe('a straight line', () => {
  const falling = lineBetween(3000, 1000);
  test.each([
    [3000, 0, null, 0],
    [2500, 25, null, 0],
    [1000, 100, null, 0],
    [3012, 0, 'dry', 12],
    [940, 100, 'wet', 60],
  ])('raw %d reads %d %%, clamped at %s by %d counts', (raw, percent, clampedAt, beyondCounts) => {
    expect(readCurve(falling, raw)).toEqual({ percent, clampedAt, beyondCounts });
  });
  test('a rising one reads upward', () => {
    expect(readCurve(lineBetween(200, 600), 300).percent).toBe(25);
    expect(lineBetween(200, 600).direction).toBe('rising');
    expect(falling.direction).toBe('falling');
  });
  test('turned round and back it is the same percent', () => {
    const counts = fc.integer({ min: 0, max: 65_535 });
    fc.assert(
      fc.property(counts, counts, fc.double({ min: 0, max: 100, noNaN: true }), (dry, wet, percent) => {
        fc.pre(dry !== wet);
        const line = lineBetween(dry, wet);
        // 1e-9 %: rounding of doubles at these sizes, far below a tenth of a percent
        expect(readCurve(line, countsAtPercent(line, percent)).percent).toBeCloseTo(percent, 9);
      }),
    );
  });
  test('a count is worth a hundredth of the span in percent', () => {
    expect(percentPerCount(falling, 1800)).toBeCloseTo(100 / 2000, 9);
    expect(percentPerCount(falling, 9000)).toBeCloseTo(100 / 2000, 9);
  });
});

const INVERSE: CurveShape = { kind: 'inverse', origin: 0, unit: 3000, weights: [-20, 20], temperature: null };

describe('curves that bend', () => {
  test('inverse: −20 + 20 · 3000 ÷ raw is 0 at 3000, 20 at 1500 and 40 at 1000', () => {
    const curve = curveFrom(INVERSE, [1000, 3000]);
    expect(readCurve(curve, 1500).percent).toBeCloseTo(20, 9);
    expect(curve.dryPercent).toBeCloseTo(0, 9);
    expect(curve.wetPercent).toBeCloseTo(40, 9);
    expect(countsAtPercent(curve, 20)).toBeCloseTo(1500, 6);
    // d/draw of 60 000 ÷ raw at 1500 is 60 000 ÷ 1500².
    expect(percentPerCount(curve, 1500)).toBeCloseTo(60_000 / 1500 ** 2, 5);
  });
  test('a percent beyond the working range stands at its end', () => {
    const curve = curveFrom(INVERSE, [1000, 3000]);
    expect(countsAtPercent(curve, 55)).toBe(1000);
    expect(countsAtPercent(curve, -3)).toBe(3000);
    // The very ends, to the last digit: a limit that lies there is compared with whole counts.
    expect(countsAtPercent(curve, curve.dryPercent)).toBe(curve.dryCounts);
    expect(countsAtPercent(curve, curve.wetPercent)).toBe(curve.wetCounts);
  });
  test('a table goes straight from knot to knot', () => {
    const curve = curveFrom(
      {
        kind: 'table',
        knots: [
          { counts: 1000, percent: 100 },
          { counts: 1800, percent: 50 },
          { counts: 3000, percent: 0 },
        ],
      },
      [1000, 3000],
    );
    expect(readCurve(curve, 1400).percent).toBe(75);
    expect(readCurve(curve, 2400).percent).toBe(25);
    expect(countsAtPercent(curve, 25)).toBeCloseTo(2400, 6);
  });
  test('a temperature term is added only where the temperature is known', () => {
    const shape: CurveShape = {
      kind: 'line',
      origin: 0,
      unit: 100,
      weights: [0, 10],
      temperature: { perDegree: 0.5, atC: 20 },
    };
    expect(modelAt(shape, 300, 26)).toBe(33);
    expect(modelAt(shape, 300, null)).toBe(30);
  });
});

describe('what is no curve', () => {
  test('one that turns back inside its range, and where', () => {
    // (u − ½)² has its foot in the middle.
    const turned = makeCurve(
      { kind: 'quadratic', origin: 0, unit: 1000, weights: [0.25, -1, 1], temperature: null },
      'span',
      [0, 900],
      1,
    );
    expect(turned).toMatchObject({ ok: false, issue: { kind: 'not-monotone' } });
    if (turned.ok || turned.issue.kind !== 'not-monotone') throw new Error('a curve');
    expect(turned.issue.atCounts).toBeCloseTo(500, -1);
  });
  test('an inverse through zero, a flat one, one of no numbers', () => {
    expect(makeCurve(INVERSE, 'span', [0, 900], 1)).toMatchObject({ issue: { kind: 'through-zero' } });
    const flat: CurveShape = { kind: 'line', origin: 0, unit: 1, weights: [5, 0], temperature: null };
    expect(makeCurve(flat, 'span', [0, 900], 1)).toMatchObject({ issue: { kind: 'flat' } });
    expect(makeCurve(flat, 'span', [900, 900], 1)).toMatchObject({ issue: { kind: 'flat' } });
    const none: CurveShape = {
      kind: 'line',
      origin: 0,
      unit: 1,
      weights: [Number.NaN, 1],
      temperature: null,
    };
    expect(makeCurve(none, 'span', [0, 900], 1)).toMatchObject({ issue: { kind: 'not-finite' } });
  });
});

describe('monotone cubic', () => {
  test('through points of a line it is the line', () => {
    const knots = [0, 1, 3, 4].map((counts) => ({ counts, percent: 2 + 3 * counts }));
    for (const at of [0.3, 1.7, 3.5, -1, 6])
      expect(hermiteAt(knots, hermiteSlopes(knots), at)).toBeCloseTo(2 + 3 * at, 9);
  });
  test('never turns between knots that rise, however unevenly', () => {
    const steps = fc.array(fc.tuple(fc.integer({ min: 1, max: 400 }), fc.integer({ min: 1, max: 400 })), {
      minLength: 2,
      maxLength: 8,
    });
    fc.assert(
      fc.property(steps, (rises) => {
        let [counts, percent] = [0, 0];
        const knots = rises.map(([right, up]) => ({ counts: (counts += right), percent: (percent += up) }));
        const slopes = hermiteSlopes(knots);
        let before = hermiteAt(knots, slopes, knots[0]?.counts ?? 0);
        for (let at = 1; at <= 200; at += 1) {
          const first = knots[0]?.counts ?? 0;
          const now = hermiteAt(knots, slopes, first + (at / 200) * (counts - first));
          expect(now).toBeGreaterThanOrEqual(before - 1e-9);
          before = now;
        }
      }),
    );
  });
});

describe('workings', () => {
  const fit = lineBetween(3000, 1000);
  test('percent of a reading, with its parts', () => {
    const parts = {
      noise: 0.3,
      quantisation: 0,
      repeatability: 0.4,
      unsettled: 0,
      'known values': 0,
      fit: 0,
      temperature: 0,
    };
    const shown = workPercent(fit, 1964, { parts, plusMinus: 1 });
    expect(shown.value).toBeCloseTo(51.8, 9);
    expect(shown.unit).toBe('% span');
    expect(shown.note).toContain('± 1.0 % span');
    expect(shown.note).toContain('noise 0.30, repeatability 0.40');
    expect(shown.note).not.toContain('temperature');
  });
  test('a temperature that the calibration found out is added in a step of its own, and only when it is known', () => {
    const warm = curveFrom(
      {
        kind: 'line',
        origin: 1000,
        unit: 2000,
        weights: [100, -100],
        temperature: { perDegree: -0.5, atC: 20 },
      },
      [1000, 3000],
    );
    // 50 % in the middle, four degrees colder than at calibration: + 2.
    expect(workPercent(warm, 2000, null, 16).value).toBeCloseTo(52, 9);
    expect(workPercent(warm, 2000, null, 16).value).toBeCloseTo(readCurve(warm, 2000, 16).percent, 9);
    expect(workPercent(warm, 2000, null).value).toBeCloseTo(50, 9);
    expect(workPercent(warm, 2000, null).steps).toHaveLength(1);
  });
  test('a clamped reading shows both steps', () => {
    const shown = workPercent(fit, 3012, null);
    expect(shown.steps.map((one) => one.name)).toEqual(['percent', 'kept within the references']);
    expect(shown.value).toBe(0);
    expect(shown.note).toContain('12 counts beyond the dry reference');
  });
  test('the formula of an inverse curve is the curve', () => {
    expect(workPercent(curveFrom(INVERSE, [1000, 3000]), 1500, null).value).toBeCloseTo(20, 9);
  });
  test('a limit stands in raw counts, and one percent is worth twenty', () => {
    expect(workLimitCounts(fit, 'Start limit', 40)).toMatchObject({ value: 2200, unit: 'counts' });
    expect(workSpan(fit).value).toBe(20);
  });
});
