import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { HERE, newGateway, OPEN, served } from '../gatewayForTests.ts';
import { NOON } from '../mailbox/mailboxForTests.ts';
import type { Gateway } from '../gateway.ts';

const WORDS = 'seven wet marigolds';
let clock = NOON;
let gateway: Gateway;
let site: Awaited<ReturnType<typeof served>>;

beforeEach(() => {
  clock = NOON;
});
afterEach(() => site.close());

async function open(reach = OPEN) {
  gateway = newGateway(() => clock);
  await gateway.owner.setPassphrase(WORDS);
  site = await served(gateway, reach);
}
const enter = (passphrase: string) => site.ask('POST', '/api/session', { passphrase });
const cookieOf = async () => (await enter(WORDS)).headers.get('set-cookie')?.split(';')[0] ?? '';

describe('open to a network', () => {
  beforeEach(() => open());
  test.each([
    ['GET', '/api/gardens'],
    ['GET', '/api/gardens/hare'],
    ['GET', '/api/gardens/hare/feed'],
    ['GET', '/api/gardens/hare/document'],
    ['PUT', '/api/gardens/hare/document'],
    ['POST', '/api/gardens/hare/fetched'],
    ['POST', '/api/gardens/hare/boards/roof/key'],
    ['POST', '/api/gardens/hare/boards/roof/orders'],
    ['GET', '/metrics'],
  ])('%s %s is for whoever has entered the passphrase', async (method, path) => {
    const without = await site.ask(method, path, method === 'GET' ? undefined : {});
    expect([without.status, without.said.error]).toEqual([
      401,
      'Enter the passphrase of this gateway first.',
    ]);
    if (path.endsWith('/feed')) return;
    const cookie = await cookieOf();
    expect((await site.ask(method, path, method === 'GET' ? undefined : {}, { cookie })).status).not.toBe(
      401,
    );
  });
  test('the wrong words let nobody in, and are slowed', async () => {
    const tries = [];
    for (let at = 0; at < 10; at += 1) tries.push((await enter('eight wet marigolds')).status);
    expect(tries).toEqual([401, 401, 401, 401, 401, 401, 401, 401, 429, 429]);
    expect((await enter(WORDS)).status).toBe(429);
  });
  test('the cookie is for this site and no script, and ends after thirty days, or when one leaves', async () => {
    const entered = await enter(WORDS);
    expect(entered.headers.get('set-cookie')).toMatch(
      /^trowel_session=[0-9a-f]{64}; Max-Age=2592000; Path=\/; Expires=.*; HttpOnly; SameSite=Strict$/,
    );
    const cookie = entered.headers.get('set-cookie')?.split(';')[0] ?? '';
    const isIn = async () => (await site.ask('GET', '/api/session', undefined, { cookie })).said.isIn;
    expect(await isIn()).toBe(true);
    clock = NOON + 30 * 86_400_000;
    expect(await isIn()).toBe(false);
    clock = NOON;
    await site.ask('DELETE', '/api/session', undefined, { cookie });
    expect(await isIn()).toBe(false);
  });
  test('a new passphrase turns everybody out', async () => {
    const cookie = await cookieOf();
    await gateway.owner.setPassphrase('another dry trowel');
    expect((await site.ask('GET', '/api/gardens', undefined, { cookie })).status).toBe(401);
    expect((await enter(WORDS)).status).toBe(401);
  });
  test('the same words typed on another keyboard are the same', async () => {
    await gateway.owner.setPassphrase('h\u00e9risson mouill\u00e9');
    expect((await enter('he\u0301risson mouille\u0301')).status).toBe(200);
  });
});

describe('on this machine alone', () => {
  beforeEach(() => open(HERE));
  test('nothing is asked', async () => {
    expect((await site.ask('GET', '/api/session')).said).toEqual({ isIn: true, isOpen: false });
    expect((await site.ask('GET', '/api/gardens')).status).toBe(200);
  });
  test.each([
    ['another site’s page', { origin: 'http://evil.example' }],
    ['another port of this machine', { origin: 'http://127.0.0.1:1' }],
    ['a page that says so itself', { 'sec-fetch-site': 'cross-site' }],
    ['a page of no origin', { origin: 'null' }],
  ])('%s changes nothing', async (_, headers) => {
    const asked = await site.ask('POST', '/api/gardens/hare/boards/roof/key', {}, headers);
    expect(asked.status).toBe(403);
    expect(gateway.keys.of('hare')).toEqual([]);
  });
  test('our own page does', async () => {
    const headers = { origin: site.address, 'sec-fetch-site': 'same-origin' };
    const { said } = await site.ask('POST', '/api/gardens/hare/boards/roof/key', {}, headers);
    expect(said.key).toMatch(/^[0-9a-f]{40}$/);
    expect(gateway.keys.boardOf(String(said.key))).toMatchObject({ gardenId: 'hare', boardId: 'roof' });
  });
});

describe('a ticket', () => {
  const ticketWith = async (cookie: string) => {
    const made = await site.ask('POST', '/api/session/ticket', {}, { cookie });
    return { status: made.status, token: String(made.said.token) };
  };
  const use = (token: string) => site.ask('POST', '/api/session/ticket/used', { token });
  test('lets one browser in, once, and is made by whoever is in', async () => {
    await open();
    expect((await site.ask('POST', '/api/session/ticket', {})).status).toBe(401);
    const { token } = await ticketWith(await cookieOf());
    expect(token).toMatch(/^[0-9a-f]{40}$/);
    const used = await use(token);
    const cookie = used.headers.get('set-cookie')?.split(';')[0] ?? '';
    expect((await site.ask('GET', '/api/session', undefined, { cookie })).said.isIn).toBe(true);
    expect((await use(token)).status).toBe(401);
  });
  test('ends after five minutes', async () => {
    await open();
    const { token } = await ticketWith(await cookieOf());
    clock = NOON + 5 * 60_000;
    expect((await use(token)).status).toBe(401);
  });
  test('five of them hold at a time, the oldest goes first', async () => {
    await open();
    const cookie = await cookieOf();
    const tokens: string[] = [];
    for (let at = 0; at < 6; at += 1) tokens.push((await ticketWith(cookie)).token);
    expect((await use(tokens[0] ?? '')).status).toBe(401);
    expect((await use(tokens[1] ?? '')).status).toBe(200);
  });
  test('guessing is slowed as the passphrase is', async () => {
    await open();
    const tries = [];
    for (let at = 0; at < 10; at += 1) tries.push((await use('0'.repeat(40))).status);
    expect(tries.slice(-2)).toEqual([429, 429]);
  });
  test('is not to be had where no other machine reaches the gateway', async () => {
    await open(HERE);
    expect((await ticketWith('')).status).toBe(409);
  });
});
