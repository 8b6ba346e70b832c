import { afterEach, beforeEach, expect, test } from 'vitest';
import { newGateway } from '../gatewayForTests.ts';
import { NOON, report } from '../mailbox/mailboxForTests.ts';
import type { Gateway } from '../gateway.ts';
import type { Report } from '@plain-trowel/core/protocol/report';

let clock = NOON;
let gateway: Gateway;
let seq = 0;
const roof = { gardenId: 'hare', boardId: 'roof', madeMs: NOON, standIn: false, reads: false };

beforeEach(() => {
  clock = NOON;
  seq = 0;
  gateway = newGateway(() => clock);
});
afterEach(() => gateway.close());

const give = (text: string, liveS = 600) => gateway.orders.give('hare', 'roof', { text, liveS }, clock);
/** The board reports, perhaps about orders; gives the orders of the answer. */
async function heard(orders: Report['orders'] = [], boot = 12) {
  const text = JSON.stringify(report((seq += 1), { orders, boot }));
  const answered = await gateway.intake.hear(roof, text, { kind: 'own' });
  return answered.kind === 'answered' ? answered.answer.orders.map((one) => one.text) : [];
}
const states = () => gateway.orders.all('hare', 'roof').map(({ text, state }) => [text, state]);

test('an order goes out with every answer until the board says what became of it', async () => {
  const order = await give('give 1 120');
  // The first answer may have been lost on its way.
  expect(await heard()).toEqual(['give 1 120']);
  expect(await heard()).toEqual(['give 1 120']);
  expect(await heard([{ id: order?.id ?? '', state: 'taken' }])).toEqual([]);
  expect(states()).toEqual([['give 1 120', 'taken']]);
  await heard([{ id: order?.id ?? '', state: 'done' }]);
  expect(states()).toEqual([['give 1 120', 'done']]);
});

test('what was refused says why, and stays refused whatever is said later', async () => {
  const order = await give('give 1 120');
  await heard([{ id: order?.id ?? '', state: 'refused', why: 'daily-max' }]);
  await heard([{ id: order?.id ?? '', state: 'taken' }]);
  expect(gateway.orders.all('hare', 'roof')).toMatchObject([{ state: 'refused', why: 'daily-max' }]);
});

test('an order that nobody fetched in its life goes to nobody any more', async () => {
  await give('give 1 120', 60);
  clock = NOON + 59_000;
  expect(await heard()).toEqual(['give 1 120']);
  clock = NOON + 60_000;
  expect(await heard()).toEqual([]);
  await gateway.tidy();
  expect(states()).toEqual([['give 1 120', 'expired']]);
  clock = NOON + 8 * 86_400_000;
  await gateway.tidy();
  expect(states()).toEqual([]);
});

test('an order that was told to one start of a board is not told to the next: it may have begun, and have restarted it', async () => {
  await give('give 1 120');
  expect(await heard()).toEqual(['give 1 120']);
  expect(await heard([], 13)).toEqual([]);
  expect(await heard([], 13)).toEqual([]);
  expect(gateway.orders.all('hare', 'roof')).toMatchObject([{ state: 'expired', why: /restarted/ }]);
  // One that was given since is another thing.
  await give('stop 1');
  expect(await heard([], 13)).toEqual(['stop 1']);
});

test('also where the board cannot tell its starts apart', async () => {
  const at = (upS: number) => {
    const text = JSON.stringify(report((seq += 1), { boot: 0, upS, readings: [] }));
    return gateway.intake.hear(roof, text, { kind: 'own' });
  };
  await at(500);
  await give('give 1 120');
  clock += 10_000;
  expect(await at(510)).toMatchObject({ answer: { orders: [{ text: 'give 1 120' }] } });
  clock += 10_000;
  expect(await at(5)).toMatchObject({ answer: { orders: [] } });
});

test('orders of one moment stay in their order', async () => {
  const texts = Array.from({ length: 12 }, (_, at) => `set 1 dose ${at + 10}`);
  for (const text of texts) await give(text);
  expect(await heard()).toEqual(texts);
});

test('orders are given in turn, to their board alone, and another board cannot answer for it', async () => {
  const first = await give('give 1 50');
  clock += 1;
  await give('stop 2');
  const stern = { gardenId: 'hare', boardId: 'stern', madeMs: NOON, standIn: false, reads: false };
  const text = JSON.stringify(
    report(1, { board: 'stern', orders: [{ id: first?.id ?? '', state: 'done' }] }),
  );
  expect(await gateway.intake.hear(stern, text, { kind: 'own' })).toMatchObject({ answer: { orders: [] } });
  expect(await heard()).toEqual(['give 1 50', 'stop 2']);
});

test('a hundred may wait, no more', async () => {
  for (let at = 0; at < 100; at += 1) expect(await give(`give 1 ${at + 1}`)).not.toBeNull();
  expect(await give('give 1 999')).toBeNull();
  expect(await heard()).toHaveLength(20);
});
