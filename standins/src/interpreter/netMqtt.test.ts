/** A board's own program reports over MQTT, in the real interpreter, to a broker at the other end of its sockets that reads its bytes with somebody else's parser. */
import { beforeEach, describe, expect, test } from 'vitest';
import { readReport, type Answer, type Report } from '@plain-trowel/core/protocol/report';
import { BoardOnALine, changedFiles, PUMP } from './boardForTests.ts';
import { GatewayOnANet } from './gatewayForTests.ts';

const KEY = 'ab'.repeat(20);
const hex = (text: string): string => Buffer.from(text).toString('hex');

let net: GatewayOnANet;
let line: BoardOnALine;
let orders: Answer['orders'] = [];
let everyS = 10;
const reports: Report[] = [];

function listening() {
  net.answer = ({ body }) => {
    const read = readReport(body);
    if (!read.ok) return JSON.stringify({ error: 'cannot be read' });
    reports.push(read.value);
    return JSON.stringify({
      seq: read.value.seq,
      revision: 0,
      settings: [],
      far: [],
      orders,
      clock: { daySecond: 43_200, weekday: 5 },
      sun: null,
      everyS,
    } satisfies Answer);
  };
}

beforeEach(async () => {
  reports.length = 0;
  orders = [];
  everyS = 10;
  net = new GatewayOnANet('mqtt');
  line = new BoardOnALine({ net: net.wires });
  line.raw = 1500 * 16;
  await line.board.boot(
    changedFiles('abc000000009', ['net.py', 'radio.py', 'mqtt.py'], (settings) =>
      settings.replace(
        'NETWORK = None',
        'NETWORK = Fields(over="mqtt", garden="hare", board="roof", every_s=10)',
      ),
    ),
  );
  for (const [name, value] of [
    ['wifi', 'Hare'],
    ['gateway', '192.168.1.5:4861'],
    ['key', KEY],
  ] as const)
    expect(await line.ask(`net ${name} ${hex(value)}`)).toContain('# taken');
  listening();
});

async function seconds(count: number) {
  for (let at = 0; at < count; at += 1) {
    await line.wait(1000);
    for (let pass = 0; pass < 30; pass += 1) await line.wait(0);
  }
}
const commands = () => net.packets.map(({ cmd }) => cmd);

describe('over one connection', () => {
  test('it comes in with its key, listens to its answers, and publishes at least once', async () => {
    await seconds(5);
    expect(net.packets[0]).toMatchObject({
      cmd: 'connect',
      protocolId: 'MQTT',
      protocolVersion: 4,
      clean: true,
      username: 'roof',
      keepalive: 90,
    });
    expect(net.packets[0]?.cmd === 'connect' && String(net.packets[0].password)).toBe(KEY);
    expect(net.packets[1]).toMatchObject({
      cmd: 'subscribe',
      subscriptions: [{ topic: 'trowel/hare/roof/answer', qos: 1 }],
    });
    expect(net.packets[2]).toMatchObject({
      cmd: 'publish',
      topic: 'trowel/hare/roof/report',
      qos: 1,
      retain: false,
    });
    expect(reports[0]).toMatchObject({ board: 'roof', seq: 1 });
    expect(reports[0]?.readings).toMatchObject([{ n: 'c2', v: 1500 }]);
  });
  test('report after report, each answer taken in and acknowledged', async () => {
    await seconds(45);
    expect(reports.map(({ seq }) => seq)).toEqual([1, 2, 3, 4, 5]);
    expect(commands().filter((one) => one === 'connect')).toHaveLength(1);
    expect(commands().filter((one) => one === 'puback')).toHaveLength(5);
  });
  test('made anew for each where the next is wanted much later', async () => {
    everyS = 60;
    await seconds(190);
    expect(reports.map(({ seq }) => seq)).toEqual([1, 2, 3, 4]);
    expect(commands().filter((one) => one === 'connect')).toHaveLength(4);
  });
  test('reports of any length are framed as the standard has them', async () => {
    net.isReachable = false;
    await line.seconds(6000);
    net.isReachable = true;
    await seconds(60);
    expect(net.requests.some(({ body }) => body.length > 127)).toBe(true);
    const ages = reports.flatMap(({ readings, upS }) => readings.map(({ agoS }) => upS - agoS));
    expect(ages.length).toBeGreaterThan(20);
    expect(new Set(ages).size).toBe(ages.length);
  });
});

describe('nothing is lost', () => {
  test('when the broker has no room and lets go: the same report comes again under its number', async () => {
    net.answer = () => null;
    await seconds(25);
    listening();
    await seconds(25);
    expect(reports[0]?.seq).toBe(1);
    expect(reports.map(({ seq }) => seq)).toEqual(reports.map((_, at) => at + 1));
  });
  test('and a broker that does not let it in is tried again, and told at the console', async () => {
    net.letsIn = false;
    await seconds(25);
    expect(reports).toEqual([]);
    expect(line.said).toContain('# net the gateway does not take this key');
    net.letsIn = true;
    await seconds(15);
    expect(reports[0]?.seq).toBe(1);
  });
});

test('an order is obeyed once, however often it is told', async () => {
  orders = [{ id: 'o1', text: 'give 1 40', liveS: 60 }];
  await seconds(45);
  expect(line.levels.filter((one) => one === `${PUMP} 1`)).toHaveLength(1);
  expect(reports.flatMap((report) => report.orders)).toEqual([{ id: 'o1', state: 'taken' }]);
});
