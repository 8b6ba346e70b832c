/** A board's own program reports over the network, in the real interpreter, to a gateway of ours at the other end of its sockets. */
import { beforeEach, describe, expect, test } from 'vitest';
import { readReport, type Answer, type Report } from '@plain-trowel/core/protocol/report';
import { BoardOnALine, changedFiles, PUMP } from './boardForTests.ts';
import { GatewayOnANet, said } from './gatewayForTests.ts';

const KEY = 'ab'.repeat(20);
const hex = (text: string): string => Buffer.from(text).toString('hex');

let net: GatewayOnANet;
let line: BoardOnALine;
let orders: Answer['orders'] = [];
const reports: Report[] = [];

/** Answers as a gateway does, and keeps what it was told. */
function listening(more: Partial<Answer> = {}) {
  net.answer = ({ body }) => {
    const read = readReport(body);
    if (!read.ok) return said(400, { error: JSON.stringify(read.issue) });
    reports.push(read.value);
    const answer: Answer = {
      seq: read.value.seq,
      revision: 0,
      settings: [],
      orders,
      far: [],
      clock: { daySecond: 43_200, weekday: 5 },
      sun: null,
      everyS: 10,
      ...more,
    };
    return said(200, answer);
  };
}

/** A board with a program that reports, just switched on. */
async function switchOn() {
  reports.length = 0;
  orders = [];
  net = new GatewayOnANet();
  line = new BoardOnALine({ net: net.wires });
  line.raw = 1500 * 16;
  await line.board.boot(
    changedFiles('abc000000009', ['net.py', 'radio.py', 'post.py'], (settings) =>
      settings.replace(
        'NETWORK = None',
        'NETWORK = Fields(over="http", garden="hare", board="roof", every_s=10)',
      ),
    ),
  );
  listening();
}
beforeEach(switchOn);

async function tell() {
  for (const [name, value] of [
    ['wifi', 'Hare & Hounds "guest"'],
    ['password', 'a b'],
    ['gateway', '192.168.1.5:4860'],
    ['key', KEY],
  ] as const)
    expect(await line.ask(`net ${name} ${hex(value)}`)).toContain('# taken');
}
/** Seconds go by, each with as many passes as bytes want. */
async function seconds(count: number) {
  for (let at = 0; at < count; at += 1) {
    await line.wait(1000);
    for (let pass = 0; pass < 60; pass += 1) await line.wait(0);
  }
}
const texts = () => reports.flatMap((report) => report.said.map(({ text }) => text));

describe('a board that was told its network', () => {
  beforeEach(tell);
  test('joins it and reports under its key, in a form that the gateway reads', async () => {
    await seconds(4);
    expect(net.joinedAs).toEqual(['Hare & Hounds "guest"', 'a b']);
    expect(net.connectedTo[0]).toBe('192.168.1.5:4860');
    expect(net.requests[0]?.head.split('\r\n')).toEqual([
      'POST /api/readings HTTP/1.1',
      'Host: 192.168.1.5:4860',
      `Authorization: Bearer ${KEY}`,
      'Content-Type: application/json',
      expect.stringMatching(/^Content-Length: \d+$/),
      'Connection: close',
    ]);
    expect(reports[0]).toMatchObject({ board: 'roof', seq: 1, program: 'abc000000009' });
    expect(reports[0]?.boot).toBeGreaterThan(0);
    expect(reports[0]?.readings).toEqual([{ n: 'c2', v: 1500, agoS: expect.any(Number) as number }]);
    expect(texts()).toEqual(expect.arrayContaining(['# version 1 abc000000009 engine 1', '# lines pump']));
  });
  test('then at the pace that the answer asks for, with a reading of each stretch', async () => {
    await seconds(64);
    expect(reports.map(({ seq }) => seq)).toEqual([1, 2, 3, 4, 5, 6, 7]);
    expect(reports.slice(1).every(({ readings }) => readings.length === 1)).toBe(true);
    listening({ everyS: 30 });
    await seconds(10);
    const before = reports.length;
    await seconds(60);
    expect(reports.length - before).toBe(2);
  });
  test('and learns the time from it', async () => {
    await seconds(5);
    expect(await line.ask('clock')).toContain('# no: clock');
    // Noon, as the answer said, and a few seconds.
    expect(texts().some((text) => text.startsWith('# line 1 '))).toBe(false);
    await seconds(10);
    expect(texts().some((text) => text.startsWith('# line 1 '))).toBe(true);
  });
});

describe('nothing is lost', () => {
  beforeEach(tell);
  test('a report that was not answered is sent again under its number, with ages that have gone on', async () => {
    net.answer = () => null;
    await seconds(20);
    listening();
    await seconds(30);
    const first = net.requests.filter(({ body }) => body.includes('"seq":1,'));
    expect(first.length).toBeGreaterThanOrEqual(2);
    expect(reports[0]?.seq).toBe(1);
    expect(reports[0]?.readings[0]?.agoS).toBeGreaterThan(15);
    expect(reports.map(({ seq }) => seq)).toEqual(reports.map((_, at) => at + 1));
  });
  test('a night without a network is told in the morning, a reading each five minutes', async () => {
    await seconds(5);
    net.isReachable = false;
    for (let minute = 0; minute < 120; minute += 1) {
      await line.seconds(60);
    }
    net.isReachable = true;
    const before = reports.length;
    await seconds(120);
    const ages = reports.slice(before).flatMap(({ readings, upS }) => readings.map(({ agoS }) => upS - agoS));
    expect(ages.length).toBeGreaterThanOrEqual(24);
    expect([...ages].sort((a, b) => a - b)).toEqual(ages);
    expect(new Set(ages).size).toBe(ages.length);
  });
  test('what a gateway can never take is not in the way of what comes after it', async () => {
    net.answer = () => said(400, { error: 'x' });
    await seconds(12);
    listening();
    await seconds(25);
    expect(reports.length).toBeGreaterThan(0);
    expect(reports[0]?.seq).toBeGreaterThan(1);
  });
});

describe('the pump does not wait for a network', () => {
  beforeEach(tell);
  /** Seconds at which the pump ran, in a world in which the soil turns dry and wet. */
  async function pumpOver(count: number) {
    line.levels.length = 0;
    const ran: string[] = [];
    for (let at = 0; at < count; at += 1) {
      line.raw = (at % 200 < 100 ? 2600 : 1500) * 16;
      const before = line.levels.length;
      await line.wait(1000);
      for (let pass = 0; pass < 20; pass += 1) await line.wait(0);
      for (const level of line.levels.slice(before))
        if (level.startsWith(`${PUMP} `)) ran.push(`${at}: ${level}`);
    }
    return ran;
  }
  test.each([
    ['is away', () => (net.isReachable = false)],
    ['has no gateway in it', () => (net.isListening = false)],
    ['has a gateway that goes quiet', () => (net.bytesAtOnce = 0)],
    ['has a gateway that answers nothing', () => (net.answer = () => null)],
    ['has a gateway that answers rubbish', () => (net.answer = () => said(200, '{"seq":[[[['))],
    ['has a gateway that never ends', () => (net.answer = () => 'x'.repeat(60_000))],
  ])(
    'one that %s',
    async (_, spoil) => {
      const well = await pumpOver(320);
      expect(well.length).toBeGreaterThan(2);
      await switchOn();
      await tell();
      spoil();
      expect(await pumpOver(320)).toEqual(well);
      expect(line.board.boots).toBe(1);
      expect(line.said).not.toContain('stopped by');
    },
    60_000,
  );
});

describe('an order from afar', () => {
  beforeEach(async () => {
    await tell();
    await seconds(3);
  });
  const toldOf = (id: string) => reports.flatMap((report) => report.orders).filter((one) => one.id === id);
  const order = (text: string): Answer['orders'] => [{ id: 'o1', text, liveS: 60 }];

  test('is obeyed once, however often it is told, and told of once', async () => {
    orders = order('give 1 40');
    await seconds(45);
    expect(line.levels.filter((one) => one === `${PUMP} 1`)).toHaveLength(1);
    expect(toldOf('o1')).toEqual([{ id: 'o1', state: 'taken' }]);
  });
  test('that its guards refuse is told with their reason', async () => {
    // A litre is all that it may give in a day.
    orders = order('give 1 600');
    await seconds(75);
    orders = [{ id: 'o2', text: 'give 1 600', liveS: 60 }];
    await seconds(75);
    orders = [{ id: 'o3', text: 'give 1 600', liveS: 60 }];
    await seconds(30);
    expect(toldOf('o1')).toEqual([{ id: 'o1', state: 'taken' }]);
    expect(toldOf('o3')).toEqual([{ id: 'o3', state: 'refused', why: 'daily-max' }]);
  });
  test.each(['load', 'net key 00'])('is not taken where it is %j', async (text) => {
    orders = order(text);
    await seconds(25);
    expect(toldOf('o1')).toEqual([{ id: 'o1', state: 'refused', why: 'only at its console' }]);
    expect(line.board.boots).toBe(1);
  });
  test('sets a limit within its guards, and is refused beyond them', async () => {
    orders = order('set 1 start 35.5');
    await seconds(25);
    expect(toldOf('o1')).toEqual([{ id: 'o1', state: 'taken' }]);
    expect(await line.ask('limits')).toContain('start 35.5');
    orders = [{ id: 'o2', text: 'set 1 start 150.0', liveS: 60 }];
    await seconds(25);
    expect(toldOf('o2')[0]?.state).toBe('refused');
  });
  test('asks for something, and what was asked for comes home', async () => {
    orders = order('limits');
    await seconds(25);
    expect(texts().some((text) => text.startsWith('# limits 1 '))).toBe(true);
  });
});

describe('settings that lay for it at the gateway', () => {
  beforeEach(async () => {
    await tell();
    await seconds(20);
  });
  const leave = (revision: number, ...settings: string[]) => listening({ revision, settings });
  const heard = () => reports.flatMap((one) => one.said.map(({ text }) => text));
  test('are taken in one go, told by their revision, and its limits come home with it', async () => {
    leave(4, 'set 1 start 42.5', 'set 1 dose 100', 'save');
    await seconds(30);
    expect(reports.at(-1)?.revision).toBe(4);
    expect(heard()).toContain('# settings 4 taken');
    expect(heard().some((text) => /^# limits 1 start 42\.5 dose 100 /.test(text))).toBe(true);
    // Told again and again, they are taken once.
    await seconds(60);
    expect(heard().filter((text) => text === '# settings 4 taken')).toHaveLength(1);
  });
  test('of which one is refused end there, and are not tried again', async () => {
    leave(5, 'set 1 dose 611', 'set 1 start 30.0');
    await seconds(60);
    expect(heard().filter((text) => text.startsWith('# settings 5 refused set 1 dose 611: '))).toHaveLength(
      1,
    );
    expect(await line.ask('limits')).toContain('start 40.0 dose 400');
    expect(reports.at(-1)?.revision).toBeUndefined();
    // The next change is looked at anew.
    leave(6, 'set 1 dose 50');
    await seconds(30);
    expect(reports.at(-1)?.revision).toBe(6);
  });
  test.each(['give 1 100', 'load', 'unlock 1', 'net key 00'])('are no way to say “%s”', async (text) => {
    leave(7, text);
    await seconds(40);
    expect(heard()).toContain(`# settings 7 refused ${text}: not a setting`);
    expect(reports.at(-1)?.revision).toBeUndefined();
  });
});

describe('a pump whose probe is at another board', () => {
  beforeEach(async () => {
    await line.board.boot(
      changedFiles('abc000000009', ['net.py', 'radio.py', 'post.py'], (settings) =>
        settings
          .replace('NETWORK = None', 'NETWORK = Fields(over="http", garden="hare", board="roof", every_s=10)')
          .replace('INPUTS = [("analog", (34,), "c2")]', 'INPUTS = [("far", (0, 0, 0, 0), "channel-c2")]'),
      ),
    );
    reports.length = 0;
    await tell();
  });
  /** Between 1000 (all wet) and 3000 (all dry); it starts below 40 %, at more than 2200. */
  const told = (v: number | null) => listening({ far: v === null ? [] : [{ n: 'channel-c2', v }] });
  const starts = () => line.levels.filter((one) => one === `${PUMP} 1`).length;
  test('waters by what the gateway tells it, and says why', async () => {
    told(1500);
    await seconds(70);
    expect(starts()).toBe(0);
    told(2600);
    // It leapt, so it is let come to rest first.
    await seconds(70);
    expect(starts()).toBeGreaterThanOrEqual(1);
    expect(texts().some((text) => text.startsWith('# started 1 below-start'))).toBe(true);
    // It is no reading of its own, and is not reported as one.
    expect(reports.every(({ readings }) => readings.length === 0)).toBe(true);
  });
  test('rests when it hears nothing more: an old reading starts nothing', async () => {
    told(1500);
    await seconds(30);
    told(null);
    await seconds(90);
    expect(starts()).toBe(0);
    expect(texts().some((text) => /^# (held|line) 1 .*stale/.test(text))).toBe(true);
    // And dry, told before it fell silent, does not start it for ever either.
    told(2600);
    await seconds(15);
    told(null);
    const before = starts();
    await seconds(200);
    expect(starts() - before).toBeLessThanOrEqual(1);
  });
  test('goes by nothing that it did not ask for', async () => {
    listening({ far: [{ n: 'channel-m1', v: 2900 }] });
    await seconds(60);
    expect(starts()).toBe(0);
  });
});

test('beside a probe of its own, one at another board counts as long as it is told of, and three minutes more', async () => {
  // Numbers as they are, so the lowest of both is what the engine makes its percent of.
  const table = '((1000, 1000), (3000, 3000))';
  await line.board.boot(
    changedFiles('abc000000009', ['net.py', 'radio.py', 'post.py'], (settings) =>
      settings
        .replace('NETWORK = None', 'NETWORK = Fields(over="http", garden="hare", board="roof", every_s=10)')
        .replace('"c2")]', '"c2"), ("far", (0, 0, 0, 0), "channel-c1")]')
        .replace('FED_BY = (None,)', 'FED_BY = (None, None)')
        .replace(
          'SOURCES = [0]',
          `SOURCES = [("driest", ((0, ${table}, 1000, 3000), (1, ${table}, 1000, 3000)))]`,
        ),
    ),
  );
  await tell();
  const percents = async () => (await line.ask('all')).match(/# percent c2 (\S+)/)?.[1];
  line.raw = 2600 * 16;
  listening({ far: [{ n: 'channel-c1', v: 1500 }] });
  await seconds(30);
  expect(await percents()).toBe('75.0');
  listening({ far: [] });
  await seconds(150);
  expect(await percents()).toBe('75.0');
  await seconds(45);
  expect(await percents()).toBe('20.0');
});

describe('what it is told of its network', () => {
  test('stays on the board through a restart, and is said to nobody', async () => {
    await tell();
    await seconds(3);
    await line.board.cutPower();
    const before = reports.length;
    await seconds(4);
    expect(reports.length).toBeGreaterThan(before);
    const heard = await line.ask('net');
    expect(heard).toMatch(/# net (idle|speaking|joining), knows wifi password gateway key/);
    for (const secret of [KEY, 'Hare', 'a b'])
      expect(line.said.replace(/net key.*/g, '')).not.toContain(secret);
    for (const { body } of net.requests) expect(body).not.toContain(KEY);
  });
  test.each([
    ['a name instead of numbers', `net gateway ${hex('gateway.example:4860')}`],
    ['no port', `net gateway ${hex('192.168.1.5')}`],
    ['a port that is none', `net gateway ${hex('192.168.1.5:99999')}`],
    ['half a letter', 'net wifi 4d5'],
    ['no hexadecimal digits', 'net wifi zz'],
    ['something nobody knows', 'net ssid 4d'],
  ])('is refused where it is %s', async (_, typed) => {
    expect(await line.ask(typed)).toContain('# no: ');
  });
  test('a board that was told nothing stays alone', async () => {
    await seconds(30);
    expect(net.joinedAs).toBeNull();
    expect(await line.ask('net')).toContain('# net off, knows nothing');
  });
});
