import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { newGateway, served } from '../gatewayForTests.ts';
import { NOON, report } from '../mailbox/mailboxForTests.ts';
import type { Gateway } from '../gateway.ts';

let gateway: Gateway;
let site: Awaited<ReturnType<typeof served>>;

beforeEach(async () => {
  gateway = newGateway(() => NOON);
  site = await served(gateway);
});
afterEach(() => site.close());

type Told = { readonly event: string; readonly id: number | null; readonly data: Record<string, unknown> };

/** Listens as an app does until so many things were told. */
async function listen(path: string, until: (told: readonly Told[]) => boolean): Promise<Told[]> {
  const stop = new AbortController();
  const response = await fetch(`${site.address}${path}`, { signal: stop.signal });
  const told: Told[] = [];
  let text = '';
  for await (const part of response.body ?? []) {
    text += Buffer.from(part as Uint8Array).toString();
    const blocks = text.split('\n\n');
    text = blocks.pop() ?? '';
    for (const block of blocks) {
      const field = (name: string) => new RegExp(`^${name}: (.*)$`, 'm').exec(block)?.[1];
      const id = field('id');
      if (field('event') && field('event') !== 'hello')
        told.push({
          event: field('event') ?? '',
          id: id === undefined ? null : Number(id),
          data: JSON.parse(field('data') ?? '{}') as Record<string, unknown>,
        });
    }
    if (until(told)) break;
  }
  stop.abort();
  return told;
}
const hasCaughtUp = (told: readonly Told[]) => told.some(({ event }) => event === 'caught-up');

describe('an app that looks again after a while', () => {
  test('gets everything since its cursor, in turn, and is told when it has caught up', async () => {
    for (let seq = 0; seq < 950; seq += 1) void gateway.mailbox.put('hare', report(seq), NOON);
    await gateway.mailbox.put('boat', report(0), NOON);
    await gateway.mailbox.put('hare', report(950), NOON);
    await gateway.mailbox.fetched('hare', 'laptop', { n: 100, name: 'Laptop' }, NOON);
    const told = await listen('/api/gardens/hare/feed?app=laptop', hasCaughtUp);
    expect(told.slice(0, -1).map(({ id }) => id)).toEqual(Array.from({ length: 851 }, (_, at) => at + 101));
    expect(told[0]?.data).toMatchObject({ n: 101, seq: 100, boardId: 'roof' });
    expect(told.at(-1)).toMatchObject({ event: 'caught-up', data: { n: 951 } });
  });
  test('then hears what is reported as it is reported, and nothing twice', async () => {
    await gateway.mailbox.put('hare', report(0), NOON);
    let began = 0;
    const told = await listen('/api/gardens/hare/feed?app=laptop', (heard) => {
      if (hasCaughtUp(heard) && began === 0) {
        began = performance.now();
        void gateway.mailbox.put('hare', report(1), NOON);
        void gateway.mailbox.put('boat', report(1), NOON);
        void gateway.mailbox.put('hare', report(2), NOON);
      }
      return heard.length === 4;
    });
    expect(performance.now() - began).toBeLessThan(1000);
    expect(told.map(({ event, id }) => [event, id])).toEqual([
      ['entry', 1],
      ['caught-up', null],
      ['entry', 2],
      ['entry', 3],
    ]);
  });
  test('also when entries are reported while it catches up', async () => {
    for (let seq = 0; seq < 600; seq += 1) void gateway.mailbox.put('hare', report(seq), NOON);
    await gateway.mailbox.put('hare', report(600), NOON);
    let next = 601;
    const told = await listen('/api/gardens/hare/feed?app=laptop', (heard) => {
      if (next < 700) void gateway.mailbox.put('hare', report(next++), NOON);
      return hasCaughtUp(heard);
    });
    const ids = told.flatMap(({ id }) => (id === null ? [] : [id]));
    expect(ids).toEqual(Array.from({ length: ids.length }, (_, at) => at + 1));
    expect(ids.length).toBeGreaterThanOrEqual(601);
  });
  test('hears of orders and what became of them', async () => {
    const told = await listen('/api/gardens/hare/feed?app=laptop', (heard) => {
      if (hasCaughtUp(heard) && heard.length === 1)
        void gateway.orders.give('hare', 'roof', { text: 'stop 1', liveS: 60 }, NOON);
      return heard.length === 2;
    });
    expect(told[1]).toMatchObject({
      event: 'order',
      data: { boardId: 'roof', text: 'stop 1', state: 'waiting' },
    });
  });
});

test('what an app has on its own disk is noted, and shown with the garden', async () => {
  for (let seq = 0; seq < 3; seq += 1) await gateway.mailbox.put('hare', report(seq), NOON);
  expect(
    await site.ask('POST', '/api/gardens/hare/fetched', {
      app: 'a1',
      name: 'Laptop',
      n: 2,
      store: gateway.mailbox.store.id,
    }),
  ).toMatchObject({
    status: 200,
    said: { fetchedTo: 2 },
  });
  const { said } = await site.ask('GET', '/api/gardens/hare');
  expect(said.mailbox).toMatchObject({ newest: 3, oldest: 1, fetchedTo: 2, apps: [{ id: 'a1', n: 2 }] });
  expect((await site.ask('POST', '/api/gardens/hare/fetched', { app: '../x', n: 2 })).status).toBe(400);
  const other = { app: 'a1', name: 'Laptop', n: 3, store: 'another' };
  expect((await site.ask('POST', '/api/gardens/hare/fetched', other)).status).toBe(409);
});

test('nobody listens without saying who', async () => {
  for (const query of ['', '?app=', '?app=../x'])
    expect((await site.ask('GET', `/api/gardens/hare/feed${query}`)).status).toBe(400);
});
