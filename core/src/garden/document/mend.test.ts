import { describe, expect, test } from 'vitest';
import { valueAt } from './faults.ts';
import { writeGardenFile } from './gardenFile.ts';
import { onePlot } from '../edits/gardenForTests.ts';
import { examineGarden, mend, remediesOf, type Remedy } from './mend.ts';

const garden = onePlot({ pump: { flowMlPerS: 10 } });
const stored = (): Record<string, unknown> => JSON.parse(writeGardenFile(garden)) as Record<string, unknown>;

const examined = (doc: unknown) => {
  const read = examineGarden(doc);
  if (!read.ok) throw new Error(read.issue.kind);
  return read.value;
};

test('a sound document has no faults', () => {
  expect(examined(stored())).toEqual({ doc: garden, faults: [], garden });
});

test('all faults are told, each with its field and what stands there', () => {
  const doc = {
    ...stored(),
    name: '',
    logEveryS: 0,
    hue: 3,
    plots: [{ ...garden.plots[0], bandEdges: [1, 2, 3] }],
  };
  expect(examined(doc).faults.map(({ field, rule, value }) => [field, rule.kind, value])).toEqual([
    ['name', 'empty', ''],
    ['logEveryS', 'below', 0],
    ['plots[0].bandEdges', 'too-few', [1, 2, 3]],
    ['hue', 'unknown-field', 3],
  ]);
});

test('a fault inside one of several shapes is told at its own field', () => {
  const line = { ...garden.waterLines[0], program: { kind: 'until-wet', capMl: -4 } };
  expect(examined({ ...stored(), waterLines: [line] }).faults).toMatchObject([
    { field: 'waterLines[0].program.capMl', rule: { kind: 'below', least: 1 }, value: -4 },
  ]);
});

test.each([
  [null, 'not-a-garden'],
  [[], 'not-a-garden'],
  [{ format: 'plain-trowel-garden' }, 'bad-version'],
  [{ format: 'plain-trowel-garden', version: 99 }, 'newer-version'],
])('%j is beyond mending here', (doc, kind) => {
  const read = examineGarden(doc);
  expect(!read.ok && read.issue.kind).toBe(kind);
});

describe('remedies', () => {
  const tank = {
    id: 'tank',
    name: 'Butt',
    kind: 'level',
    float: { highIs: 'water', threshold: 0.5 },
    channelId: null,
    minimumMl: 0,
  };
  const levels = Array.from({ length: 13 }, (_, at) => ({ raw: at, volumeMl: at }));
  const cases: readonly (readonly [string, Record<string, unknown>, readonly Remedy['kind'][]])[] = [
    ['a level too many', { reservoirs: [{ ...tank, levels }] }, ['keep-first']],
    [
      'a level far below',
      { reservoirs: [{ ...tank, levels: [{ raw: -2e6, volumeMl: 1 }] }] },
      ['set', 'remove'],
    ],
    ['a note too long', { note: 'x'.repeat(401) }, ['set']],
    ['half a second', { logEveryS: 1.5 }, ['set']],
    ['a field that no garden has', { hue: 3 }, ['remove']],
    ['a probe in a plot that is gone', { probes: [{ ...garden.probes[0], plotId: 'gone' }] }, ['remove']],
  ];
  test.each(cases)('%s can be mended, and the document opens or shows what is next', (_, change, kinds) => {
    const { doc, faults } = examined({ ...stored(), ...change });
    const [fault] = faults;
    if (!fault) throw new Error('no fault');
    const remedies = remediesOf(doc, fault);
    expect(remedies.map((one) => one.kind)).toEqual(kinds);
    for (const remedy of remedies) {
      const next = examined(mend(doc, remedy));
      expect(next.faults.map((one) => one.field)).not.toContain(fault.field);
    }
  });

  test('mending leaves the given document as it is', () => {
    const doc = { ...stored(), logEveryS: 0 };
    const before = JSON.stringify(doc);
    expect(valueAt(mend(doc, { kind: 'set', path: ['logEveryS'], value: 5 }), ['logEveryS'])).toBe(5);
    expect(JSON.stringify(doc)).toBe(before);
  });

  test('a path that leads nowhere changes nothing', () => {
    const doc = stored();
    expect(mend(doc, { kind: 'remove', path: ['plots', 7] })).toEqual(doc);
    expect(mend(doc, { kind: 'set', path: ['name', 'first', 'letter'], value: 1 })).toEqual(doc);
  });
});
