import { readFileSync } from 'node:fs';
import { request as httpRequest } from 'node:http';
import { join } from 'node:path';
import { writeGardenFile } from '@plain-trowel/core/garden/document/gardenFile';
import { marigoldHare } from '@plain-trowel/standins/sample/marigoldHare';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { newGateway, served } from '../gatewayForTests.ts';
import { NOON, report } from '../mailbox/mailboxForTests.ts';
import type { Gateway } from '../gateway.ts';

let clock = NOON;
let gateway: Gateway;
let site: Awaited<ReturnType<typeof served>>;
let key = '';

beforeEach(async () => {
  clock = NOON;
  gateway = newGateway(() => clock, 1e9);
  site = await served(gateway);
  key = await gateway.keys.make('hare', 'roof', NOON);
});
afterEach(() => site.close());

const send = (body: unknown, headers: Record<string, string> = {}) =>
  site.ask('POST', '/api/readings', body, { authorization: `Bearer ${key}`, ...headers });

describe('a board that reports', () => {
  test('is answered with the number of its report, once that is kept', async () => {
    const { status, said } = await send(report(345));
    expect(status).toBe(200);
    expect(said).toEqual({
      seq: 345,
      revision: 0,
      settings: [],
      orders: [],
      far: [],
      clock: null,
      sun: null,
      everyS: 10,
    });
    expect(gateway.mailbox.after('hare', 0, 9)).toMatchObject([
      {
        n: 1,
        boardId: 'roof',
        seq: 345,
        receivedMs: NOON,
        readings: [{ n: 'c2', v: 1845, atMs: NOON - 3000 }],
      },
    ]);
  });
  test('gets the same answer when it sends the same again, and it is kept once', async () => {
    await send(report(1));
    expect(await send(report(1))).toMatchObject({ status: 200, said: { seq: 1 } });
    expect(gateway.mailbox.newest('hare')).toBe(1);
  });
  test('may send SenML, with what belongs to the report in the address', async () => {
    const pack = [
      { bn: 'roof/', bt: -5, n: 'c2', v: 1512 },
      { n: 'air', v: 21.4, u: 'Cel' },
    ];
    const asked = await site.ask('POST', '/api/readings?board=roof&boot=12&seq=7&up=60', pack, {
      authorization: `Bearer ${key}`,
      'content-type': 'application/senml+json',
    });
    expect(asked).toMatchObject({ status: 200, said: { seq: 7 } });
    expect(gateway.mailbox.after('hare', 0, 9)[0]?.readings).toEqual([
      { n: 'c2', v: 1512, atMs: NOON - 5000 },
      { n: 'air', v: 21.4, atMs: NOON - 5000 },
    ]);
  });
  test('is told the local time of its garden, on the day on which clocks go back as well', async () => {
    const garden = marigoldHare(NOON);
    const text = writeGardenFile(garden);
    expect((await gateway.gardens.publish(garden.id, { text, by: 'test', after: null }, NOON)).ok).toBe(true);
    key = await gateway.keys.make(garden.id, 'roof', NOON);
    expect(garden.timeZone).toBe('Europe/London');
    // On the last Sunday of October 2026 clocks there go back at 01:00 UTC: a minute after 01:59:30 it is 01:00:30.
    for (const [seq, utc, daySecond] of [
      [1, Date.UTC(2026, 9, 25, 0, 59, 30), 7170],
      [2, Date.UTC(2026, 9, 25, 1, 0, 30), 3630],
    ] as const) {
      clock = utc;
      const { said } = await send(report(seq));
      expect(said.clock).toEqual({ daySecond, weekday: 6 });
    }
  });
});

describe('nothing is kept, and it is said why, of', () => {
  const kept = () => gateway.mailbox.newest('hare');
  test.each([
    ['a board without a key', {}, { authorization: '' }, 401],
    ['a key that is none', {}, { authorization: `Bearer ${'0'.repeat(40)}` }, 401],
    ['a key that is another board’s', { board: 'stern' }, {}, 403],
    ['a report with a field wrong', { seq: -1 }, {}, 400],
    ['a form', {}, { 'content-type': 'application/x-www-form-urlencoded' }, 415],
    ['SenML that does not say whose it is', {}, { 'content-type': 'application/senml+json' }, 415],
  ])('%s', async (_, change, headers, status) => {
    const asked = await send(report(1, change), headers);
    expect(asked.status).toBe(status);
    expect(asked.said.error).toMatch(/\.$/);
    expect(kept()).toBe(0);
  });
  test.each([
    ['no JSON', '{"board":', 400],
    ['a text that is too long', `{"board":"${'x'.repeat(70_000)}"}`, 413],
    ['a thousand open brackets', '['.repeat(1000), 400],
  ])('%s', async (_, text, status) => {
    expect((await send(text)).status).toBe(status);
    expect(kept()).toBe(0);
  });
  test('a key that was taken back, or replaced', async () => {
    const old = key;
    key = await gateway.keys.make('hare', 'roof', NOON);
    expect((await send(report(1), { authorization: `Bearer ${old}` })).status).toBe(401);
    expect((await send(report(1))).status).toBe(200);
    await gateway.keys.revoke('hare', 'roof');
    expect((await send(report(2))).status).toBe(401);
    expect(kept()).toBe(1);
  });
});

test('a gateway without room refuses with 507, and keeps what it has', async () => {
  await site.close();
  gateway = newGateway(() => NOON, 700);
  site = await served(gateway);
  key = await gateway.keys.make('hare', 'roof', NOON);
  const answers = [];
  for (let seq = 0; seq < 5; seq += 1) answers.push((await send(report(seq))).status);
  expect(answers[0]).toBe(200);
  expect(answers.at(-1)).toBe(507);
  expect(gateway.mailbox.after('hare', 0, 9)).toHaveLength(answers.filter((one) => one === 200).length);
});

test('trying keys is slowed, and whoever has one is not slowed by it', async () => {
  const tries = [];
  for (let at = 0; at < 40; at += 1)
    tries.push((await send(report(1), { authorization: `Bearer ${'ab'.repeat(20)}` })).status);
  expect(tries.slice(0, 30)).toEqual(Array(30).fill(401));
  expect(tries.slice(30)).toEqual(Array(10).fill(429));
  expect((await send(report(1))).status).toBe(200);
});

test('the file of the gateway holds no key', async () => {
  await send(report(1));
  const bytes = readFileSync(join(gateway.mailbox.store.folder, 'data.mdb')).toString('latin1');
  expect(bytes).toContain('"c2"');
  expect(bytes).not.toContain(key);
});

test('a request that is broken off keeps nothing and harms nobody', async () => {
  const { port } = new URL(site.address);
  const broken = httpRequest({
    host: '127.0.0.1',
    port,
    path: '/api/readings',
    method: 'POST',
    headers: { authorization: `Bearer ${key}`, 'content-type': 'application/json', 'content-length': 500 },
  });
  broken.on('error', () => undefined);
  broken.write('{"board":"roof",');
  await new Promise((done) => setTimeout(done, 50));
  broken.destroy();
  expect((await send(report(1))).status).toBe(200);
  expect(gateway.mailbox.newest('hare')).toBe(1);
});
