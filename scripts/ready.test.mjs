import { mkdirSync, mkdtempSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from 'vitest';
import { nodeProblem, packagesAreStale } from './ready.mjs';

test.each(['20.19.0', '20.20.2', '22.0.0'])('Node %s will do', (version) => {
  expect(nodeProblem(version)).toBeNull();
});

test.each(['18.20.1', '20.18.3'])('Node %s is told so in one sentence', (version) => {
  expect(nodeProblem(version)).toContain(`this is Node ${version}`);
});

test('packages are stale when missing or older than the lock file', () => {
  const folder = mkdtempSync(join(tmpdir(), 'trowel-'));
  writeFileSync(join(folder, 'package-lock.json'), '{}');
  expect(packagesAreStale(folder)).toBe(true);
  mkdirSync(join(folder, 'node_modules'));
  writeFileSync(join(folder, 'node_modules/.package-lock.json'), '{}');
  utimesSync(join(folder, 'package-lock.json'), 1000, 1000);
  expect(packagesAreStale(folder)).toBe(false);
  utimesSync(join(folder, 'node_modules/.package-lock.json'), 900, 900);
  expect(packagesAreStale(folder)).toBe(true);
});
