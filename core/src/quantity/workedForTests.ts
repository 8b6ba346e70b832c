import { expect } from 'vitest';
import { formulaInNumbers, type Worked } from './worked.ts';

/**
 * Asserts that a working can be read: title, names, source and what would change it are there, each place of a formula has its input, each input its
 * name. @returns its steps as they are printed, such as `volume, ml: 10 × 2; run time, s; flow, ml/s`: the step, its formula in numbers, its inputs with their units
 */
export function readable(working: Worked | null): readonly string[] {
  if (!working) throw new Error('there is no working');
  const { title, source, note, wouldChange, steps } = working;
  for (const words of [title, source, note ?? 'none', wouldChange ?? 'none'])
    expect(words.trim()).not.toBe('');
  for (const { name, formula, inputs } of steps) {
    expect(name.trim()).not.toBe('');
    expect(formula.trim()).not.toBe('');
    for (const [, key = ''] of formula.matchAll(/\{(\w+)\}/g)) expect(Object.keys(inputs)).toContain(key);
    for (const [key, one] of Object.entries(inputs)) expect([key, one.name.trim()]).not.toEqual([key, '']);
  }
  return steps.map((one) =>
    [
      `${one.name}, ${one.unit}: ${formulaInNumbers(one)}`,
      ...Object.values(one.inputs).map(({ name, unit }) => `${name}, ${unit}`),
    ]
      .join('; ')
      .replaceAll(/[\u202f\u00a0\u2009]/g, ' '),
  );
}
