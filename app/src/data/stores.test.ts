import 'fake-indexeddb/auto';
import { SeriesReader } from '@plain-trowel/core/records/seriesReader';
import { openDB } from 'idb';
import { beforeEach, describe, expect, test } from 'vitest';
import { change, newHistory } from '@plain-trowel/core/garden/document/history';
import { GARDEN_VERSION } from '@plain-trowel/core/garden/document/schema';
import { setLimits } from '@plain-trowel/core/garden/edits/plots';
import type { EventDraft } from '@plain-trowel/core/records/event';
import { marigoldHare, sampleHistory } from '@plain-trowel/standins/sample/marigoldHare';
import { openDb, type Db } from './db.ts';
import {
  ConflictError,
  deleteGarden,
  listGardens,
  loadGarden,
  RefusedError,
  saveGarden,
} from './gardenStore.ts';
import { loadLink, saveLink } from './linkStore.ts';
import { named } from './eventIds.ts';
import { readAside } from './aside.ts';
import { addRecords, latestReadings, dayStore, readEvents } from './recordStore.ts';
import { StorageError } from './storageProblem.ts';

const T0 = Date.UTC(2026, 4, 1, 23, 59, 50);
const garden = marigoldHare(T0);
const note = (atMs: number, text: string): EventDraft => ({
  kind: 'note',
  atMs,
  plotId: null,
  simulated: false,
  text,
});

/** Everything ever kept of a channel. */
const readerIn = (of: Db, gardenId: string) =>
  new SeriesReader(dayStore(() => Promise.resolve(of), gardenId));
const wholeSeries = (of: Db, gardenId: string, channelId: string) =>
  readerIn(of, gardenId).read({ channelId, fromMs: -Infinity, toMs: Infinity });
const eventsOf = async (of: Db, gardenId: string) => (await readEvents(of, gardenId, 0, Infinity)).events;
/** A garden that is there, for records to belong to. */
const place = (of: Db, id: string) => of.put('gardens', { id, revision: 1, doc: { ...garden, id } });

let db: Db;
let databases = 0;
beforeEach(async () => {
  db = await openDb(`test-${++databases}`);
});

describe('gardens', () => {
  test('a saved garden comes back with its undo steps', async () => {
    const edited = change(
      newHistory(garden),
      setLimits(garden, 'mint', { startTenths: 300, stopTenths: 500 }),
      'move limits',
    );
    await saveGarden(db, edited, null);
    expect(await loadGarden(db, garden.id)).toEqual({
      kind: 'found',
      stored: { history: edited, revision: 1 },
    });
    expect(await listGardens(db)).toMatchObject([{ name: 'The Marigold Hare', plots: 4 }]);
  });

  test('a change made from an old revision is refused and leaves everything as it was', async () => {
    const first = await saveGarden(db, newHistory(garden), null);
    const other = change(first.history, { ...garden, name: 'Another tab' }, 'rename');
    await saveGarden(db, other, first.revision);
    const late = saveGarden(
      db,
      change(first.history, { ...garden, name: 'Too late' }, 'rename'),
      first.revision,
      named([note(T0, 'lost')], 'person'),
    );
    await expect(late).rejects.toBeInstanceOf(ConflictError);
    expect(await loadGarden(db, garden.id)).toMatchObject({
      stored: { history: { present: { name: 'Another tab' } } },
    });
    expect(await eventsOf(db, garden.id)).toEqual([]);
  });

  test('a garden that storage damaged is told apart from one that is missing', async () => {
    await db.put('gardens', { id: 'odd', revision: 1, doc: { format: 'plain-trowel-garden', version: 99 } });
    expect(await loadGarden(db, 'odd')).toMatchObject({ kind: 'damaged', issue: { kind: 'newer-version' } });
    expect(await loadGarden(db, 'none')).toEqual({ kind: 'missing' });
    expect(await listGardens(db)).toMatchObject([{ id: 'odd', note: 'cannot be read' }]);
  });

  test('damaged undo steps are forgotten, the garden stays', async () => {
    await saveGarden(db, newHistory(garden), null);
    await db.put('histories', { id: garden.id, past: [{ label: 'x', before: 5 }], future: [] });
    expect(await loadGarden(db, garden.id)).toMatchObject({
      stored: { history: { present: garden, past: [] } },
    });
  });

  test('deleting a garden takes its records along and leaves its neighbours', async () => {
    const readings = new Map([['channel-c2', [{ timeMs: T0, raw: 5, flags: 0 }]]]);
    await saveGarden(db, newHistory(garden), null, named([note(T0, 'gone')], 'person'));
    await place(db, 'neighbour');
    await addRecords(db, garden.id, readings);
    await addRecords(db, 'neighbour', readings, named([note(T0, 'stays')], 'person'));
    await deleteGarden(db, garden.id);
    expect(await loadGarden(db, garden.id)).toEqual({ kind: 'missing' });
    expect((await wholeSeries(db, garden.id, 'channel-c2')).raw).toHaveLength(0);
    expect(await eventsOf(db, garden.id)).toEqual([]);
    expect((await wholeSeries(db, 'neighbour', 'channel-c2')).raw).toHaveLength(1);
    expect(await eventsOf(db, 'neighbour')).toHaveLength(1);
  });
});

describe('readings', () => {
  beforeEach(() => place(db, 'g'));

  test('readings over midnight land in two days and come back as one series', async () => {
    const readings = [0, 10_000, 20_000].map((after) => ({
      timeMs: T0 + after,
      raw: 1500 + after / 1000,
      flags: 1,
    }));
    await addRecords(db, 'g', new Map([['c', readings]]));
    expect(await db.count('blocks')).toBe(2);
    const series = await readerIn(db, 'g').read({
      channelId: 'c',
      fromMs: T0 + 5000,
      toMs: T0 + 60_000,
    });
    expect([...series.raw]).toEqual([1510, 1520]);
    expect((await latestReadings(db, 'g', ['c', 'silent'])).get('c')).toEqual(readings[2]);
  });

  test('putting the same readings in twice changes nothing', async () => {
    const readings = new Map([['c', [{ timeMs: T0, raw: 7, flags: 0 }]]]);
    await addRecords(db, 'g', readings);
    await addRecords(db, 'g', readings);
    expect((await wholeSeries(db, 'g', 'c')).raw).toHaveLength(1);
  });

  test('nothing of an import stays when a part of it cannot be stored', async () => {
    const bad = {
      kind: 'note',
      atMs: T0,
      plotId: null,
      simulated: false,
      text: () => 'not data',
    } as unknown as EventDraft;
    await expect(
      addRecords(db, 'g', new Map([['c', [{ timeMs: T0, raw: 7, flags: 0 }]]]), named([bad], 'person')),
    ).rejects.toThrow();
    expect((await wholeSeries(db, 'g', 'c')).raw).toHaveLength(0);
  });

  test('a recorded value is never changed: another one at its time stands beside it', async () => {
    await addRecords(db, 'g', new Map([['c', [{ timeMs: T0, raw: 7, flags: 0 }]]]));
    const outcome = await addRecords(db, 'g', new Map([['c', [{ timeMs: T0, raw: 9, flags: 0 }]]]));
    expect(outcome).toMatchObject({ added: 1, beside: 1, clashes: 1 });
    expect([...(await wholeSeries(db, 'g', 'c')).raw]).toEqual([7]);
    expect([
      ...(await readerIn(db, 'g').read({ channelId: 'c', fromMs: T0, toMs: T0, withBeside: true })).raw,
    ]).toEqual([7, 9]);
    expect((await latestReadings(db, 'g', ['c'])).get('c')?.raw).toBe(7);
  });

  test('a damaged day is told, breaks nothing, and is kept aside when new readings come', async () => {
    await addRecords(db, 'g', new Map([['c', [{ timeMs: T0, raw: 7, flags: 0 }]]]));
    const [block] = await db.getAll('blocks');
    const damaged = { ...block, rows: 3 };
    await db.put('blocks', damaged as never);
    const read = await wholeSeries(db, 'g', 'c');
    expect([read.raw.length, read.damagedDays]).toEqual([0, [block?.dayMs]]);
    expect((await latestReadings(db, 'g', ['c'])).size).toBe(0);
    const outcome = await addRecords(db, 'g', new Map([['c', [{ timeMs: T0 + 5, raw: 8, flags: 0 }]]]));
    expect(outcome.damagedDays).toBe(1);
    expect([...(await wholeSeries(db, 'g', 'c')).raw]).toEqual([8]);
    expect(await readAside(db, 'g')).toMatchObject([{ what: 'day', name: 'c 2026-05-01', record: damaged }]);
  });

  test('records of a garden that is gone from storage wait, they are not written into nothing', async () => {
    const lost = addRecords(db, 'nobody', new Map([['c', [{ timeMs: T0, raw: 7, flags: 0 }]]]));
    await expect(lost).rejects.toEqual(new StorageError('gone'));
    expect(await db.count('blocks')).toBe(0);
  });

  test('the same events a second time, by their names, are kept once', async () => {
    const events = named([note(T0, 'once'), note(T0, 'once')], 'person');
    await addRecords(db, 'g', new Map(), events);
    await addRecords(db, 'g', new Map(), events);
    expect(await eventsOf(db, 'g')).toHaveLength(2);
  });

  test('another event under a name that is taken stands beside it: nothing that was recorded is written over', async () => {
    // A stand-in that was killed may boot at the same moment again and count its events from zero.
    const twice = (text: string) => named([{ ...note(T0, text), id: 'roof 5 0' }], 'board');
    await addRecords(db, 'g', new Map(), twice('first'));
    await addRecords(db, 'g', new Map(), twice('second'));
    // What is tried a second time is still kept once.
    await addRecords(db, 'g', new Map(), twice('second'));
    const kept = await eventsOf(db, 'g');
    expect(kept.map((one) => one.kind === 'note' && one.text).sort()).toEqual(['first', 'second']);
    expect(new Set(kept.map((one) => one.id)).size).toBe(2);
  });
});

describe('the gate', () => {
  const wrong = { ...garden, logEveryS: 0 };

  test('a document that could not be opened again is not written, nor anything with it', async () => {
    const stored = await saveGarden(db, newHistory(garden), null);
    const refused = saveGarden(
      db,
      change(stored.history, wrong, 'log faster'),
      stored.revision,
      named([note(T0, 'lost')], 'person'),
    );
    await expect(refused).rejects.toBeInstanceOf(RefusedError);
    await expect(refused).rejects.toMatchObject({ faults: [{ field: 'logEveryS' }] });
    expect(await loadGarden(db, garden.id)).toMatchObject({ stored: { revision: 1, history: { past: [] } } });
    expect(await eventsOf(db, garden.id)).toEqual([]);
  });

  test('a garden that is gone is told apart from one that another tab has changed', async () => {
    const stored = await saveGarden(db, newHistory(garden), null);
    await deleteGarden(db, garden.id);
    const late = saveGarden(
      db,
      change(stored.history, { ...garden, name: 'Late' }, 'rename'),
      stored.revision,
    );
    await expect(late).rejects.toEqual(new StorageError('gone'));
    // Put back from the page, with its steps.
    await saveGarden(db, stored.history, null);
    expect((await loadGarden(db, garden.id)).kind).toBe('found');
  });

  test('of a document that storage damaged the last good one is offered, then the steps before it', async () => {
    const first = await saveGarden(db, newHistory(garden), null);
    const renamed = change(first.history, { ...garden, name: 'Second' }, 'rename');
    await saveGarden(db, renamed, first.revision);
    await db.put('gardens', { id: garden.id, revision: 2, doc: wrong });
    expect(await loadGarden(db, garden.id)).toMatchObject({
      kind: 'damaged',
      issue: { kind: 'field', fault: { field: 'logEveryS' } },
      lastGood: { garden: { name: 'Second' }, revision: 2 },
    });
    await db.clear('copies');
    // A step that puts right what is damaged leads to a good document; one that does not, does not.
    const wentWrong = change(newHistory(garden), wrong, 'log faster');
    await db.put('histories', { id: garden.id, version: GARDEN_VERSION, past: wentWrong.past, future: [] });
    expect(await loadGarden(db, garden.id)).toMatchObject({ lastGood: { garden: { name: garden.name } } });
    await db.clear('histories');
    expect(await loadGarden(db, garden.id)).toMatchObject({ kind: 'damaged', lastGood: null });
  });
});

test('storage of the first layout is brought up and keeps everything', async () => {
  const name = `old-${++databases}`;
  const old = await openDB(name, 1, {
    upgrade(raw) {
      raw.createObjectStore('gardens', { keyPath: 'id' });
      raw.createObjectStore('histories', { keyPath: 'id' });
      raw.createObjectStore('blocks', { keyPath: ['gardenId', 'channelId', 'dayMs'] });
      raw
        .createObjectStore('events', { autoIncrement: true })
        .createIndex('by-garden-time', ['gardenId', 'atMs']);
      raw.createObjectStore('links', { keyPath: 'id' });
    },
  });
  await old.put('gardens', { id: garden.id, revision: 3, doc: garden });
  await old.add('events', { gardenId: garden.id, atMs: T0, event: note(T0, 'old') });
  old.close();
  const now = await openDb(name);
  expect(await loadGarden(now, garden.id)).toMatchObject({ kind: 'found', stored: { revision: 3 } });
  expect(await eventsOf(now, garden.id)).toMatchObject([
    { ...note(T0, 'old'), id: 'old 1', lineId: null, author: 'person' },
  ]);
  await addRecords(now, garden.id, new Map(), named([note(T0 + 1, 'new')], 'person'));
  expect(await eventsOf(now, garden.id)).toHaveLength(2);
});

test('thinned days of the fourth layout are let go, to be made again from their days', async () => {
  const name = `old-${++databases}`;
  const old = await openDB(name, 4, {
    upgrade(raw) {
      for (const store of ['blocks', 'thins'])
        raw.createObjectStore(store, { keyPath: ['gardenId', 'channelId', 'dayMs'] });
    },
  });
  const day = { gardenId: 'g', channelId: 'c', dayMs: T0 };
  for (const store of ['blocks', 'thins']) await old.put(store, day);
  old.close();
  const now = await openDb(name);
  expect([await now.count('blocks'), await now.count('thins')]).toEqual([1, 0]);
});

test('events come newest first, within the time asked for, and odd ones are counted', async () => {
  await place(db, 'g');
  const at = (seconds: number) => T0 + seconds * 1000;
  await addRecords(
    db,
    'g',
    new Map(),
    named([note(at(1), 'first'), note(at(3), 'third'), note(at(2), 'second')], 'person'),
  );
  await db.add('events', { gardenId: 'g', atMs: at(2.5), event: { kind: 'odd' } });
  const { events, unreadable } = await readEvents(db, 'g', at(1.5), at(3));
  expect(events.map((event) => event.kind === 'note' && event.text)).toEqual(['third', 'second']);
  expect(unreadable).toBe(1);
});

test('the stand-in’s pots are remembered, its engines boot again', async () => {
  const { world: made, alerts } = sampleHistory(garden, T0);
  const { roof } = made.boards;
  if (!roof) throw new Error('no roof');
  const skips = { 'line-roof': T0 + 86_400_000 };
  const world = { ...made, boards: { ...made.boards, roof: { ...roof, skips } } };
  await saveLink(db, garden.id, { world, openAtStart: true, alerts });
  const memory = await loadLink(db, garden.id);
  expect(memory.openAtStart).toBe(true);
  expect(memory.world?.pots.chilli).toEqual(world.pots.chilli);
  expect(memory.world?.tanks).toEqual(world.tanks);
  // Of the engines only what a board keeps: the day’s volume and the lock.
  expect(memory.world?.boards.roof?.memory).toEqual(world.boards.roof.memory);
  // And what a person has told it to skip.
  expect(memory.world?.boards.roof?.skips).toEqual(skips);
  expect(memory.world?.boards.roof?.state.nowS).toBe(0);
  expect(memory.alerts).toEqual(alerts);
  expect(Object.keys(alerts)).toContain('probe-fault mint');
  expect(await loadLink(db, 'none')).toEqual({
    world: null,
    openAtStart: false,
    alerts: {},
    putAside: [],
  });
});

test('what the boards remembered and cannot be read is kept aside before anything is written in its place', async () => {
  const world = { pots: 'odd' };
  await db.put('links', { id: garden.id, world, openAtStart: true, alerts: [7] });
  expect(await loadLink(db, garden.id)).toEqual({
    world: null,
    openAtStart: true,
    alerts: {},
    putAside: ['stand-in', 'alerts'],
  });
  expect(await readAside(db, garden.id)).toMatchObject([
    { what: 'stand-in', record: world },
    { what: 'alerts', record: [7] },
  ]);
  // Told once: the next visit begins with what is sound.
  expect((await loadLink(db, garden.id)).putAside).toEqual([]);
});
