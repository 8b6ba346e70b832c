import { expect, test } from 'vitest';
import { catalogueFileText } from './catalogueText.ts';
import { sumText } from './sumText.ts';

test('why a sum has no answer is told with its numbers and a way out', () => {
  expect(sumText({ kind: 'base-too-much', baseMa: 24.6, pinMa: 12 })).toBe(
    'The base would take 24.6 mA, more than the pin’s 12 mA. Take a MOSFET.',
  );
  expect(sumText({ kind: 'bus-too-heavy', busPf: 200, mostPf: 400, leastOhm: 1533, mostOhm: 1770 })).toMatch(
    /between 1\u202f533 Ω and 1\u202f770 Ω/,
  );
  expect(sumText({ kind: 'bus-too-heavy', busPf: 450, mostPf: 400, leastOhm: 967, mostOhm: 2600 })).toMatch(
    /450 pF is more than/,
  );
});

test('a catalogue that cannot be read says what is wrong, that nothing was taken in, and what to do', () => {
  for (const issue of [
    { kind: 'not-json' },
    { kind: 'not-a-catalogue' },
    { kind: 'id-twice', id: 'own-1' },
    { kind: 'field', field: 'entries[0].role', message: 'is unknown', more: 2 },
  ] as const) {
    const text = catalogueFileText(issue, 'mine.json');
    expect(text).toMatch(/^mine\.json/);
    expect(text).toContain('Nothing was taken in.');
  }
  expect(
    catalogueFileText(
      { kind: 'field', field: 'entries[0].role', message: 'is unknown', more: 2 },
      'mine.json',
    ),
  ).toContain('entries[0].role is unknown, and 2 more.');
});
