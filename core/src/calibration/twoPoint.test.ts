import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  countsAtPercent,
  fitTwoPoint,
  percentOfCounts,
  spanReading,
  workLimitCounts,
  workSpan,
  workSpanPercent,
  type TwoPoint,
} from './twoPoint.ts';

const at = (rawCounts: number, noiseCounts = 2) => ({ rawCounts, noiseCounts });

const fitted = (dry: number, wet: number, noise = 2): TwoPoint => {
  const fit = fitTwoPoint(at(dry, noise), at(wet, noise));
  if (!fit.ok) throw new Error(fit.issue.kind);
  return fit.value;
};

describe('fitTwoPoint', () => {
  test.each([
    { says: 'a probe that falls when wet', dry: 2871, wet: 1421, direction: 'falling', spanCounts: 1450 },
    { says: 'a probe that rises when wet', dry: 180, wet: 760, direction: 'rising', spanCounts: 580 },
  ])('finds the direction of $says by itself', ({ dry, wet, direction, spanCounts }) => {
    expect(fitted(dry, wet)).toMatchObject({ direction, spanCounts });
  });

  test.each([
    {
      says: 'nineteen counts apart at noise 2',
      dry: at(519),
      wet: at(500),
      issue: { kind: 'too-close', spanCounts: 19, neededCounts: 20, noiseCounts: 2 },
    },
    {
      says: 'the same value twice',
      dry: at(500, 0),
      wet: at(500, 0),
      issue: { kind: 'too-close', spanCounts: 0, neededCounts: 10, noiseCounts: 1 },
    },
    {
      says: 'the noisier reference deciding',
      dry: at(600, 1),
      wet: at(500, 12),
      issue: { kind: 'too-close', spanCounts: 100, neededCounts: 120, noiseCounts: 12 },
    },
    {
      says: 'a dry reference that is no number',
      dry: at(NaN),
      wet: at(500),
      issue: { kind: 'not-finite', at: 'dry' },
    },
    {
      says: 'a wet reference that is no number',
      dry: at(500),
      wet: at(Infinity),
      issue: { kind: 'not-finite', at: 'wet' },
    },
  ])('refuses $says', ({ dry, wet, issue }) => {
    expect(fitTwoPoint(dry, wet)).toEqual({ ok: false, issue });
  });

  test('accepts references exactly ten times the noise apart', () => {
    expect(fitTwoPoint(at(520), at(500)).ok).toBe(true);
  });
});

describe('span percent', () => {
  const falling = fitted(3000, 1000);
  test.each([
    [3000, 0, null, 0],
    [2500, 25, null, 0],
    [1000, 100, null, 0],
    [3012, 0, 'dry', 12],
    [940, 100, 'wet', 60],
  ])('raw %d reads %d %%, clamped at %s by %d counts', (raw, percent, clampedAt, beyondCounts) => {
    expect(spanReading(falling, raw)).toEqual({ percent, clampedAt, beyondCounts });
  });

  test('a rising probe is measured from its own dry end', () => {
    expect(spanReading(fitted(200, 600), 300).percent).toBe(25);
  });

  test('counts and percent are each other’s inverse, whatever the references', () => {
    const counts = fc.integer({ min: 0, max: 65_535 });
    fc.assert(
      fc.property(counts, counts, fc.double({ min: 0, max: 100, noNaN: true }), (dry, wet, percent) => {
        const fit = fitTwoPoint(at(dry), at(wet));
        fc.pre(fit.ok);
        // 1e-9 %: rounding of doubles at these sizes, far below a tenth of a percent
        expect(spanReading(fit.value, countsAtPercent(fit.value, percent)).percent).toBeCloseTo(percent, 9);
      }),
    );
  });

  test('a stretch of counts is worth its share of the span: 50 of 2000 counts are 2.5 %', () => {
    expect(percentOfCounts(falling, 50)).toBe(2.5);
  });
});

describe('workings', () => {
  const fit = fitted(3000, 1000);

  test('the working of the percent agrees with the percent', () => {
    const shown = workSpanPercent(fit, 1964, 10);
    expect(shown.value).toBeCloseTo(51.8, 9);
    expect(shown.note).toContain('± 0.5 % span');
  });

  test('a clamped reading shows the clamp as a step of its own and says by how much', () => {
    const shown = workSpanPercent(fit, 3012, 10);
    expect(shown.steps.map((one) => one.name)).toEqual(['span percent', 'kept within the references']);
    expect(shown.value).toBe(0);
    expect(shown.note).toBe('Clamped: the reading lies 12 counts beyond the dry reference.');
  });

  test('a limit of 40 % between 3000 and 1000 is 2200 counts', () => {
    expect(workLimitCounts(fit, 'Start limit', 40)).toMatchObject({ value: 2200, unit: 'counts' });
  });

  test('2000 counts of span are 20 counts a percent', () => {
    expect(workSpan(fit).value).toBe(20);
  });
});
