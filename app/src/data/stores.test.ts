import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, test } from 'vitest';
import { change, newHistory } from '@plain-trowel/core/garden/history';
import { setLimits } from '@plain-trowel/core/garden/edit';
import type { GardenEvent } from '@plain-trowel/core/records/event';
import { marigoldHare, sampleHistory } from '@plain-trowel/standins/sample/marigoldHare';
import { openDb, type Db } from './db.ts';
import { ConflictError, deleteGarden, listGardens, loadGarden, saveGarden } from './gardenStore.ts';
import { loadLink, saveLink } from './linkStore.ts';
import { addRecords, latestReadings, readEvents, readSeries, readWholeSeries } from './recordStore.ts';

const T0 = Date.UTC(2026, 4, 1, 23, 59, 50);
const garden = marigoldHare(T0);
const note = (atMs: number, text: string): GardenEvent => ({
  kind: 'note',
  atMs,
  plotId: null,
  simulated: false,
  text,
});

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
      [note(T0, 'lost')],
    );
    await expect(late).rejects.toBeInstanceOf(ConflictError);
    expect(await loadGarden(db, garden.id)).toMatchObject({
      stored: { history: { present: { name: 'Another tab' } } },
    });
    expect(await readEvents(db, garden.id, 0, Infinity)).toEqual([]);
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
    await saveGarden(db, newHistory(garden), null, [note(T0, 'gone')]);
    await addRecords(db, garden.id, readings);
    await addRecords(db, 'neighbour', readings, [note(T0, 'stays')]);
    await deleteGarden(db, garden.id);
    expect(await loadGarden(db, garden.id)).toEqual({ kind: 'missing' });
    expect((await readWholeSeries(db, garden.id, 'channel-c2')).raw).toHaveLength(0);
    expect(await readEvents(db, garden.id, 0, Infinity)).toEqual([]);
    expect((await readWholeSeries(db, 'neighbour', 'channel-c2')).raw).toHaveLength(1);
    expect(await readEvents(db, 'neighbour', 0, Infinity)).toHaveLength(1);
  });
});

describe('readings', () => {
  test('readings over midnight land in two days and come back as one series', async () => {
    const readings = [0, 10_000, 20_000].map((after) => ({
      timeMs: T0 + after,
      raw: 1500 + after / 1000,
      flags: 1,
    }));
    await addRecords(db, 'g', new Map([['c', readings]]));
    expect(await db.count('blocks')).toBe(2);
    const series = await readSeries(db, 'g', 'c', T0 + 5000, T0 + 60_000);
    expect([...series.raw]).toEqual([1510, 1520]);
    expect((await latestReadings(db, 'g', ['c', 'silent'])).get('c')).toEqual(readings[2]);
  });

  test('putting the same readings in twice changes nothing', async () => {
    const readings = new Map([['c', [{ timeMs: T0, raw: 7, flags: 0 }]]]);
    await addRecords(db, 'g', readings);
    await addRecords(db, 'g', readings);
    expect((await readWholeSeries(db, 'g', 'c')).raw).toHaveLength(1);
  });

  test('nothing of an import stays when a part of it cannot be stored', async () => {
    const bad = {
      kind: 'note',
      atMs: T0,
      plotId: null,
      simulated: false,
      text: () => 'not data',
    } as unknown as GardenEvent;
    await expect(
      addRecords(db, 'g', new Map([['c', [{ timeMs: T0, raw: 7, flags: 0 }]]]), [bad]),
    ).rejects.toThrow();
    expect((await readWholeSeries(db, 'g', 'c')).raw).toHaveLength(0);
  });

  test('a damaged day is left out', async () => {
    await addRecords(db, 'g', new Map([['c', [{ timeMs: T0, raw: 7, flags: 0 }]]]));
    const [block] = await db.getAll('blocks');
    if (block) await db.put('blocks', { ...block, raw: new Float64Array(3) });
    expect((await readWholeSeries(db, 'g', 'c')).raw).toHaveLength(0);
  });
});

test('events come newest first, within the time asked for, and odd ones are left out', async () => {
  await addRecords(db, 'g', new Map(), [note(1000, 'first'), note(3000, 'third'), note(2000, 'second')]);
  await db.add('events', { gardenId: 'g', atMs: 2500, event: { kind: 'odd' } });
  const texts = (await readEvents(db, 'g', 1500, 3000)).map((event) => event.kind === 'note' && event.text);
  expect(texts).toEqual(['third', 'second']);
});

test('the stand-in’s pots are remembered, its engines boot anew', async () => {
  const { world, alerts } = sampleHistory(garden, T0);
  await saveLink(db, garden.id, { world, openAtStart: true, alerts });
  const memory = await loadLink(db, garden.id);
  expect(memory.openAtStart).toBe(true);
  expect(memory.world?.pots.chilli).toEqual(world.pots.chilli);
  expect(memory.world?.tanks).toEqual(world.tanks);
  // Of the engines only what a board keeps: the day’s volume and the lock.
  expect(memory.world?.boards.roof?.memory).toEqual(world.boards.roof?.memory);
  expect(memory.world?.boards.roof?.engine.nowS).toBe(0);
  expect(memory.alerts).toEqual(alerts);
  expect(Object.keys(alerts)).toContain('probe-fault mint');
  expect(await loadLink(db, 'none')).toEqual({ world: null, openAtStart: false, alerts: {} });
});
