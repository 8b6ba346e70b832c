import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { BUILT_IN, catalogueWith } from './catalogue.ts';
import { readCatalogueFile, writeCatalogueFile } from './catalogueFile.ts';
import { FACTS } from './facts.ts';
import { entrySchema, ROLES, terminalSchema, type Entry } from './schema.ts';

describe('built-in entries', () => {
  test.each(BUILT_IN.map((entry) => [entry.id, entry] as const))('%s passes its own schema', (_, entry) => {
    expect(entrySchema.safeParse(entry).error).toBeUndefined();
    expect(entry.source).not.toBe('');
  });
  test('ids are not used twice', () => {
    expect(new Set(BUILT_IN.map((entry) => entry.id)).size).toBe(BUILT_IN.length);
  });
  test('ten probe kinds and six boards at least', () => {
    const of = (role: Entry['role']) => BUILT_IN.filter((entry) => entry.role === role);
    expect(of('probe').length).toBeGreaterThanOrEqual(10);
    expect(of('board')).toHaveLength(6);
  });
  // The traits that a plan stands or falls with.
  test.each([
    ['board-8bit-six', 5, 6, 0],
    ['board-8bit-eight', 5, 8, 0],
    ['board-wifi-one', 3.3, 1, 0],
    ['board-wifi-two-groups', 3.3, 12, 6],
    ['board-33-three', 3.3, 3, 0],
    ['board-32bit-seven', 3.3, 7, 0],
  ])('%s: %d V logic, %d inputs, %d of them lost with the radio', (id, logicV, inputs, lost) => {
    const entry = catalogueWith([]).get(id);
    const pins =
      entry?.terminals.flatMap((one) => (one.type === 'pin' && one.caps.includes('adc') ? [one] : [])) ?? [];
    expect(entry?.facts.logicV).toBe(logicV);
    expect(pins).toHaveLength(inputs);
    expect(pins.filter((pin) => pin.lostWithRadio)).toHaveLength(lost);
  });
});

const [fork] = BUILT_IN.filter((entry) => entry.id === 'probe-fork');
if (!fork) throw new Error('no fork');
const own: Entry = { ...fork, id: 'my-fork', name: 'my fork', facts: { ...fork.facts, poweredYears: 1 } };

describe('own entries', () => {
  test('stand beside the built-in ones, or in the place of one', () => {
    expect(catalogueWith([own]).get('my-fork')?.name).toBe('my fork');
    expect(catalogueWith([{ ...own, id: 'probe-fork' }]).get('probe-fork')?.name).toBe('my fork');
    expect(catalogueWith([{ ...own, id: 'probe-fork' }]).size).toBe(BUILT_IN.length);
  });
  test('come back from their file as they were', () => {
    expect(readCatalogueFile(writeCatalogueFile([own, ...BUILT_IN]))).toEqual({
      ok: true,
      value: [own, ...BUILT_IN],
    });
  });
});

describe('a catalogue file that is refused', () => {
  const file = (change: (entry: Record<string, unknown>) => void) => {
    const entry = structuredClone(own) as unknown as Record<string, unknown>;
    change(entry);
    return writeCatalogueFile([entry as unknown as Entry]);
  };
  test.each([
    ['not JSON', 'id,name', { kind: 'not-json' }],
    ['a garden', '{"format":"plain-trowel-garden"}', { kind: 'not-a-catalogue' }],
    ['null', 'null', { kind: 'not-a-catalogue' }],
    ['the same id twice', writeCatalogueFile([own, own]), { kind: 'id-twice', id: 'my-fork' }],
    [
      'an unknown role',
      file((entry) => {
        entry.role = 'toaster';
      }),
      { kind: 'field', field: 'entries[0].role' },
    ],
    [
      'a voltage off the scale',
      file((entry) => {
        Object.assign((entry.terminals as object[])[0] ?? {}, { maxV: 400 });
      }),
      { kind: 'field', field: 'entries[0].terminals[0].maxV' },
    ],
    [
      'an output that follows a supply it does not have',
      file((entry) => {
        Object.assign((entry.terminals as object[])[2] ?? {}, { follows: 'vbus' });
      }),
      { kind: 'field', field: 'entries[0].terminals[2].follows' },
    ],
  ])('%s', (_, text, issue) => {
    expect(readCatalogueFile(text)).toMatchObject({ ok: false, issue });
  });
});

test('every fact has words, a range that is one, and decimals', () => {
  for (const [key, fact] of Object.entries(FACTS)) {
    expect(fact.name, key).not.toBe('');
    expect(fact.least, key).toBeLessThan(fact.most);
  }
});

describe('docs/CATALOGUE.md', () => {
  const doc = readFileSync(new URL('../../../docs/CATALOGUE.md', import.meta.url), 'utf8');
  test('tells of every figure, role and type of terminal', () => {
    const types = terminalSchema.options.map((option) => option.shape.type.value);
    for (const word of [...Object.keys(FACTS), ...ROLES, ...types])
      expect(doc, word).toContain(`\`${word}\``);
  });
  test('shows a file that can be read', () => {
    const example = /```json\n([\s\S]*?)```/.exec(doc)?.[1] ?? '';
    expect(readCatalogueFile(example)).toMatchObject({ ok: true });
  });
});
