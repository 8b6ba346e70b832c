/** Boards by somebody else's broker, here one of the same kind as ours that lets everybody in and keeps sessions. */
import { createServer, type AddressInfo, type Server } from 'node:net';
import { Aedes } from 'aedes';
import mqtt, { type MqttClient } from 'mqtt';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { openGateway, type Gateway } from '../gateway.ts';
import { newFolder, NOON, report } from '../mailbox/mailboxForTests.ts';
import { chilli, hareWith, publish, RIGHT, until } from '../telling/tellingForTests.ts';
import { joinBroker, type OutsideBroker } from './outsideBroker.ts';

const HARE = hareWith().id;
const REPORT = `trowel/${HARE}/roof/report`;
const ANSWER = `trowel/${HARE}/roof/answer`;
const SOON = 300;

let aedes: Aedes;
let server: Server;
let board: MqttClient;
const answers: Record<string, unknown>[] = [];
const open: { gateway: Gateway; joined: OutsideBroker }[] = [];
const url = () => `mqtt://127.0.0.1:${(server.address() as AddressInfo).port}`;

beforeEach(async () => {
  aedes = await Aedes.createBroker();
  server = createServer(aedes.handle);
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  answers.length = 0;
  board = await mqtt.connectAsync(url(), { reconnectPeriod: 0 });
  board.on('message', (_topic, payload) =>
    answers.push(JSON.parse(payload.toString()) as Record<string, unknown>),
  );
  await board.subscribeAsync(ANSWER, { qos: 1 });
});
afterEach(async () => {
  for (const one of open.splice(0)) await end(one);
  board.end(true);
  await new Promise<void>((done) => aedes.close(() => done()));
  await new Promise((done) => server.close(done));
});

const end = async ({ gateway, joined }: (typeof open)[number]) => {
  await joined.close();
  await gateway.close();
};

/** A gateway with the sample garden and a key for its roof board. */
async function gatewayAt(folder = newFolder(), takes: readonly string[] = []) {
  const gateway = openGateway(folder, 1e9, () => NOON);
  if (!gateway.gardens.get(HARE)) {
    await publish(gateway, hareWith());
    await gateway.keys.make(HARE, 'roof', NOON);
  }
  const one = { gateway, joined: joinBroker(gateway, url(), takes, SOON) };
  open.push(one);
  return one;
}
const owns = (one: { joined: OutsideBroker }) => until(() => one.joined.owned().includes(HARE));
const say = (seq: number) => board.publishAsync(REPORT, JSON.stringify(report(seq)), { qos: 1 });
const seqs = ({ mailbox }: Gateway) => mailbox.after(HARE, 0, 99).map(({ seq }) => seq);

describe('a gateway at somebody else’s broker', () => {
  test('hears the boards of its gardens, and answers them there', async () => {
    const one = await gatewayAt();
    await owns(one);
    await say(5);
    await until(() => answers.length > 0);
    expect(answers[0]).toMatchObject({ seq: 5, everyS: 10 });
    expect(seqs(one.gateway)).toEqual([5]);
  });
  test('has what came while it was away: the broker held it, for it was not acknowledged', async () => {
    const folder = newFolder();
    const first = await gatewayAt(folder);
    await owns(first);
    await say(1);
    await until(() => seqs(first.gateway).length === 1);
    await end(open.pop() ?? first);
    await say(2);
    await say(3);
    const second = await gatewayAt(folder);
    await until(() => seqs(second.gateway).length === 3);
    expect(seqs(second.gateway)).toEqual([1, 2, 3]);
  });
  test('takes nothing of a board without a key here, nor of a garden that it does not have', async () => {
    const one = await gatewayAt();
    await owns(one);
    await board.publishAsync(`trowel/${HARE}/stern/report`, JSON.stringify(report(1, { board: 'stern' })), {
      qos: 1,
    });
    await board.publishAsync('trowel/boat/roof/report', JSON.stringify(report(2)), { qos: 1 });
    await say(3);
    await until(() => answers.length > 0);
    expect(seqs(one.gateway)).toEqual([3]);
  });
  test('answers what it cannot read with why, and goes on', async () => {
    const one = await gatewayAt();
    await owns(one);
    await board.publishAsync(REPORT, '{"board":', { qos: 1 });
    await say(4);
    await until(() => answers.length === 2);
    expect(answers[0]).toHaveProperty('error');
    expect(seqs(one.gateway)).toEqual([4]);
  });
  test('says there how plots stand', async () => {
    const one = await gatewayAt();
    await owns(one);
    await one.gateway.teller.step();
    await board.publishAsync(REPORT, JSON.stringify(chilli(1, RIGHT)), { qos: 1 });
    await until(() => seqs(one.gateway).length === 1);
    one.joined.look();
    const heard: string[] = [];
    const reader = await mqtt.connectAsync(url(), { reconnectPeriod: 0 });
    reader.on('message', (topic, payload) => heard.push(`${topic} ${payload.toString()}`));
    await reader.subscribeAsync(`trowel/${HARE}/plots/chilli/word`);
    await until(() => heard.length > 0);
    reader.end(true);
    expect(heard[0]).toBe(`trowel/${HARE}/plots/chilli/word right`);
  });
});

describe('of two gateways behind one broker', () => {
  test('a garden belongs to the first; the second hears, answers and watches nothing of it', async () => {
    const first = await gatewayAt();
    await owns(first);
    const second = await gatewayAt();
    await until(() => second.joined.foreign().includes(HARE));
    await say(1);
    await until(() => answers.length > 0);
    await second.gateway.teller.step();
    expect([seqs(first.gateway), seqs(second.gateway)]).toEqual([[1], []]);
    expect(second.gateway.teller.watched).toEqual([]);
    expect(answers).toHaveLength(1);
  });
  test('it goes over to the other by one word at its start', async () => {
    const first = await gatewayAt();
    await owns(first);
    await say(1);
    await until(() => answers.length === 1);
    const second = await gatewayAt(newFolder(), [HARE]);
    await owns(second);
    await until(() => first.joined.foreign().includes(HARE));
    await say(2);
    await until(() => answers.length === 2);
    expect([seqs(first.gateway), seqs(second.gateway)]).toEqual([[1], [2]]);
    // And stays there when the first comes back.
    await first.gateway.teller.step();
    await second.gateway.teller.step();
    expect([first.gateway.teller.watched, second.gateway.teller.watched]).toEqual([[], [HARE]]);
  });
});
