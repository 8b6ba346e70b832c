import { expect, test } from 'vitest';
import { formulaInNumbers, formulaInWords, input, step, worked } from './worked.ts';

const runTime = step(
  {
    name: 'run time',
    unit: 's',
    decimals: 1,
    formula: '{volume} ÷ {flow}',
    inputs: { volume: input('volume', 100, 'ml'), flow: input('flow', 12.5, 'ml/s', 1) },
  },
  ({ volume, flow }) => volume / flow,
);

test('a step computes its value from the very inputs it shows', () => {
  expect(runTime.value).toBe(8);
});

test('the formula reads in words and in numbers', () => {
  expect(formulaInWords(runTime)).toBe('volume ÷ flow');
  expect(formulaInNumbers(runTime)).toBe('100 ÷ 12.5');
});

test('a placeholder without an input stays visible instead of vanishing', () => {
  const odd = { ...runTime, formula: '{volume} ÷ {nozzle}' };
  expect(formulaInNumbers(odd)).toBe('100 ÷ nozzle');
});

test('a worked value is the value of its last step, with its unit', () => {
  const doubled = step(
    { name: 'twice', unit: 's', formula: '2 × {t}', inputs: { t: input('run time', runTime.value, 's', 1) } },
    ({ t }) => 2 * t,
  );
  const whole = worked('Both runs', [runTime, doubled], { source: 'sum' });
  expect(whole).toMatchObject({ value: 16, unit: 's', decimals: 0, title: 'Both runs' });
});
