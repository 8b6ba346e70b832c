import { expect, test } from 'vitest';
import { displayPages, unknownPlaces, type DisplayValues } from './display.ts';

const values: DisplayValues = {
  percent: '41.4 %',
  raw: '2203',
  word: 'right',
  temperature: '18.5 °C',
  battery: null,
  tank: '12 l',
};

test.each([
  ['Content', [['Content']]],
  ['{word} {percent}', [['right 41.4 %']]],
  ['{word}|{raw} counts|{tank} left', [['right'], ['2203 counts'], ['12 l left']]],
  // What is not known is said to be so.
  ['Battery {battery}', [['Battery ?']]],
  ['{temperature} in the soil', [['18.5 °C in the', 'soil']]],
  ['', [[]]],
])('“%s”', (text, lines) => expect(displayPages(text, values).map((page) => page.lines)).toEqual(lines));

test('what finds no room on two lines of sixteen letters is counted', () => {
  expect(displayPages('abcdefghijklmnopqrstuvwxyz', values)).toEqual([
    { lines: ['abcdefghijklmnop', 'qrstuvwxyz'], lost: 0 },
  ]);
  const [page] = displayPages('a text that is a good deal longer than two lines', values);
  expect(page?.lines).toEqual(['a text that is a', 'good deal longer']);
  expect(page?.lost).toBe('than two lines'.length);
});

test('a place that there is not stays as it was typed, and is named', () => {
  expect(displayPages('{moisture} %', values)[0]?.lines).toEqual(['{moisture} %']);
  expect(unknownPlaces('{moisture} {percent} {}')).toEqual(['moisture', '']);
});
