import 'fake-indexeddb/auto';
import { beforeEach, expect, test } from 'vitest';
import { newHistory, undo } from '@plain-trowel/core/garden/history';
import { readReadingsCsv, writeReadingsCsv } from '@plain-trowel/core/records/readingsCsv';
import { marigoldHare, sampleHistory } from '@plain-trowel/standins/sample/marigoldHare';
import { openDb, type Db } from './db.ts';
import { fileNameOf } from './download.ts';
import { csvChannels, csvRows } from './exportReadings.ts';
import { loadGarden, saveGarden } from './gardenStore.ts';
import { importGarden } from './importGarden.ts';
import { storeNewGarden } from './newGarden.ts';
import { addRecords, readEvents, readWholeSeries } from './recordStore.ts';

const NOW = Date.UTC(2026, 4, 1, 12);
const garden = marigoldHare(NOW);
const history = sampleHistory(garden, NOW);
const past = {
  readings: history.readings,
  events: history.events,
  link: { world: history.world, openAtStart: true, alerts: {} },
};

let db: Db;
let databases = 0;
beforeEach(async () => {
  db = await openDb(`files-${++databases}`);
});

const presentOf = async () => {
  const loaded = await loadGarden(db, garden.id);
  if (loaded.kind !== 'found') throw new Error(loaded.kind);
  return loaded.stored;
};

test('a garden that is not here yet is new; one that is here is replaced as a step that can be undone', async () => {
  expect(await importGarden(db, garden)).toBe('new');
  expect(await importGarden(db, { ...garden, name: 'From the file' })).toBe('replaced');
  const { history: steps } = await presentOf();
  expect(steps.present.name).toBe('From the file');
  expect(undo(steps).present).toEqual(garden);
});

test('a garden that storage damaged can be replaced by its file', async () => {
  await db.put('gardens', { id: garden.id, revision: 4, doc: { format: 'plain-trowel-garden' } });
  expect(await importGarden(db, garden)).toBe('new');
  expect((await presentOf()).history.present).toEqual(garden);
});

test('a new garden is stored with its whole past, and never over one that is there', async () => {
  await storeNewGarden(db, garden, past);
  expect((await readWholeSeries(db, garden.id, 'channel-c2')).raw.length).toBe(
    history.readings.get('channel-c2')?.length,
  );
  expect((await readEvents(db, garden.id, 0, Infinity)).length).toBe(history.events.length);
  await expect(storeNewGarden(db, { ...garden, name: 'Usurper' }, past)).rejects.toThrow();
  expect((await presentOf()).history.present.name).toBe('The Marigold Hare');
  expect((await readEvents(db, garden.id, 0, Infinity)).length).toBe(history.events.length);
});

test('all readings leave as CSV and come back to the same record', async () => {
  await saveGarden(db, newHistory(garden), null);
  await addRecords(db, garden.id, history.readings);
  const before = await readWholeSeries(db, garden.id, 'channel-m1');
  const rows = await csvRows(db, garden);
  expect(rows.length).toBe([...history.readings.values()].reduce((sum, list) => sum + list.length, 0));
  const read = readReadingsCsv(writeReadingsCsv(rows), csvChannels(garden));
  if (!read.ok) throw new Error(read.issue.kind);
  await addRecords(db, garden.id, read.value);
  expect(await readWholeSeries(db, garden.id, 'channel-m1')).toEqual(before);
});

test('a row of the export carries the percent of today’s calibration, and none where there is none', async () => {
  await addRecords(
    db,
    garden.id,
    new Map([
      ['channel-c2', [{ timeMs: NOW, raw: 2039, flags: 0 }]],
      ['channel-s1', [{ timeMs: NOW, raw: 500, flags: 0 }]],
    ]),
  );
  expect(await csvRows(db, garden)).toMatchObject([
    { plot: 'Chilli crate', probe: 'C2', raw: 2039, percent: 50, percentKind: 'span' },
    { plot: 'Strawberry gutter', probe: 'S1', raw: 500, percent: null },
  ]);
});

test.each([
  ['The Marigold Hare', 'the-marigold-hare'],
  ['  Kräuter & Co.  ', 'krauter-co'],
  ['???', 'garden'],
])('%j makes the file name %s', (title, name) => {
  expect(fileNameOf(title)).toBe(name);
});
