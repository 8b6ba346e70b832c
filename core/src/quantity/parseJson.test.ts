import { expect, test } from 'vitest';
import { parseJson } from './parseJson.ts';

test('what is JSON comes back as what it says, what is none as undefined', () => {
  expect(parseJson('{"a":[1,"]]]\\"[[["],"b":null}')).toEqual({ a: [1, ']]]"[[['], b: null });
  expect(parseJson('null')).toBeNull();
  for (const text of ['', '{', 'undefined', '{"a":1}}', '"open', '\\"'])
    expect(parseJson(text)).toBeUndefined();
});

test('brackets in texts do not count as depth, brackets outside do', () => {
  expect(parseJson(JSON.stringify('['.repeat(1000)))).toBe('['.repeat(1000));
  expect(parseJson(`${'['.repeat(200)}${']'.repeat(200)}`)).toBeDefined();
  expect(parseJson(`${'['.repeat(201)}${']'.repeat(201)}`)).toBeUndefined();
});
