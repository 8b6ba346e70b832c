import { dirname } from 'node:path';
import { expect, test } from 'vitest';
import { thirdPartyText } from './thirdParty.ts';

const text = thirdPartyText(dirname(import.meta.dirname));

test('the licences of what is shipped are written out, fonts and what packages rest on included', () => {
  for (const name of ['react', 'zod', 'fflate', 'idb', 'scheduler', 'tailwindcss'])
    expect(text).toMatch(new RegExp(`^${name} \\d+\\.\\d+`, 'm'));
  expect(text).toMatch(/^@fontsource-variable\/spline-sans-mono .*OFL/m);
  expect(text).toContain('SIL OPEN FONT LICENSE');
});

test('tools that only build or test are not in it', () => {
  for (const name of ['vite', 'vitest', 'typescript', 'express'])
    expect(text).not.toMatch(new RegExp(`^${name} \\d`, 'm'));
});

test('no package goes without any word of its licence', () =>
  expect(text).not.toContain('Licence: not said'));
