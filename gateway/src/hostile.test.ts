/** Requests and packets with bytes turned, left out, doubled or cut: whatever comes, the gateway goes on, and keeps nothing that is no report of the board whose key it is. */
import { connect, type AddressInfo } from 'node:net';
import fc from 'fast-check';
import mqttPacket from 'mqtt-packet';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { newGateway, served } from './gatewayForTests.ts';
import { NOON, report } from './mailbox/mailboxForTests.ts';
import { createBroker, type Broker } from './mqtt/broker.ts';
import type { Gateway } from './gateway.ts';

const RUNS = process.env.TROWEL_LONG === undefined ? 300 : 10_000;
/** Memory that runs of any number may leave behind, bytes. */
const LEFT_BEHIND = 60e6;

let gateway: Gateway;
let site: Awaited<ReturnType<typeof served>>;
let broker: Broker;
let key = '';

beforeAll(async () => {
  gateway = newGateway(() => NOON);
  site = await served(gateway);
  broker = await createBroker(gateway);
  await new Promise<void>((done) => broker.server.listen(0, '127.0.0.1', done));
  key = await gateway.keys.make('hare', 'roof', NOON);
});
afterAll(async () => {
  await broker.close();
  await site.close();
});

/** Sends bytes and waits until the other end lets go, or has been quiet for a moment. */
const send = (port: number, bytes: Buffer): Promise<void> =>
  new Promise((done) => {
    const socket = connect(port, '127.0.0.1', () => socket.write(bytes));
    const end = () => {
      socket.destroy();
      done();
    };
    socket.setTimeout(25, end);
    socket.on('data', () => undefined);
    socket.on('error', end);
    socket.on('close', () => done());
  });

type Turn = { readonly at: number; readonly kind: number; readonly byte: number };
const turns = fc.array(fc.record({ at: fc.nat(2000), kind: fc.nat(3), byte: fc.nat(255) }), {
  minLength: 1,
  maxLength: 8,
});
function turned(bytes: Buffer, all: readonly Turn[]): Buffer {
  let now = bytes;
  for (const { at, kind, byte } of all) {
    const place = at % Math.max(1, now.length);
    const [before, after] = [now.subarray(0, place), now.subarray(place)];
    if (kind === 0) now = Buffer.concat([before, Buffer.from([byte]), after.subarray(1)]);
    else if (kind === 1) now = Buffer.concat([before, after.subarray(1)]);
    else if (kind === 2) now = Buffer.concat([before, after.subarray(0, byte), after]);
    else now = before;
  }
  return now;
}

/** Everything that was kept is what the board may have said. */
function onlyItsOwn() {
  for (const gardenId of gateway.mailbox.gardenIds()) expect(gardenId).toBe('hare');
  for (const entry of gateway.mailbox.after('hare', 0, 1e6)) expect(entry.boardId).toBe('roof');
}

async function holdsOut(port: number, whole: () => Buffer): Promise<void> {
  const before = process.memoryUsage().rss;
  await fc.assert(
    fc.asyncProperty(turns, async (all) => send(port, turned(whole(), all))),
    { numRuns: RUNS, seed: 11, endOnFailure: true },
  );
  expect(process.memoryUsage().rss - before).toBeLessThan(LEFT_BEHIND);
  onlyItsOwn();
}

test('over HTTP', async () => {
  let seq = 0;
  const { port } = new URL(site.address);
  const text = () => JSON.stringify(report((seq += 1), { said: [{ text: '# held 1 soaking', agoS: 2 }] }));
  await holdsOut(Number(port), () => {
    const body = text();
    return Buffer.from(
      `POST /api/readings HTTP/1.1\r\nHost: 127.0.0.1:${port}\r\nAuthorization: Bearer ${key}\r\nContent-Type: application/json\r\nContent-Length: ${body.length}\r\n\r\n${body}`,
    );
  });
  const { status } = await site.ask('POST', '/api/readings', report(9_999_999), {
    authorization: `Bearer ${key}`,
  });
  // So many at once may have been too many for a board; a wait is an answer as well.
  expect([200, 429]).toContain(status);
}, 600_000);

test('over MQTT', async () => {
  let seq = 100_000;
  const { port } = broker.server.address() as AddressInfo;
  const generate = (packet: Parameters<typeof mqttPacket.generate>[0]) => mqttPacket.generate(packet);
  await holdsOut(port, () =>
    Buffer.concat([
      generate({
        cmd: 'connect',
        protocolId: 'MQTT',
        protocolVersion: 4,
        clean: true,
        clientId: `b${seq}`,
        keepalive: 30,
        username: 'roof',
        password: Buffer.from(key),
      }),
      generate({
        cmd: 'subscribe',
        messageId: 1,
        subscriptions: [{ topic: 'trowel/hare/roof/answer', qos: 1 }],
      }),
      generate({
        cmd: 'publish',
        topic: 'trowel/hare/roof/report',
        payload: JSON.stringify(report((seq += 1))),
        qos: 1,
        messageId: 2,
        dup: false,
        retain: false,
      }),
    ]),
  );
  const before = gateway.mailbox.newest('hare');
  const again = gateway.intake.hear(
    { gardenId: 'hare', boardId: 'roof', madeMs: NOON, standIn: false, reads: false },
    JSON.stringify(report(8_888_888)),
    { kind: 'own' },
  );
  expect(await again).toMatchObject({ kind: 'answered' });
  expect(gateway.mailbox.newest('hare')).toBe(before + 1);
}, 600_000);

test.each([
  '/api/gardens/..%2f..%2fetc/document',
  '/api/gardens/%00/feed?app=x',
  '/api/gardens/hare/boards/..%2froof/key',
  '/api/gardens/__proto__',
  '/api/gardens/constructor/document',
])('the way to %s leads nowhere', async (path) => {
  const asked = await site.ask(
    path.endsWith('key') ? 'POST' : 'GET',
    path,
    path.endsWith('key') ? {} : undefined,
  );
  expect(
    asked.status === 404 || asked.status === 400 || (asked.status === 200 && asked.said.published === null),
  ).toBe(true);
  expect(JSON.stringify(asked.said)).not.toContain('root:');
});
