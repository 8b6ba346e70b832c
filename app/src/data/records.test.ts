import 'fake-indexeddb/auto';
import { QueryClient, type QueryKey } from '@tanstack/react-query';
import { beforeEach, expect, test } from 'vitest';
import { identified } from '@plain-trowel/core/records/event';
import { DAY_MS } from '@plain-trowel/core/records/series';
import { eventsQuery, latestQuery, seriesQuery, waterQuery } from './queries.ts';
import { readerOf, recordsWritten } from './records.ts';
import { addRecords, changeEvent, readEvents, readWater } from './recordStore.ts';
import { database } from './services.ts';

const DAY0 = Date.UTC(2026, 4, 1);
const day = (number: number) => DAY0 + number * DAY_MS;
const client = new QueryClient({ defaultOptions: { queries: { staleTime: Infinity, retry: false } } });

const QUERIES: Record<string, { readonly queryKey: QueryKey }> = {
  'a, first day': seriesQuery('g', 'a', day(0), day(1) - 1),
  'a, both days': seriesQuery('g', 'a', day(0), day(2) - 1),
  'b, both days': seriesQuery('g', 'b', day(0), day(2) - 1),
  latest: latestQuery('g', ['a', 'b']),
  events: eventsQuery('g', day(0), day(2)),
  water: waterQuery('g', day(0), day(2)),
};

const stale = () =>
  Object.entries(QUERIES)
    .filter(([, { queryKey }]) => client.getQueryState(queryKey)?.isInvalidated === true)
    .map(([name]) => name);

const put = async (timeMs: number, raw: number) =>
  addRecords(await database(), 'g', new Map([['a', [{ timeMs, raw, flags: 0 }]]]));

beforeEach(async () => {
  client.clear();
  const db = await database();
  for (const store of ['gardens', 'blocks', 'events'] as const) await db.clear(store);
  await db.put('gardens', { id: 'g', revision: 1, doc: {} });
  recordsWritten(client, 'g', null);
  for (const { queryKey } of Object.values(QUERIES)) client.setQueryData(queryKey, {});
});

test('readings make stale what shows their day and channel, and the newest of each', () => {
  recordsWritten(client, 'g', { days: new Map([['a', [day(1)]]]), events: false });
  expect(stale()).toEqual(['a, both days', 'latest']);
});

test('events make stale the events and what is summed of them', () => {
  recordsWritten(client, 'g', { days: new Map(), events: true });
  expect(stale()).toEqual(['events', 'water']);
});

test('where it may be anything, all is stale, of this garden alone', () => {
  recordsWritten(client, 'h', null);
  expect(stale()).toEqual([]);
  recordsWritten(client, 'g', null);
  expect(stale()).toEqual(Object.keys(QUERIES));
});

test('what was written is in the next read, also of a day that was read before', async () => {
  const read = async () => [
    ...(await readerOf('g').read({ channelId: 'a', fromMs: day(0), toMs: day(2) })).raw,
  ];
  await put(day(0), 1);
  expect(await read()).toEqual([1]);
  const { writtenDays } = await put(day(0) + 1000, 2);
  expect([...writtenDays]).toEqual([['a', [day(0)]]]);
  recordsWritten(client, 'g', { days: new Map([['a', [day(0)]]]), events: false });
  expect(await read()).toEqual([1, 2]);
});

test('the reader goes over to the garden that is asked for', async () => {
  const first = readerOf('g');
  expect(readerOf('g')).toBe(first);
  expect(readerOf('h')).not.toBe(first);
  expect((await readerOf('h').read({ channelId: 'a', fromMs: day(0), toMs: day(2) })).raw).toHaveLength(0);
});

const poured = (id: string, volumeMl: number) =>
  identified({ kind: 'poured', atMs: day(0) + 1000, plotId: 'p', simulated: false, volumeMl }, id, 'person');
const told = async () => {
  const db = await database();
  const { events } = await readEvents(db, 'g', day(0), day(1));
  const water = await readWater(db, 'g', day(0), day(1));
  return [events.map(({ id }) => id), water.ofPlot('p')?.value ?? 0];
};

test('an entry that is changed counts as it is now; undone it counts as before, and nothing of it leaves storage', async () => {
  const db = await database();
  await changeEvent(db, 'g', null, poured('a', 200));
  await changeEvent(db, 'g', poured('a', 200), poured('b', 250));
  expect(await told()).toEqual([['b'], 250]);
  await changeEvent(db, 'g', poured('b', 250), poured('a', 200));
  expect(await told()).toEqual([['a'], 200]);
  await changeEvent(db, 'g', poured('a', 200), null);
  expect(await told()).toEqual([[], 0]);
  await changeEvent(db, 'g', null, poured('a', 200));
  expect(await told()).toEqual([['a'], 200]);
  expect(await db.count('events')).toBe(2);
});

test('an entry that another tab has taken out cannot be changed any more, and the change is not kept either', async () => {
  const db = await database();
  await changeEvent(db, 'g', null, poured('a', 200));
  await changeEvent(db, 'g', poured('a', 200), null);
  await expect(changeEvent(db, 'g', poured('a', 200), poured('b', 250))).rejects.toThrow();
  expect(await told()).toEqual([[], 0]);
  await db.clear('gardens');
  await expect(changeEvent(db, 'g', null, poured('c', 1))).rejects.toThrow();
});
