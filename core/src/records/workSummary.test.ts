import { expect, test } from 'vitest';
import { workChange, workSwing } from './workSummary.ts';

const summary = { last: 38, lowest: 36.5, highest: 55, change: -2, durationS: 60, readings: 12 };
const percent = { unit: '% span', decimals: 1 };

test('change is the last reading less the first', () => {
  const shown = workChange(summary, percent);
  expect(shown).toMatchObject({ value: -2, unit: '% span' });
  expect(shown.steps[0]?.inputs.first?.value).toBe(40);
});

test('swing is the highest less the lowest', () => {
  expect(workSwing(summary, percent).value).toBe(18.5);
});
