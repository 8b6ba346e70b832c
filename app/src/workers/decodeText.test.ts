import { expect, test } from 'vitest';
import { decodeText } from './decodeText.ts';

const TEXT = 'time;plot\r\n2026;Kräuter\r\n';
const codesOf = (text: string) => Array.from({ length: text.length }, (_, at) => text.charCodeAt(at));
const utf16 = (little: boolean, mark: boolean) => {
  const codes = codesOf(`${mark ? '\ufeff' : ''}${TEXT}`);
  return Uint8Array.from(
    codes.flatMap((code) => (little ? [code & 255, code >> 8] : [code >> 8, code & 255])),
  );
};

test.each([
  ['UTF-8', new TextEncoder().encode(TEXT)],
  ['UTF-16 little-endian', utf16(true, true)],
  ['UTF-16 little-endian', utf16(true, false)],
  ['UTF-16 big-endian', utf16(false, true)],
  ['UTF-16 big-endian', utf16(false, false)],
  ['Windows-1252', Uint8Array.from(codesOf(TEXT))],
])('%s is found, named and read', (encoding, bytes) => {
  expect(decodeText(bytes)).toEqual({ text: TEXT, encoding });
});

test('a binary file is not taken for UTF-16', () => {
  expect(decodeText(Uint8Array.from({ length: 500 }, (_, at) => (at * 37) % 256)).encoding).toBe(
    'Windows-1252',
  );
  expect(decodeText(new Uint8Array(500)).text).toContain('\u0000');
});

test('an empty file is empty text', () => expect(decodeText(new Uint8Array(0)).text).toBe(''));
