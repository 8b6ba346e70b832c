import { expect, test } from 'vitest';
import { differencePlace, valueText } from './differenceText.ts';

test('a difference is placed by the name of the thing', () => {
  const at = (path: readonly string[], of: string | null) => differencePlace({ path, of, here: 1, there: 2 });
  expect(at(['waterLines', 'dailyMaxMl'], 'Chilli pump')).toBe('Chilli pump, daily max');
  expect(at(['plots'], 'Sage')).toBe('plot Sage');
  expect(at(['name'], null)).toBe('name');
  expect(at(['plots', 'limits', 'startTenths'], 'Lemon barrel')).toBe('Lemon barrel, limits, start');
});

test.each([
  [undefined, 'name', 'not there'],
  [null, 'quiet', 'none'],
  [true, 'on', 'yes'],
  ['', 'note', 'empty'],
  ['2026-06-01T10:00:00Z', 'madeAt', 'Mon 1 Jun, 11:00:00'],
  [355, 'startTenths', '35.5 %'],
  [1200, 'dailyMaxMl', '1\u202f200 ml'],
  [[1, 2], 'slots', '1 · 2'],
  [[{}, {}], 'points', '2 entries'],
  [{ a: 1 }, 'soil', 'there'],
])('%j of %s is told as “%s”', (value, field, said) => {
  expect(valueText(value, field, 'Europe/London')).toBe(said);
});
