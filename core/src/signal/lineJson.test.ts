import fc from 'fast-check';
import { expect, test } from 'vitest';
import { readLineJson } from './lineJson.ts';

/** The same by the usual parser: a second way to the same fields. */
function usual(text: string): unknown {
  let parsed: unknown;
  try {
    parsed = JSON.parse(text);
  } catch {
    return null;
  }
  if (typeof parsed !== 'object' || parsed === null || Array.isArray(parsed)) return null;
  const plain = (value: unknown): value is number | string =>
    typeof value === 'number' || typeof value === 'string';
  return Object.entries(parsed).flatMap(([name, value]: [string, unknown]) =>
    plain(value)
      ? [[name, value]]
      : typeof value === 'object' && value !== null && !Array.isArray(value)
        ? Object.entries(value).flatMap(([inner, held]: [string, unknown]) =>
            plain(held) ? [[`${name}.${inner}`, held]] : [],
          )
        : [],
  );
}

test.each([
  '{}',
  '{"c2":1512}',
  ' { "c2" : -1.5e3 , "t" : "19.5" } ',
  '{"c2":{"raw":1512,"deep":{"x":1}},"list":[1,{"y":2}],"ok":true,"no":null}',
  '{"a\\"b":"\\u00e4\\n\\\\"}',
  '{"c2":1e309}',
  '{',
  '{"',
  '{"}',
  '{":}',
  '{"a":}',
  '{"a":1,}',
  '{"a":01}',
  '{"a":1}x',
  '{"a":"\\x"}',
  '{"a":tru}',
  '[1]',
  '"a"',
  `${'{"a":'.repeat(15)}1${'}'.repeat(15)}`,
])('%j is read as the usual parser reads it', (text) => expect(readLineJson(text)).toEqual(usual(text)));

test('any object is read as the usual parser reads it, whole or cut', () => {
  const name = fc.string({ maxLength: 6 }).filter((key) => !/^\d+$|^__proto__$/.test(key));
  const leaf = fc.oneof(
    fc.double({ noNaN: true, noDefaultInfinity: true }),
    fc.string({ maxLength: 8 }),
    fc.boolean(),
  );
  const object = fc.dictionary(name, fc.oneof(leaf, fc.dictionary(name, leaf), fc.array(leaf)), {
    noNullPrototype: true,
  });
  fc.assert(
    fc.property(object, fc.nat(200), (value, cut) => {
      const text = JSON.stringify(value);
      expect(readLineJson(text)).toEqual(usual(text));
      expect(readLineJson(text.slice(0, cut))).toEqual(usual(text.slice(0, cut)));
    }),
  );
});
