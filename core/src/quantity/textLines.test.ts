import { expect, test } from 'vitest';
import { textLines } from './textLines.ts';

test('lines end with CR, LF or both, and a blank line stays one', () => {
  expect(textLines('a\nb\r\nc\rd\r\r\n\ne')).toEqual(['a', 'b', 'c', 'd', '', '', 'e']);
  expect(textLines('a\n')).toEqual(['a', '']);
  expect(textLines('')).toEqual(['']);
});
