import { connect as connectTcp, type AddressInfo } from 'node:net';
import mqtt, { type MqttClient } from 'mqtt';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { newGateway } from '../gatewayForTests.ts';
import { NOON, report } from '../mailbox/mailboxForTests.ts';
import type { Gateway } from '../gateway.ts';
import { READER } from '../boards/keys.ts';
import { chilli, DRY, hareWith, publish, RIGHT, until } from '../telling/tellingForTests.ts';
import { createBroker, type Broker } from './broker.ts';

const HARE = hareWith().id;

let gateway: Gateway;
let broker: Broker;
let key = '';
let clients: MqttClient[] = [];
const REPORT = 'trowel/hare/roof/report';
const ANSWER = 'trowel/hare/roof/answer';
const port = () => (broker.server.address() as AddressInfo).port;

async function start(limitBytes = 1e9) {
  gateway = newGateway(() => NOON, limitBytes);
  key = await gateway.keys.make('hare', 'roof', NOON);
  broker = await createBroker(gateway);
  await new Promise<void>((done) => broker.server.listen(0, '127.0.0.1', done));
}
async function stop() {
  for (const client of clients) client.end(true);
  clients = [];
  await broker.close();
  await gateway.close();
}
beforeEach(() => start());
afterEach(stop);

const join = async (username: string, password: string) => {
  const client = await mqtt.connectAsync(`mqtt://127.0.0.1:${port()}`, {
    username,
    password,
    reconnectPeriod: 0,
    connectTimeout: 3000,
  });
  clients.push(client);
  return client;
};
/** The next message of a topic. */
const next = (client: MqttClient, topic: string) =>
  new Promise<Record<string, unknown>>((tell) => {
    client.on('message', (of, payload) => {
      if (of === topic) tell(JSON.parse(payload.toString()) as Record<string, unknown>);
    });
  });
const isGone = (client: MqttClient) => new Promise<void>((tell) => client.once('close', () => tell()));

describe('a board over MQTT', () => {
  test('is acknowledged once its report is on disk, and hears the same answer as over HTTP', async () => {
    const client = await join('roof', key);
    await client.subscribeAsync(ANSWER, { qos: 1 });
    const answer = next(client, ANSWER);
    await client.publishAsync(REPORT, JSON.stringify(report(5)), { qos: 1 });
    // publishAsync ends with the acknowledgement; nothing more is waited for here.
    expect(gateway.mailbox.after('hare', 0, 9)).toMatchObject([{ n: 1, seq: 5 }]);
    expect(await answer).toMatchObject({ seq: 5, orders: [], everyS: 10 });
  });
  test('is not acknowledged where there is no room, and is let go so that it comes again', async () => {
    await stop();
    await start(100);
    const client = await join('roof', key);
    const gone = isGone(client);
    let isAcknowledged = false;
    client.publish(REPORT, JSON.stringify(report(5)), { qos: 1 }, (error) => {
      isAcknowledged = !error;
    });
    await gone;
    expect(isAcknowledged).toBe(false);
    expect(gateway.mailbox.newest('hare')).toBe(0);
  });
  test('that sends what cannot be read is told so, once', async () => {
    const client = await join('roof', key);
    await client.subscribeAsync(ANSWER, { qos: 1 });
    const answer = next(client, ANSWER);
    await client.publishAsync(REPORT, '{"board":', { qos: 1 });
    expect(await answer).toEqual({ error: 'The report is no JSON. Nothing was kept.' });
  });
  test('is given its orders', async () => {
    await gateway.orders.give('hare', 'roof', { text: 'stop 1', liveS: 60 }, NOON);
    const client = await join('roof', key);
    await client.subscribeAsync(ANSWER, { qos: 1 });
    const answer = next(client, ANSWER);
    await client.publishAsync(REPORT, JSON.stringify(report(5)), { qos: 1 });
    expect(await answer).toMatchObject({ orders: [{ text: 'stop 1', liveS: 60 }] });
  });
});

describe('who may do what', () => {
  test.each([
    ['no key', 'roof', ''],
    ['a wrong key', 'roof', 'ab'.repeat(20)],
    ['the name of another board', 'stern', null],
  ])('nobody comes in with %s', async (_, username, password) => {
    await expect(join(username, password ?? key)).rejects.toThrow(/Bad username or password|Not authorized/);
  });
  test.each(['trowel/hare/stern/report', 'trowel/hare/roof/answer', '$SYS/x', 'x'])(
    'a board that publishes to %s is let go, and nothing of it is kept',
    async (topic) => {
      const client = await join('roof', key);
      const gone = isGone(client);
      client.publish(topic, JSON.stringify(report(5, { board: 'stern' })), { qos: 1 });
      await gone;
      expect(gateway.mailbox.newest('hare')).toBe(0);
    },
  );
  test.each(['trowel/hare/stern/answer', 'trowel/#', '#', '$SYS/#', REPORT])(
    'a board that listens to %s hears nothing',
    async (topic) => {
      const other = await gateway.keys.make('hare', 'stern', NOON);
      const listener = await join('roof', key);
      const heard: string[] = [];
      listener.on('message', (of) => heard.push(of));
      await listener.subscribeAsync(topic).catch(() => undefined);
      const client = await join('stern', other);
      await client.publishAsync('trowel/hare/stern/report', JSON.stringify(report(5, { board: 'stern' })), {
        qos: 1,
      });
      expect(gateway.mailbox.newest('hare')).toBe(1);
      await listener.publishAsync(REPORT, JSON.stringify(report(1)), { qos: 1 });
      expect(heard.filter((of) => of !== ANSWER)).toEqual([]);
    },
  );
  test('a board whose key was cancelled while it was connected is let go at its next report', async () => {
    const client = await join('roof', key);
    await client.publishAsync(REPORT, JSON.stringify(report(1)), { qos: 1 });
    await gateway.keys.revoke('hare', 'roof');
    const gone = isGone(client);
    client.publish(REPORT, JSON.stringify(report(2)), { qos: 1 });
    await gone;
    expect(gateway.mailbox.newest('hare')).toBe(1);
  });
  test('one garden’s board with the same name is not the other’s', async () => {
    const boat = await gateway.keys.make('boat', 'roof', NOON);
    const client = await join('roof', boat);
    await client.publishAsync('trowel/boat/roof/report', JSON.stringify(report(5)), { qos: 1 });
    expect([gateway.mailbox.newest('boat'), gateway.mailbox.newest('hare')]).toEqual([1, 0]);
  });
});

test('a packet that says it is longer than any report ends its connection before it has come', async () => {
  const socket = connectTcp(port(), '127.0.0.1');
  socket.on('error', () => undefined);
  const ended = new Promise<void>((done) => socket.once('close', () => done()));
  // PUBLISH with a remaining length of 256 MB (MQTT 3.1.1, table 2.4: ff ff ff 7f), of which little follows.
  socket.write(Buffer.from([0x10, 0xff, 0xff, 0xff, 0x7f, 1, 2, 3]));
  await ended;
  const client = await join('roof', key);
  await client.publishAsync(REPORT, JSON.stringify(report(1)), { qos: 1 });
  expect(gateway.mailbox.newest('hare')).toBe(1);
});

describe('whoever reads along', () => {
  /** The sample garden, watched, with its chilli crate read half way. */
  async function watched() {
    await publish(gateway, hareWith());
    await gateway.keys.make(HARE, 'roof', NOON);
    await gateway.teller.step();
    const reader = await join('reader', await gateway.keys.make(HARE, READER, NOON));
    const heard = new Map<string, string>();
    reader.on('message', (topic, payload) => heard.set(topic, payload.toString()));
    return { reader, heard };
  }
  const CHILLI = `trowel/${HARE}/plots/chilli`;

  test('hears how plots stand as soon as it listens, and what changes', async () => {
    const { reader, heard } = await watched();
    await gateway.mailbox.put(HARE, chilli(1, RIGHT), NOON);
    broker.look();
    await reader.subscribeAsync(`trowel/${HARE}/plots/#`);
    await until(() => heard.size > 0);
    // (2934 − 2000) / (2934 − 1144)
    expect([
      heard.get(`${CHILLI}/percent`),
      heard.get(`${CHILLI}/unit`),
      heard.get(`${CHILLI}/word`),
    ]).toEqual(['52.2', '% span', 'right']);
    await gateway.mailbox.put(HARE, chilli(2, DRY), NOON + 10_000);
    broker.look();
    await until(() => heard.get(`${CHILLI}/word`) === 'dry');
    // The mint trough's board has no key here: nothing is said of it.
    expect([...heard.keys()].some((topic) => topic.includes('/mint/'))).toBe(false);
  });
  test('hears "unknown" and no old number where nothing is known', async () => {
    const { reader, heard } = await watched();
    broker.look();
    await reader.subscribeAsync(`${CHILLI}/+`);
    await until(() => heard.size === 4);
    expect(heard.get(`${CHILLI}/percent`)).toBe('unknown');
    expect(heard.get(`${CHILLI}/word`)).toBe('unknown: no reading yet');
  });
  test('hears nothing of boards, of other gardens, or of everything', async () => {
    const { reader } = await watched();
    for (const topic of [
      '#',
      'trowel/#',
      `trowel/${HARE}/roof/answer`,
      `trowel/${HARE}/+/report`,
      'trowel/boat/plots/#',
    ])
      await expect(reader.subscribeAsync(topic)).rejects.toThrow();
  });
  test('says nothing, neither for a board nor for the gateway', async () => {
    const { reader } = await watched();
    const gone = isGone(reader);
    reader.publish(`${CHILLI}/percent`, '99', { retain: true }, () => undefined);
    await gone;
    expect(gateway.mailbox.newest(HARE)).toBe(0);
  });
  test('has a key that is no board’s, and a board’s is none of its own', async () => {
    await expect(join('reader', key)).rejects.toThrow();
    const reader = await gateway.keys.make('hare', READER, NOON);
    await expect(join('roof', reader)).rejects.toThrow();
    expect(gateway.keys.of('hare').map(({ boardId }) => boardId)).toEqual(['roof']);
  });
});
