import { expect, test } from 'vitest';
import { capital, partsOf, plainText, spoken } from './spoken.ts';

const SENTENCE = `${spoken('slots', 'at 06:30')}, give ${spoken('dose', '120 ml')} once.`;

test('marked words read like the others', () => {
  expect(plainText(SENTENCE)).toBe('at 06:30, give 120 ml once.');
  expect(plainText(capital(SENTENCE))).toBe('At 06:30, give 120 ml once.');
  expect(capital('give')).toBe('Give');
});

test('the pieces know their fields, and are the whole sentence', () => {
  expect(partsOf(SENTENCE)).toEqual([
    { text: 'at 06:30', field: 'slots' },
    { text: ', give ', field: null },
    { text: '120 ml', field: 'dose' },
    { text: ' once.', field: null },
  ]);
  expect(partsOf('no settings')).toEqual([{ text: 'no settings', field: null }]);
});
