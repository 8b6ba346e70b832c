/** A board that sleeps between its readings, in the real interpreter: to wake is not to be switched on. */
import { beforeEach, describe, expect, test } from 'vitest';
import { readReport, type Answer, type Report } from '@plain-trowel/core/protocol/report';
import { BoardOnALine, changedFiles, PUMP } from './boardForTests.ts';
import { GatewayOnANet, said } from './gatewayForTests.ts';

const DRY = 2600 * 16;
const WET = 1200 * 16;
const NAME = 'abc000000009';
const EVERY_S = 300;
const AWAKE_S = 4;
const PATH = '/trowel_asleep';

let line: BoardOnALine;

const sleeping = (settings: string): string =>
  settings
    .replace('SLEEP = None', `SLEEP = Fields(every_s=${EVERY_S}, awake_s=${AWAKE_S})`)
    .replace('stale_after_s=60', 'stale_after_s=900');

async function switchOn(raw: number, change = (settings: string) => settings): Promise<void> {
  line = new BoardOnALine();
  line.raw = raw;
  await line.board.boot(changedFiles(NAME, ['sleeper.py'], (settings) => change(sleeping(settings))));
}

const secondsOf = () => line.said.split('# asleep for ').length - 1;
const isAsleep = () => line.board.isAsleep;
/** Until it sleeps, and until it is awake. */
const untilAsleep = async () => {
  while (!isAsleep()) await line.wait(1000);
};
const untilAwake = async () => {
  while (isAsleep()) await line.wait(1000);
};
const levels = () => line.levels.filter((one) => one.startsWith(`${PUMP} `));
/** What the pump gave, ml, as the console said it. */
const given = () => [...line.said.matchAll(/# stopped 1 \S+ \d+ s (\d+) ml/g)].map(([, ml]) => Number(ml));
/** Lets time go by until it has woken so many times. */
async function wakings(count: number): Promise<void> {
  for (let left = count; left > 0; left -= 1) {
    await untilAsleep();
    await untilAwake();
  }
}

describe('a board that sleeps', () => {
  test('stays awake for two minutes after it was switched on, then wakes as often as it is set', async () => {
    await switchOn(WET);
    await line.seconds(119);
    expect(isAsleep()).toBe(false);
    await line.seconds(5);
    expect(isAsleep()).toBe(true);
    await line.seconds(3600);
    expect(secondsOf()).toBeGreaterThanOrEqual(3600 / EVERY_S);
    expect(secondsOf()).toBeLessThanOrEqual(2 + 3600 / EVERY_S);
    // Each time it read, and said so.
    expect(line.said.split('# awake')[3]).toMatch(/c2=1200/);
  });

  test('waters within seconds of waking: the minimum interval has not begun anew', async () => {
    await switchOn(WET);
    await wakings(3);
    line.raw = DRY;
    // It leaps at the first reading, and is believed at the next.
    await wakings(1);
    await line.seconds(AWAKE_S + 1);
    expect(levels().at(-1)).toBe(`${PUMP} 1`);
    // It does not sleep while its pump runs, and what it gave is what it was to give.
    await line.seconds(60);
    expect(given()).toEqual([400]);
    expect(levels().at(-1)).toBe(`${PUMP} 0`);
  });

  test('a skip goes through its sleeps by the whole of them', async () => {
    await switchOn(WET);
    await line.type('skip 1 7200\n');
    line.raw = DRY;
    await line.seconds(7100);
    expect(levels().at(-1)).toBe(`${PUMP} 0`);
    await line.seconds(2 * EVERY_S);
    expect(given().length + Number(levels().at(-1) === `${PUMP} 1`)).toBeGreaterThan(0);
  });

  test('counts the day through its sleeps, to the millilitre, and forgets it when it is over', async () => {
    await switchOn(DRY, (settings) =>
      settings.replace('every_s=300', 'every_s=1200').replace('stale_after_s=900', 'stale_after_s=3000'),
    );
    await line.seconds(10 * 3600);
    expect(given()).toEqual([400, 400, 200]);
    await line.seconds(18 * 3600);
    expect(given().reduce((sum, ml) => sum + ml, 0)).toBe(2000);
  });

  test('a timer that is a twentieth fast makes no pause shorter; the local time goes by the whole sleep', async () => {
    await switchOn(DRY, (settings) =>
      settings
        .replace(' min_interval_s=60', ' min_interval_s=3600')
        .replace('daily_max_ml=1000', 'daily_max_ml=90000'),
    );
    line.board.sleepsFrac = 0.95;
    const starts: number[] = [];
    for (let at = 0, was = 0; at < 6 * 3600; at += 1) {
      await line.wait(1000);
      const now = levels().filter((one) => one.endsWith(' 1')).length;
      if (now > was) starts.push(line.nowMs / 1000);
      was = now;
    }
    const pauses = starts.slice(1).map((s, at) => s - (starts[at] ?? 0));
    expect(pauses.length).toBeGreaterThan(2);
    expect(Math.min(...pauses)).toBeGreaterThanOrEqual(3600);
  });

  test('keeps its lock', async () => {
    // Doses that never show: three lock the line.
    await switchOn(DRY, (settings) =>
      settings
        .replace('rise_tenths=0', 'rise_tenths=20')
        .replace('proves_below_tenths=0', 'proves_below_tenths=600')
        .replace('daily_max_ml=1000', 'daily_max_ml=90000'),
    );
    await line.seconds(3 * 3600);
    expect(line.said).toContain('# locked 1 locked');
    expect(given()).toEqual([400, 400, 400]);
    await line.seconds(2 * 3600);
    expect(given()).toEqual([400, 400, 400]);
  });

  test('goes on from nothing but what it wrote itself: cut off, damaged or of another program it begins as after a restart', async () => {
    await switchOn(WET);
    await wakings(1);
    await untilAsleep();
    const written = line.board.files().get(PATH);
    expect(written?.length).toBeGreaterThan(100);
    // Power goes while it sleeps.
    const from = line.said.length;
    await line.board.cutPower();
    expect(line.said.slice(from)).toContain(`# version 1 ${NAME}`);
    expect(line.said.slice(from)).not.toContain('# awake');
    expect(line.board.files().has(PATH)).toBe(false);
    // Damaged: a digit is another.
    await line.seconds(130);
    expect(isAsleep()).toBe(true);
    line.board.spoil(PATH);
    await untilAwake();
    await line.seconds(100);
    expect(line.said).toContain('# what it knew before its sleep is lost: it begins as after a restart');
    expect(isAsleep()).toBe(false);
  });

  test('stays awake while somebody types, and takes what was set into its sleep', async () => {
    await switchOn(WET);
    await line.seconds(100);
    expect(await line.ask('set 1 start 35.5')).toContain('# taken');
    await line.seconds(110);
    expect(isAsleep()).toBe(false);
    await line.seconds(20);
    expect(isAsleep()).toBe(true);
    // Nobody hears what is typed now.
    expect(await line.ask('limits')).toBe('');
    await untilAwake();
    expect(await line.ask('limits')).toContain('start 35.5');
    await line.seconds(60);
    expect(isAsleep()).toBe(false);
  });
});

describe('over the network', () => {
  let net: GatewayOnANet;
  const reports: Report[] = [];
  const heardAtS: number[] = [];
  const answers = (more: Partial<Answer> = {}) => {
    net.answer = ({ body }) => {
      const read = readReport(body);
      if (!read.ok) return said(400, { error: JSON.stringify(read.issue) });
      reports.push(read.value);
      heardAtS.push(line.nowMs / 1000);
      const empty = { revision: 0, settings: [], orders: [], far: [], clock: null, sun: null, everyS: 10 };
      return said(200, { seq: read.value.seq, ...empty, ...more } satisfies Answer);
    };
  };
  beforeEach(async () => {
    reports.length = 0;
    heardAtS.length = 0;
    net = new GatewayOnANet();
    net.bytesAtOnce = 100_000;
    line = new BoardOnALine({ net: net.wires });
    line.raw = WET;
    answers();
    await line.board.boot(
      changedFiles(NAME, ['sleeper.py', 'net.py', 'radio.py', 'post.py'], (settings) =>
        sleeping(settings).replace(
          'NETWORK = None',
          'NETWORK = Fields(over="http", garden="hare", board="roof", every_s=10)',
        ),
      ),
    );
    for (const [name, value] of Object.entries({
      wifi: 'w',
      password: 'p',
      gateway: '192.168.1.5:4860',
      key: 'k'.repeat(40),
    }))
      await line.ask(`net ${name} ${Buffer.from(value).toString('hex')}`);
  });

  test('it tells of itself at each waking, as one start with numbers that go on, and sleeps soon after', async () => {
    await wakings(6);
    const awake: number[] = [];
    for (let turn = 0; turn < 4; turn += 1) {
      const from = line.nowMs;
      await untilAsleep();
      awake.push((line.nowMs - from) / 1000);
      await untilAwake();
    }
    expect(new Set(reports.map(({ boot }) => boot)).size).toBe(1);
    expect(reports.map(({ seq }) => seq)).toEqual(reports.map((_, at) => at + 1));
    expect(Math.max(...awake)).toBeLessThanOrEqual(15);
    // Of each sleep a twentieth is not counted: less has passed for it than did.
    const drift = reports.map(({ upS }, at) => (heardAtS[at] ?? 0) - upS);
    expect(Math.min(...drift)).toBeGreaterThanOrEqual(-1);
    expect((drift.at(-1) ?? 0) - (drift[0] ?? 0)).toBeLessThanOrEqual(reports.length * (EVERY_S / 20 + 1));
  });

  test('without a gateway it sleeps all the same, and tells everything when there is one again', async () => {
    await wakings(2);
    net.isListening = false;
    const from = line.nowMs / 1000;
    await line.seconds(3600);
    net.isListening = true;
    await wakings(4);
    // By the gateway's clock: ages go by the whole of each sleep.
    const taken = reports.flatMap(({ readings }, at) =>
      readings.map(({ agoS }) => (heardAtS[at] ?? 0) - agoS),
    );
    const meanwhile = taken.filter((s) => s > from && s < from + 3500);
    expect(meanwhile.length).toBeGreaterThanOrEqual(10);
    const pauses = meanwhile
      .slice(1)
      .map((s, at) => s - (meanwhile[at] ?? 0))
      .filter((s) => s > 60);
    for (const pause of pauses) expect(Math.abs(pause - EVERY_S)).toBeLessThanOrEqual(40);
  });

  test('an order that is there at its waking is obeyed before it sleeps again, and what came of it is told', async () => {
    await wakings(2);
    answers({ orders: [{ id: 'o1', text: 'give 1 100', liveS: 120 }] });
    await wakings(1);
    expect(given()).toEqual([100]);
    expect(reports.flatMap(({ orders }) => orders)).toEqual([{ id: 'o1', state: 'taken' }]);
    const texts = reports.flatMap((report) => report.said.map(({ text }) => text));
    expect(texts.some((text) => text.startsWith('# stopped 1 '))).toBe(true);
  });
});
