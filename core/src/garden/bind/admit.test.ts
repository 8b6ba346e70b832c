import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { readCatalogueFile } from '../../catalogue/catalogueFile.ts';
import { admitGarden } from './admit.ts';
import * as bench from '../edits/bench.ts';
import * as calibrations from '../edits/calibrations.ts';
import * as edit from '../edits/plots.ts';
import { EDITS, type Draw } from '../edits/editsForTests.ts';
import { readGardenFile, writeGardenFile } from '../document/gardenFile.ts';
import { airAndWater, firstLine, onePlot } from '../edits/gardenForTests.ts';
import * as layOuts from '../edits/layOutGarden.ts';
import * as plan from '../edits/plan.ts';
import * as reservoirs from '../edits/reservoirs.ts';
import { addReservoir, addLevel } from '../edits/reservoirs.ts';
import type { Garden } from '../document/schema.ts';
import * as trials from '../edits/trials.ts';

const start = airAndWater(onePlot({ pump: { flowMlPerS: 10 } }), 2600, 1100).garden;

/** A short slice here; `npm run test:long` walks further. */
const RUNS = process.env.TROWEL_LONG ? 1500 : 40;

/** A seeded sequence (mulberry32). */
function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
}

/** As a form would give it: within the bounds, both ends included. */
function tame(random: () => number): Draw {
  const number = (least: number, most: number) => {
    const at = random();
    return at < 0.15 ? least : at > 0.75 ? most : least + (most - least) * random();
  };
  return {
    random,
    number,
    whole: (least, most) => Math.round(number(least, most)),
    text: (most) =>
      'äx "=,'
        .repeat(most)
        .slice(0, Math.round(number(0, most)))
        .trim(),
  };
}

const ABSURD = [Number.NaN, Infinity, -Infinity, 1e308, -2e6, -0, 0.5, 2 ** 53, 5e-324];
/** As only a fault would give it: beyond every bound now and then. */
function wild(random: () => number): Draw {
  const kind = tame(random);
  const number = (least: number, most: number) =>
    random() < 0.85 ? kind.number(least, most) : (ABSURD[Math.floor(random() * ABSURD.length)] ?? 0);
  return {
    random,
    number,
    whole: (least, most) => (random() < 0.9 ? kind.whole(least, most) : number(least, most)),
    text: (most) => (random() < 0.9 ? kind.text(most) : 'long '.repeat(most)),
  };
}

const NAMES = Object.keys(EDITS);
const walk = fc.record({
  seed: fc.integer(),
  steps: fc.array(fc.constantFrom(...NAMES), { minLength: 30, maxLength: 60, size: 'max' }),
});

const reopened = (garden: Garden) => readGardenFile(writeGardenFile(garden));

test('no edit function is missing from the walk', () => {
  const given = [edit, bench, calibrations, layOuts, plan, reservoirs, trials].flatMap((module) =>
    Object.entries(module),
  );
  // Functions of these modules that change a part of a garden, read one, or need what a form has worked out.
  const others = [
    'emptyGarden',
    'withoutLines',
    'withoutChannels',
    'calibrationOf',
    'plotParts',
    'calibrationMismatch',
    'busStreamName',
    'runOf',
    'versionsOf',
    'catalogueOf',
    'settingOf',
    'syncWiring',
    'partOfProbe',
    'useMeasuredFlow',
    'refitReasons',
    'partsDropped',
  ];
  const missing = given.flatMap(([name, value]) =>
    typeof value === 'function' && !others.includes(name) && !(name in EDITS) ? [name] : [],
  );
  expect(missing).toEqual([]);
});

test('whatever is done to a garden, what the gate lets through opens again as it was', () => {
  fc.assert(
    fc.property(walk, ({ seed, steps }) => {
      const draw = wild(seeded(seed));
      let garden = start;
      for (const name of steps) {
        const next = EDITS[name]?.(garden, draw) ?? garden;
        const admitted = admitGarden(next);
        if (!admitted.ok) {
          expect(admitted.issue.length).toBeGreaterThan(0);
          continue;
        }
        expect(admitted.value).toBe(next);
        const read = reopened(next);
        if (!read.ok) throw new Error(JSON.stringify(read.issue));
        garden = next;
      }
      expect(reopened(garden)).toMatchObject({ ok: true });
    }),
    { numRuns: RUNS },
  );
}, 900_000);

test('what forms give within their bounds is refused only where a list is full', () => {
  fc.assert(
    fc.property(walk, ({ seed, steps }) => {
      const draw = tame(seeded(seed));
      let garden = start;
      for (const name of steps) {
        const next = EDITS[name]?.(garden, draw) ?? garden;
        const admitted = admitGarden(next);
        if (admitted.ok) garden = next;
        else
          for (const fault of admitted.issue)
            expect([name, fault.field, fault.rule.kind]).toEqual([name, fault.field, 'too-many']);
      }
    }),
    { numRuns: RUNS },
  );
}, 900_000);

describe('what was once saved and then refused to open', () => {
  const tank = addReservoir(start, 'Butt', () => 0.5);
  const tankId = tank.reservoirs[0]?.id ?? '';
  const levels = (count: number) =>
    Array.from({ length: count }, (_, at) => at).reduce(
      (garden, at) => addLevel(garden, tankId, { raw: at, volumeMl: at * 100 }),
      tank,
    );

  test.each([
    ['a 13th level of a reservoir', levels(13), 'reservoirs[0].levels', { kind: 'too-many', most: 12 }],
    [
      'a level of −2,000,000',
      addLevel(tank, tankId, { raw: -2_000_000, volumeMl: 1 }),
      'reservoirs[0].levels[0].raw',
      { kind: 'below', least: -1_000_000 },
    ],
    [
      'a 61st outlet',
      edit.setWaterLine(start, firstLine(start).id, {
        outlets: Array.from({ length: 61 }, (_, at) => ({
          id: `o-${at}`,
          name: 'x',
          plotId: null,
          cupMl: null,
        })),
      }),
      'waterLines[0].outlets',
      { kind: 'too-many', most: 60 },
    ],
    [
      'a date in the year 58221',
      { ...start, madeAt: '+058221-01-01T00:00:00.000Z' },
      'madeAt',
      { kind: 'other' },
    ],
    [
      'half a second where seconds are whole',
      edit.setWaterLine(start, firstLine(start).id, { maxRunS: 0.5 }),
      'waterLines[0].maxRunS',
      { kind: 'not-whole' },
    ],
    [
      'a number that is none',
      edit.setWaterLine(start, firstLine(start).id, { tubeS: Number.NaN }),
      'waterLines[0].tubeS',
      { kind: 'not-a-number' },
    ],
  ])('%s is refused at the gate, by its field', (_, garden, field, rule) => {
    const admitted = admitGarden(garden);
    expect(admitted.ok).toBe(false);
    expect(!admitted.ok && admitted.issue[0]).toMatchObject({ field, rule });
  });

  test('twelve levels are let through', () => expect(admitGarden(levels(12)).ok).toBe(true));
});

test('a reservoir outlives the channel that watched it', () => {
  const tank = addReservoir(start, 'Butt', () => 0.5);
  const watched = reservoirs.setReservoir(tank, tank.reservoirs[0]?.id ?? '', {
    channelId: start.channels[0]?.id ?? null,
  });
  for (const gone of [
    bench.removeChannel(watched, start.channels[0]?.id ?? ''),
    edit.removePlot(watched, start.plots[0]?.id ?? ''),
  ]) {
    expect(gone.reservoirs[0]?.channelId).toBeNull();
    expect(admitGarden(gone).ok).toBe(true);
  }
});

test('a catalogue file has no more entries than a garden may hold', () => {
  const entry = { ...start.catalogue[0] };
  const entries = Array.from({ length: 501 }, () => entry);
  const text = JSON.stringify({ format: 'plain-trowel-catalogue', version: 1, entries });
  expect(readCatalogueFile(text).ok).toBe(false);
});
