import { expect, test } from 'vitest';
import { initialLineParser, parseLine } from './line.ts';
import { nameOfPicked, numbersIn, readPicked } from './pickedNumber.ts';

test('every number of a line is offered, with what stands before it', () => {
  expect(numbersIn('Error 3 at 512, raw -4.5').map(({ text, before }) => [text, before])).toEqual([
    ['3', 'Error '],
    ['512', 'Error # at '],
    ['-4.5', 'Error # at #, raw '],
  ]);
  // A hyphen behind a word is none of the number's.
  expect(numbersIn('probe-498').map((one) => one.text)).toEqual(['498']);
  expect(numbersIn('no number here')).toEqual([]);
});
test('what was pointed at once is read from the next lines, whatever the other digits are', () => {
  const [, second] = numbersIn('retry 3 raw 512 end');
  const picked = [{ before: second?.before ?? '', name: 'raw' }];
  expect(readPicked('retry 17 raw 498 end', picked)).toEqual([{ name: 'raw', value: 498 }]);
  expect(readPicked('retry raw 498', picked)).toEqual([]);
});
test('its name is the word before it', () => {
  expect(numbersIn('wifi ok: moisture = 512').map(nameOfPicked)).toEqual(['moisture']);
  expect(numbersIn('512').map(nameOfPicked)).toEqual(['number']);
});
test('the parser takes it only where a line is not understood otherwise', () => {
  const state = { ...initialLineParser, picked: [{ before: 'retry # raw ', name: 'raw' }] };
  expect(parseLine(state, 'retry 17 raw 498').result).toMatchObject({
    kind: 'values',
    values: [{ name: 'raw', value: 498 }],
  });
  expect(parseLine(initialLineParser, 'retry 17 raw 498').result.kind).toBe('not-understood');
  expect(parseLine(state, 'c2=1512').result).toMatchObject({ values: [{ name: 'c2', value: 1512 }] });
  // A number beyond any probe's is none, pointed at or not.
  expect(parseLine(state, 'retry 17 raw 9999999999').result.kind).toBe('not-understood');
});
