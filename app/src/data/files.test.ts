import 'fake-indexeddb/auto';
import { SeriesReader } from '@plain-trowel/core/records/seriesReader';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { beforeEach, describe, expect, test } from 'vitest';
import { change, newHistory, undo } from '@plain-trowel/core/garden/document/history';
import { readReadingsCsv } from '@plain-trowel/core/records/readingsCsv';
import { READINGS_HEADER } from '@plain-trowel/core/records/readingsCsvOut';
import { DAY_MS, dayOf, readingsOfDay } from '@plain-trowel/core/records/series';
import { marigoldHare, sampleHistory } from '@plain-trowel/standins/sample/marigoldHare';
import { openDb, type Db } from './db.ts';
import { fileNameOf } from './download.ts';
import { csvChannels, readingsFile } from './exportReadings.ts';
import { deleteGarden, loadGarden, saveGarden } from './gardenStore.ts';
import { importGarden } from './importGarden.ts';
import { storeNewGarden } from './newGarden.ts';
import { keepPhoto, readPhoto } from './photos.ts';
import { isZip, readBackup } from './readBackup.ts';
import {
  countReadings,
  importRecords,
  previewImport,
  removeRecords,
  stepBack,
  stepForward,
} from './recordsImport.ts';
import { identified, type GardenEvent } from '@plain-trowel/core/records/event';
import { named } from './eventIds.ts';
import { readAside } from './aside.ts';
import { addRecords, dayStore, readEvents } from './recordStore.ts';
import type { PageState } from './wholeRecord.ts';
import { writeBackup } from './writeBackup.ts';
import { readLinkFile } from './linkStore.ts';

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

const readerIn = (of: Db, gardenId: string) =>
  new SeriesReader(dayStore(() => Promise.resolve(of), gardenId));
const wholeSeries = (of: Db, gardenId: string, channelId: string) =>
  readerIn(of, gardenId).read({ channelId, fromMs: -Infinity, toMs: Infinity, withBeside: true });
const allEvents = async (of = db) => (await readEvents(of, garden.id, 0, Infinity, 1e6)).events;

const presentOf = async () => {
  const loaded = await loadGarden(db, garden.id);
  if (loaded.kind !== 'found') throw new Error(loaded.kind);
  return loaded.stored;
};

test('a garden that is not here yet is new; one that is here is replaced as a step that can be undone', async () => {
  expect((await importGarden(db, garden)).outcome).toBe('new');
  expect((await importGarden(db, { ...garden, name: 'From the file' })).outcome).toBe('replaced');
  const { history: steps } = await presentOf();
  expect(steps.present.name).toBe('From the file');
  expect(undo(steps).present).toEqual(garden);
});

test('a garden that storage damaged can be replaced by its file, and is kept aside', async () => {
  const doc = { format: 'plain-trowel-garden' };
  await db.put('gardens', { id: garden.id, revision: 4, doc });
  expect((await importGarden(db, garden)).outcome).toBe('new');
  expect((await presentOf()).history.present).toEqual(garden);
  expect(await readAside(db, garden.id)).toMatchObject([{ what: 'garden', record: doc }]);
});

test('a new garden is stored with its whole past, and never over one that is there', async () => {
  await storeNewGarden(db, garden, past);
  expect((await wholeSeries(db, garden.id, 'channel-c2')).raw.length).toBe(
    history.readings.get('channel-c2')?.length,
  );
  expect((await allEvents()).length).toBe(history.events.length);
  await expect(storeNewGarden(db, { ...garden, name: 'Usurper' }, past)).rejects.toThrow();
  expect((await presentOf()).history.present.name).toBe('The Marigold Hare');
  expect((await allEvents()).length).toBe(history.events.length);
});

/** All readings as a CSV file's text. */
const NOTHING_WAITS = { readings: new Map(), events: [] };
const csvFile = (of = db) => readingsFile(of, { garden, waiting: NOTHING_WAITS }, READINGS_HEADER);
const csv = async (of = db) => (await (await csvFile(of)).file?.text()) ?? '';
const readCsv = (text: string) => {
  const read = readReadingsCsv(text, csvChannels(garden));
  if (!read.ok) throw new Error(read.issue.kind);
  return read.value;
};

test('all readings leave as CSV, and the same file again brings nothing new', async () => {
  await storeNewGarden(db, garden, past);
  const before = await wholeSeries(db, garden.id, 'channel-m1');
  const text = await csv();
  const total = [...history.readings.values()].reduce((sum, list) => sum + list.length, 0);
  expect(text.trim().split('\r\n')).toHaveLength(total + 1);
  const readings = readCsv(text);
  expect(await previewImport(db, garden.id, readings)).toMatchObject({
    fresh: 0,
    same: total,
    clashes: 0,
    inside: 0,
  });
  await importRecords(db, await presentOf(), 'take in', { ...IMPORT, readings });
  expect(await wholeSeries(db, garden.id, 'channel-m1')).toEqual(before);
});

const IMPORT = { events: [], onClash: 'keep', garden, what: 'x.csv', nowMs: NOW } as const;

test('events of two machines that happen to have one name are both kept, and the same file again brings none', async () => {
  await saveGarden(db, newHistory(garden), null);
  // Records of the first versions are known by a number of their own browser.
  const say = (text: string) =>
    ({ kind: 'note', atMs: NOW, plotId: null, simulated: false, text }) as unknown as GardenEvent;
  await db.add('events', { gardenId: garden.id, atMs: NOW, event: say('here') });
  const there = (text: string, id: string) => identified(say(text), id, 'person');
  const file = [there('there', 'old 1'), there('here', 'old 7')];
  const { freshEvents } = await previewImport(db, garden.id, new Map(), file);
  expect(freshEvents).toMatchObject([{ text: 'there' }]);
  await importRecords(db, await presentOf(), 'take in', {
    ...IMPORT,
    readings: new Map(),
    events: freshEvents,
  });
  const texts = (await allEvents()).flatMap((one) => (one.kind === 'note' ? [one.text] : []));
  expect(texts.sort()).toEqual(['here', 'there']);
  expect(await previewImport(db, garden.id, new Map(), file)).toMatchObject({
    freshEvents: [],
    sameEvents: 2,
  });
});

test('a row of the export carries the percent of today’s calibration, and none where there is none', async () => {
  await saveGarden(db, newHistory(garden), null);
  await addRecords(
    db,
    garden.id,
    new Map([
      ['channel-c2', [{ timeMs: NOW, raw: 2039, flags: 0 }]],
      ['channel-s1', [{ timeMs: NOW, raw: 500, flags: 0 }]],
    ]),
  );
  const rows = (await csv()).trim().split('\r\n').slice(1);
  expect(rows).toContain('2026-05-01T12:00:00.000Z,Chilli crate,C2,channel-c2,2039,50.0,span,');
  expect(rows).toContain('2026-05-01T12:00:00.000Z,Strawberry gutter,S1,channel-s1,500,,,');
});

test('an export without a reading is no file', async () => {
  await saveGarden(db, newHistory(garden), null);
  expect(await csvFile()).toEqual({ file: null, damagedDays: 0 });
});

describe('a file that says something else than the record', () => {
  const reading = (timeMs: number, raw: number) => ({ timeMs, raw, flags: 2 });
  const readings = new Map([
    ['channel-c2', [reading(NOW, 9), reading(NOW + 1, 5), reading(NOW + 1, 6), reading(NOW + 2, 7)]],
  ]);
  const rows = async () => {
    const { timesMs, raw, flags } = await wholeSeries(db, garden.id, 'channel-c2');
    return [...timesMs].map((timeMs, at) => [timeMs - NOW, raw[at], flags[at]]);
  };
  beforeEach(async () => {
    await saveGarden(db, newHistory(garden), null);
    await addRecords(db, garden.id, new Map([['channel-c2', [{ timeMs: NOW, raw: 1, flags: 0 }]]]));
  });

  test('is counted and shown before anything is written', async () => {
    expect(await previewImport(db, garden.id, readings)).toMatchObject({
      fresh: 2,
      same: 0,
      clashes: 1,
      firstClashes: [{ channelId: 'channel-c2', timeMs: NOW, recorded: 1, given: 9 }],
      inside: 1,
      firstInside: [{ timeMs: NOW + 1, recorded: 5, given: 6 }],
    });
    expect(await rows()).toEqual([[0, 1, 0]]);
  });

  test.each([
    [
      'keep',
      [
        [0, 1, 0],
        [1, 5, 2],
        [2, 7, 2],
      ],
    ],
    [
      'beside',
      [
        [0, 1, 0],
        [0, 9, 6],
        [1, 5, 2],
        [1, 6, 6],
        [2, 7, 2],
      ],
    ],
  ] as const)('taken in with "%s" is one step: undone and redone without a trace', async (onClash, after) => {
    const { stored } = await importRecords(db, await presentOf(), 'take in', {
      ...IMPORT,
      readings,
      onClash,
    });
    expect(await rows()).toEqual(after);
    expect((await allEvents()).map((one) => one.kind)).toEqual(['imported']);
    const back = await stepBack(db, stored);
    expect(await rows()).toEqual([[0, 1, 0]]);
    expect(await allEvents()).toEqual([]);
    const forward = await stepForward(db, back);
    expect(await rows()).toEqual(after);
    expect(await allEvents()).toHaveLength(1);
    expect(await presentOf()).toMatchObject({ revision: forward.revision });
  });

  test('what came after it stays when it is undone', async () => {
    const { stored } = await importRecords(db, await presentOf(), 'take in', { ...IMPORT, readings });
    await addRecords(db, garden.id, new Map([['channel-c2', [{ timeMs: NOW + 3, raw: 8, flags: 0 }]]]));
    await stepBack(db, stored);
    expect(await rows()).toEqual([
      [0, 1, 0],
      [3, 8, 0],
    ]);
  });

  test('a step that can no longer be undone keeps no second copy', async () => {
    let { stored } = await importRecords(db, await presentOf(), 'take in', { ...IMPORT, readings });
    expect(await db.count('imports')).toBe(1);
    for (let step = 0; step < 50; step += 1)
      stored = await saveGarden(
        db,
        change(stored.history, { ...stored.history.present, note: String(step) }, 'note'),
        stored.revision,
      );
    expect(await db.count('imports')).toBe(0);
    expect(await rows()).toHaveLength(3);
  });
});

describe('a backup', () => {
  const written = async (of: Db | null = db, waiting: PageState['waiting'] = NOTHING_WAITS) =>
    new Uint8Array(await (await writeBackup(of, { garden, waiting }, NOW)).zip.arrayBuffer());
  const opened = (bytes: Uint8Array) => {
    const read = readBackup(bytes);
    if (!read.ok) throw new Error(JSON.stringify(read.issue));
    return read.value;
  };

  test('holds everything: into an empty browser it brings the same garden, readings, events and boards', async () => {
    await storeNewGarden(db, garden, past);
    // Readings whose plot was removed are kept, and are part of it.
    await addRecords(db, garden.id, new Map([['channel-old', [{ timeMs: NOW, raw: 3, flags: 0 }]]]));
    await addRecords(db, garden.id, new Map([['channel-c2', [{ timeMs: NOW, raw: 2, flags: 0 }]]]));
    await addRecords(db, garden.id, new Map([['channel-c2', [{ timeMs: NOW, raw: 4, flags: 0 }]]]));
    const bytes = await written();
    expect(isZip(bytes)).toBe(true);
    const backup = opened(bytes);
    const other = await openDb(`files-${++databases}`);
    await storeNewGarden(other, backup.garden, {
      readings: backup.readings,
      events: backup.events,
      link: { ...readLinkFile(backup.boards ?? ''), openAtStart: false },
    });
    expect(await other.getAll('blocks')).toEqual(await db.getAll('blocks'));
    expect(await allEvents(other)).toEqual(await allEvents());
    expect((await loadGarden(other, garden.id)).kind).toBe('found');
    expect(JSON.stringify((await other.get('links', garden.id))?.world)).toContain('"pots"');
    // The same backup again brings nothing.
    expect(await previewImport(other, garden.id, backup.readings, backup.events)).toMatchObject({
      fresh: 0,
      clashes: 0,
      inside: 0,
      freshEvents: [],
    });
  });

  test('holds the photos of the log, and brings them back; what is none is counted', async () => {
    await storeNewGarden(db, garden, past);
    const jpeg = Uint8Array.from({ length: 3000 }, (_, at) => [0xff, 0xd8, 0xff][at] ?? at % 251);
    const about = (photo: string) =>
      ({ kind: 'entry', what: 'photo', photo, text: '', atMs: NOW, plotId: null, simulated: false }) as const;
    await addRecords(db, garden.id, new Map(), named([about('abcdefgh1'), about('abcdefgh2')], 'person'));
    await keepPhoto(db, garden.id, 'abcdefgh1', jpeg);
    // One whose entry was never written does not leave this browser.
    await keepPhoto(db, garden.id, 'abcdefgh9', jpeg);
    await keepPhoto(db, garden.id, 'abcdefgh2', new Uint8Array(3000));
    const bytes = await written();
    const backup = opened(bytes);
    expect([...backup.photos]).toEqual([['abcdefgh1', jpeg]]);
    const other = await openDb(`files-${++databases}`);
    const { readings, events, photos } = backup;
    await storeNewGarden(other, backup.garden, { ...past, readings, events, photos });
    expect(await readPhoto(other, garden.id, 'abcdefgh1')).toEqual(jpeg);
    // Into a garden that is here it comes with the step, and never over a picture that is there.
    const third = await openDb(`files-${++databases}`);
    await saveGarden(third, newHistory(garden), null);
    await keepPhoto(third, garden.id, 'abcdefgh1', jpeg.slice(0, 2000));
    const found = await loadGarden(third, garden.id);
    if (found.kind !== 'found') throw new Error(found.kind);
    const more = new Map([...photos, ['abcdefgh3', jpeg] as const]);
    await importRecords(third, found.stored, 'open a backup', { ...IMPORT, readings, photos: more });
    expect((await readPhoto(third, garden.id, 'abcdefgh1'))?.length).toBe(2000);
    expect(await readPhoto(third, garden.id, 'abcdefgh3')).toEqual(jpeg);
    const spoilt = zipSync({ ...unzipSync(bytes), 'photos/abcdefgh1.jpg': strToU8('no picture') });
    expect(opened(spoilt)).toMatchObject({ skippedPhotos: 1 });
    // A garden that goes takes its photos along.
    await deleteGarden(other, garden.id);
    expect(await other.count('photos')).toBe(0);
  });

  test('holds what waits in the page, also when storage cannot be read at all', async () => {
    const [note] = named(
      [{ kind: 'note', atMs: NOW, plotId: null, simulated: false, text: 'waits' }],
      'person',
    );
    if (!note) throw new Error('no note');
    const waiting = {
      readings: new Map([['channel-c2', [{ timeMs: NOW, raw: 5, flags: 0 }]]]),
      events: [note],
    };
    const backup = opened(await written(null, waiting));
    expect(backup.events).toEqual([note]);
    expect(backup.readings.map((day) => [day.channelId, readingsOfDay(day)])).toEqual([
      ['channel-c2', [{ timeMs: NOW, raw: 5, flags: 0 }]],
    ]);
  });

  test('what is written while it is read is in it once, in a backup and in a CSV', async () => {
    await saveGarden(db, newHistory(garden), null);
    const reading = (timeMs: number, raw: number) => ({ timeMs, raw, flags: 0 });
    const both = [reading(NOW, 2), reading(NOW + 1000, 3)];
    await addRecords(db, garden.id, new Map([['channel-c2', both]]));
    // The page gave these away before: two are on disk by now, of which one moment had another value; one is new.
    const list = [...both, reading(NOW + 1000, 4), reading(NOW + 2000, 3)];
    const page = { garden, waiting: { readings: new Map([['channel-c2', list]]), events: [] } };
    expect((await writeBackup(db, page, NOW)).content.readings).toBe(4);
    const { file } = await readingsFile(db, page, READINGS_HEADER);
    const rows = ((await file?.text()) ?? '').trim().split('\r\n').slice(1);
    expect(rows.map((row) => row.split(',')[4])).toEqual(['2', '3', '4', '3']);
  });

  test('what cannot be read is counted, in a backup and in a CSV; the rest is in them', async () => {
    await saveGarden(db, newHistory(garden), null);
    const put = (timeMs: number) =>
      addRecords(db, garden.id, new Map([['channel-c2', [{ timeMs, raw: 2, flags: 0 }]]]));
    await put(NOW);
    await put(NOW + DAY_MS);
    const day = await db.get('blocks', [garden.id, 'channel-c2', dayOf(NOW)]);
    await db.put('blocks', { ...day, rows: 3 } as never);
    const about = {
      kind: 'entry',
      what: 'photo',
      photo: 'abcdefgh1',
      text: '',
      atMs: NOW,
      plotId: null,
      simulated: false,
    } as const;
    await addRecords(db, garden.id, new Map(), named([about, { ...about, atMs: NOW + 1 }], 'person'));
    const [event] = await db.getAll('events');
    const [key] = await db.getAllKeys('events');
    await db.put('events', { ...event, event: { kind: 'nothing known' } } as never, key);
    const { content } = await writeBackup(db, { garden, waiting: NOTHING_WAITS }, NOW);
    expect(content).toEqual({
      readings: 1,
      events: 1,
      photos: 0,
      leftOut: { days: 1, events: 1, photos: 1 },
    });
    const { file, damagedDays } = await csvFile();
    expect([damagedDays, (await file?.text())?.split('\r\n').length]).toEqual([1, 3]);
  });

  test('cut off, of another kind or newer is refused', async () => {
    const bytes = await written();
    expect(readBackup(bytes.slice(0, bytes.length - 40))).toMatchObject({ issue: { kind: 'not-a-zip' } });
    expect(readBackup(zipSync({ 'a.txt': strToU8('x') }))).toMatchObject({ issue: { kind: 'not-a-backup' } });
    const about = '{"format":"plain-trowel-backup","version":9,"madeAt":"2026-05-01T00:00:00Z"}';
    expect(readBackup(zipSync({ 'about.json': strToU8(about) }))).toMatchObject({
      issue: { kind: 'newer', version: 9 },
    });
    expect(readBackup(zipSync({ 'about.json': strToU8(about.replace('9', '1')) }))).toMatchObject({
      issue: { kind: 'garden' },
    });
  });
});

test.each([
  ['The Marigold Hare', 'the-marigold-hare'],
  ['  Kräuter & Co.  ', 'krauter-co'],
  ['???', 'garden'],
])('%j makes the file name %s', (title, name) => {
  expect(fileNameOf(title)).toBe(name);
});

test('a span is deleted on purpose, of the channels that were chosen alone; undone, every reading is back as it was', async () => {
  await storeNewGarden(db, garden, past);
  const whole = () => Promise.all(['channel-c2', 'channel-m1'].map((id) => wholeSeries(db, garden.id, id)));
  const before = await whole();
  const times = before[0]?.timesMs ?? new Float64Array();
  const [fromMs = 0, toMs = 0] = [times[100], times[200]];
  const span = { channelIds: ['channel-c2'], fromMs, toMs };
  const inside = times.filter((ms) => ms >= fromMs && ms <= toMs).length;
  expect(inside).toBe(101);
  expect(await countReadings(db, garden.id, span)).toBe(inside);
  const gone = await removeRecords(db, await presentOf(), 'delete', { ...span, what: 'C2', nowMs: NOW });
  expect(gone.removed).toBe(inside);
  const [c2, m1] = await whole();
  expect([...(c2?.timesMs ?? [])]).toEqual([...times].filter((ms) => ms < fromMs || ms > toMs));
  expect(m1).toEqual(before[1]);
  expect((await allEvents()).filter(({ kind }) => kind === 'removed')).toMatchObject([{ readings: inside }]);
  const back = await stepBack(db, gone.stored);
  expect(await whole()).toEqual(before);
  expect((await allEvents()).filter(({ kind }) => kind === 'removed')).toEqual([]);
  await stepForward(db, back);
  expect((await whole())[0]?.raw).toHaveLength(times.length - inside);
  expect((await allEvents()).filter(({ kind }) => kind === 'removed')).toHaveLength(1);
});

test('a deletion that fails half way leaves every reading', async () => {
  await storeNewGarden(db, garden, past);
  const before = await wholeSeries(db, garden.id, 'channel-c2');
  const stored = await presentOf();
  const old = { ...stored, revision: stored.revision + 7 };
  const all = { channelIds: ['channel-c2'], fromMs: 0, toMs: NOW, what: 'C2', nowMs: NOW };
  await expect(removeRecords(db, old, 'delete', all)).rejects.toThrow();
  expect(await wholeSeries(db, garden.id, 'channel-c2')).toEqual(before);
});
