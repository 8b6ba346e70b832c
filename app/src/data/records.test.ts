import 'fake-indexeddb/auto';
import { QueryClient, type QueryKey } from '@tanstack/react-query';
import { beforeEach, expect, test } from 'vitest';
import { DAY_MS } from '@plain-trowel/core/records/series';
import { eventsQuery, latestQuery, seriesQuery, waterQuery } from './queries.ts';
import { readerOf, recordsWritten } from './records.ts';
import { addRecords } from './recordStore.ts';
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
