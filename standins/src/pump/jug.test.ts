import { expect, test } from 'vitest';
import { fitDose } from '@plain-trowel/core/dosing/doseFit';
import { jugAfter } from './jug.ts';

test('a run shorter than the tube takes to fill gives nothing worth a jug', () => {
  expect(jugAfter('line', 9, 1, 0)).toBeLessThan(8);
});

test('measured a dozen times, flow and tube constant come out', () => {
  const trials = [5, 10, 20, 30].flatMap((runS) =>
    [0, 1, 2].map((round) => ({ runS, volumeMl: jugAfter('line', 9, runS, round) })),
  );
  const fit = fitDose(trials);
  if (!fit.ok) throw new Error(fit.issue.kind);
  expect(Math.abs(1 / fit.value.secondsPerMl - 9)).toBeLessThan(0.5);
  expect(Math.abs(fit.value.tubeS - 1.6)).toBeLessThan(0.8);
});

test('the same run again is another, the same round the same', () => {
  expect(jugAfter('line', 9, 20, 1)).toBe(jugAfter('line', 9, 20, 1));
  const many = new Set([0, 1, 2, 3, 4, 5].map((round) => jugAfter('line', 9, 20, round)));
  expect(many.size).toBeGreaterThan(2);
});
