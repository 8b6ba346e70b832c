import { expect, test } from 'vitest';
import { formulaInNumbers } from '../quantity/worked.ts';
import { workDrift, workNoise, workPresent } from './workPresent.ts';

const present = {
  rawCounts: 1512,
  noiseCounts: 5.86,
  spreadCounts: 7,
  stepCounts: 1,
  driftCountsPerMin: -3.25,
  readings: 9,
  windowS: 4,
  atMs: 0,
};

test('reading, noise and drift are shown with the window they rest on', () => {
  expect(workPresent(present)).toMatchObject({ value: 1512, unit: 'counts', decimals: 0 });
  expect(workNoise(present)).toMatchObject({ value: 5.86, unit: 'counts' });
  expect(workDrift(present)).toMatchObject({ value: -3.25, unit: 'counts/min' });
  expect(workPresent(present).steps.map(formulaInNumbers)).toEqual(['median of 9 within 4.0']);
});

test('a board that prints fractions gets a decimal', () => {
  expect(workPresent({ ...present, rawCounts: 1511.5 }).decimals).toBe(1);
});
