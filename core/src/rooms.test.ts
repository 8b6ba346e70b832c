/** The rooms of core form no circle: each can be read, and taken along by a worker, with only those that lie below it. */
import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import { expect, test } from 'vitest';

const HERE = dirname(fileURLToPath(import.meta.url));
/** Rooms whose own folders are rooms as well. */
const SPLIT = ['garden', 'control'];

const roomOf = (file: string): string => {
  const [first = '', second = ''] = relative(HERE, dirname(file)).split('/');
  return SPLIT.includes(first) && second !== '' ? `${first}/${second}` : first;
};

/** By room, the rooms that it imports from. Tests may look anywhere. */
function rooms(): Map<string, Set<string>> {
  const found = new Map<string, Set<string>>();
  for (const entry of readdirSync(HERE, { recursive: true, withFileTypes: true })) {
    const file = join(entry.parentPath, entry.name);
    if (!entry.isFile() || !/\.ts$/.test(file) || /\.test\.ts$|ForTests\.ts$/.test(file)) continue;
    const from = roomOf(file);
    const targets = found.get(from) ?? new Set();
    for (const [, path = ''] of readFileSync(file, 'utf8').matchAll(/from '(\.[^']+)'/g)) {
      const to = roomOf(join(dirname(file), path));
      if (to !== from) targets.add(to);
    }
    found.set(from, targets);
  }
  return found;
}

/** The rooms that a room rests on, directly or through others. */
function below(room: string, all: ReadonlyMap<string, ReadonlySet<string>>): Set<string> {
  const seen = new Set<string>();
  const left = [room];
  for (let at = left.pop(); at !== undefined; at = left.pop())
    for (const next of all.get(at) ?? []) {
      if (seen.has(next)) continue;
      seen.add(next);
      left.push(next);
    }
  return seen;
}

test('no room of core rests on itself', () => {
  const all = rooms();
  expect(all.size).toBeGreaterThan(20);
  expect([...all.keys()].filter((room) => below(room, all).has(room))).toEqual([]);
});

test('quantity rests on nothing, and the engine knows no garden', () => {
  const all = rooms();
  expect([...below('quantity', all)]).toEqual([]);
  expect([...below('control/engine', all)].filter((room) => room.startsWith('garden'))).toEqual([]);
});
