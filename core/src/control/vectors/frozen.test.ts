/** Version 1 of the vectors is frozen: what a board answers today it answers for good. Another meaning is version 2, in files of its own (docs/ARCHITECTURE.md). */
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { expect, test } from 'vitest';

const ENGINE = new URL('../../../../engine/', import.meta.url);

test.each([
  ['vectors', 15, '07781db318b7096ad1929c61a970be042160709d15deaf1c3a8fb102a26eb717'],
  ['contacts', 9, 'e100bd4c212a496475473c858eeb9cd63989351dfb21f53e0668cf539562a47d'],
])('engine/%s holds the %d files that were frozen, letter for letter', (folder, count, expected) => {
  const files = readdirSync(new URL(`${folder}/`, ENGINE)).sort();
  expect(files).toHaveLength(count);
  const hash = createHash('sha256');
  for (const name of files) hash.update(readFileSync(new URL(`${folder}/${name}`, ENGINE)));
  expect(hash.digest('hex')).toBe(expected);
});
