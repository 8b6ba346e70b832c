import 'fake-indexeddb/auto';
import { expect, test } from 'vitest';
import { readDay } from '@plain-trowel/core/records/packDay';
import { DAY_MS, type Reading } from '@plain-trowel/core/records/series';
import { thinDay, unpackThin } from '@plain-trowel/core/records/thinDay';
import { openDb, type Db } from './db.ts';
import { addRecords, readEvents } from './recordStore.ts';
import { thinningOf, thinOut } from './thinOut.ts';

const DAY0 = Date.UTC(2025, 4, 1);
const NOW = Date.UTC(2026, 10, 1);
let databases = 0;

/** Two channels of forty days, a reading a minute. */
async function opened(): Promise<Db> {
  const db = await openDb(`thin-out-${++databases}`);
  await db.put('gardens', { id: 'g', revision: 1, doc: {} });
  await addRecords(
    db,
    'g',
    new Map([
      ['a', minutes(40)],
      ['b', minutes(40)],
    ]),
  );
  return db;
}
const minutes = (days: number): Reading[] =>
  Array.from({ length: days * 1440 }, (_, at) => ({
    timeMs: DAY0 + at * 60_000,
    raw: 1500 + ((at * 7919) % 1000),
    flags: 0,
  }));
const days = async (db: Db) =>
  (await db.getAll('blocks')).flatMap((stored) => {
    const block = readDay(stored);
    return block ? [block] : [];
  });
const of = { toMs: DAY0 + 30 * DAY_MS, what: 'all channels, thinned out', nowMs: NOW };

test('days that end by the moment keep what tells, later ones keep all; thinned forms go with them, and the log tells how many went', async () => {
  const db = await opened();
  const before = await days(db);
  const told = await thinningOf(db, 'g', of.toMs);
  const progress: number[] = [];
  const removed = await thinOut(db, 'g', of, (done) => progress.push(done));
  const after = await days(db);
  for (const [at, block] of after.entries()) {
    const old = before[at];
    if (!old) throw new Error('a day is missing');
    const recorded = new Map([...old.offsetsMs].map((offset, row) => [offset, old.raw[row]]));
    expect([...block.offsetsMs].map((offset) => recorded.get(offset))).toEqual([...block.raw]);
    expect(block.raw.length).toBe(block.dayMs < of.toMs ? thinDay(old).block.raw.length : 1440);
  }
  const left = after.reduce((sum, { raw }) => sum + raw.length, 0);
  expect(removed).toBe(2 * 40 * 1440 - left);
  expect(told).toMatchObject({ readings: 2 * 30 * 1440, left: 2 * 30 * 1440 - removed });
  expect((await db.getAll('thins')).map((one) => unpackThin(one))).toEqual(
    after.map((block) => thinDay(block)),
  );
  expect(progress).toEqual([31, 60]);
  const { events } = await readEvents(db, 'g', 0, NOW);
  expect(events).toHaveLength(1);
  expect(events[0]).toMatchObject({ kind: 'removed', readings: removed, what: of.what });
});

test('a second time nothing goes, and nothing is written down', async () => {
  const db = await opened();
  await thinOut(db, 'g', of);
  expect(await thinOut(db, 'g', { ...of, nowMs: NOW + 1 })).toBe(0);
  expect((await readEvents(db, 'g', 0, NOW + 1)).events).toHaveLength(1);
});

test('ended half way, what was done is told, and the rest is as it was', async () => {
  const db = await opened();
  const stop = new Error('the page was closed');
  await expect(
    thinOut(db, 'g', of, () => {
      throw stop;
    }),
  ).rejects.toBe(stop);
  const left = (await days(db)).reduce((sum, { raw }) => sum + raw.length, 0);
  const { events } = await readEvents(db, 'g', 0, NOW);
  expect(events).toHaveLength(1);
  expect(events[0]).toMatchObject({ readings: 2 * 40 * 1440 - left });
  // A month of them is done, the others have every minute.
  expect((await days(db)).filter(({ raw }) => raw.length === 1440)).toHaveLength(80 - 31);
});

test('a day that cannot be read stays as it is', async () => {
  const db = await opened();
  const damaged = {
    gardenId: 'g',
    channelId: 'a',
    dayMs: DAY0,
    offsetsMs: new Uint32Array(2),
    raw: new Float64Array(3),
    flags: new Uint8Array(2),
  };
  await db.put('blocks', damaged);
  await thinOut(db, 'g', of);
  expect(await db.get('blocks', ['g', 'a', DAY0])).toEqual(damaged);
});

test('of a garden that is gone nothing is thinned', async () => {
  const db = await opened();
  await db.delete('gardens', 'g');
  await expect(thinOut(db, 'g', of)).rejects.toMatchObject({ problem: 'gone' });
});
