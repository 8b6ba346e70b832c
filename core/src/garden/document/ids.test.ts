import { expect, test } from 'vitest';
import { makeId } from './ids.ts';

test('an id is a prefix and four letters that are not easily mistaken', () => {
  expect(makeId('plot', new Set(), () => 0)).toBe('plot-aaaa');
  expect(makeId('plot', new Set(), () => 0.999)).toBe('plot-9999');
});

test('a taken id is passed over', () => {
  const numbers = [0, 0, 0, 0, 0.5, 0, 0, 0];
  let at = 0;
  const id = makeId('plot', new Set(['plot-aaaa']), () => numbers[at++] ?? 0);
  expect(id).toBe('plot-saaa');
});
