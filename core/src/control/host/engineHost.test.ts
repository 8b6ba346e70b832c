import { NOTHING_KEPT } from '../engine/border.ts';
import { describe, expect, test } from 'vitest';
import { configOf, DRY, GUARDS, LINE, MIDDLE, rawOf, SENSOR } from '../engine/engineForTests.ts';
import type { EngineConfig } from '../engine/settings.ts';
import { answersOf } from './answers.ts';
import { channelsOf, type BoardEngine } from './boardEngine.ts';
import {
  runningSinceMs,
  stepHost,
  switchOn,
  type HostEvent,
  type Hosted,
  type LineOrder,
} from './engineHost.ts';
import type { Senses } from './senses.ts';
import { skipLengthS } from './skips.ts';
import type { SensorSource } from './combined.ts';

const BOOT = Date.UTC(2026, 4, 1, 6);
const oneProbe = (channelId: string): SensorSource => ({
  by: 'one',
  members: [{ channelId, factor: 1, table: [], lowRaw: 0, highRaw: 4095 }],
});
const NOWHERE = { airId: null, lightId: null, rainId: null, soilId: null, skipId: null };

const boardOf = (
  lineIds: readonly string[] = ['roof'],
  config: EngineConfig = configOf({ guards: { ...GUARDS, minIntervalS: 60 } }),
): BoardEngine => ({
  boardId: 'board',
  config,
  lineIds,
  sensors: config.sensors.map((_, at) => oneProbe(`probe-${at}`)),
  tankIds: [],
  tankChannelIds: [],
  around: lineIds.map(() => NOWHERE),
  batteryId: null,
  contacts: [],
  contactIds: [],
  contactsAround: [],
});

const reading = (tenths: number, timeMs: number): Senses => ({
  newest: (id) => (id.startsWith('probe') ? { raw: rawOf(tenths), timeMs } : null),
  meant: (_, raw) => raw,
  localTime: () => null,
});

/** Steps each second from one time to another, s after boot. */
function through(
  hosted: Hosted,
  settings: BoardEngine,
  fromS: number,
  toS: number,
  tenths = DRY,
  orders: Readonly<Record<number, LineOrder>> = {},
): { hosted: Hosted; events: HostEvent[] } {
  let now = hosted;
  const events: HostEvent[] = [];
  for (let atS = fromS; atS <= toS; atS += 1) {
    const nowMs = BOOT + atS * 1000;
    const order = orders[atS];
    const step = stepHost(now, settings, reading(tenths, nowMs), nowMs, order ? [order] : []);
    now = step.hosted;
    events.push(...step.events.filter((event) => event.kind !== 'held'));
  }
  return { hosted: now, events };
}

const board = boardOf();
const begun = through(switchOn(board, {}, BOOT), board, 0, 65);

test('outside the engine times are ms since 1970, and lines go by their names', () => {
  expect(begun.events).toMatchObject([
    { kind: 'started', lineId: 'roof', atMs: BOOT + 60_000, plannedS: 20 },
  ]);
  expect(runningSinceMs(begun.hosted, 'roof')).toBe(BOOT + 60_000);
  expect(runningSinceMs(begun.hosted, 'elsewhere')).toBeNull();
  expect(begun.hosted.callMs).toBe(BOOT + 66_000);
  expect(answersOf(begun.hosted)).toMatchObject({ roof: { isOn: true, runningSinceMs: BOOT + 60_000 } });
});

test('an order reaches the line that it names, and no other', () => {
  const two = boardOf(['roof', 'cellar'], { ...board.config, lines: [LINE, { ...LINE, enabled: false }] });
  const order: LineOrder = { lineId: 'cellar', kind: 'water', volumeMl: 50 };
  const { events } = through(switchOn(two, {}, BOOT), two, 0, 10, MIDDLE, {
    1: { ...order, lineId: 'attic' },
    2: order,
  });
  expect(events.map(({ lineId, kind, reason }) => [lineId, kind, reason])).toEqual([
    ['cellar', 'started', 'order'],
    ['cellar', 'stopped', 'dose-done'],
  ]);
});

describe('new settings', () => {
  test('other limits go on with the run under way; a maximum that is loosened does not lengthen it', () => {
    const gentler = boardOf(['roof'], configOf({ guards: { ...GUARDS, minIntervalS: 60, maxRunS: 30 } }));
    const { events } = through(begun.hosted, gentler, 66, 95);
    expect(events).toMatchObject([{ kind: 'stopped', reason: 'max-run', ranS: 20 }]);
    const tighter = boardOf(['roof'], configOf({ guards: { ...GUARDS, maxRunS: 10 } }));
    expect(through(begun.hosted, tighter, 66, 95).events).toMatchObject([{ kind: 'stopped', ranS: 10 }]);
  });

  test('with other lines the board begins again: what ran is told as ended, with what it gave', () => {
    const other = boardOf(['new', 'roof'], { ...board.config, lines: [LINE, LINE] });
    const { hosted, events } = through(begun.hosted, other, 66, 66);
    // 600 ml a minute for 6 s.
    expect(events).toMatchObject([
      { kind: 'stopped', lineId: 'roof', reason: 'settings-changed', ranS: 6, volumeMl: 60 },
    ]);
    expect(answersOf(hosted)).toMatchObject({
      new: { isOn: false, givenMl: 0 },
      // Until its end is written down, a run counts with all that it might still give: 20 s at the most.
      roof: { isOn: false, reason: 'min-interval', givenMl: 200 },
    });
  });

  test('a line that was taken away is told as ended too, and what it gave counts when it comes back', () => {
    const gone = boardOf([], { ...board.config, lines: [] });
    const without = through(begun.hosted, gone, 66, 70);
    expect(without.events).toMatchObject([{ kind: 'stopped', lineId: 'roof', ranS: 6 }]);
    const back = through(without.hosted, board, 71, 71);
    expect(answersOf(back.hosted)).toMatchObject({ roof: { isOn: false, givenMl: 200 } });
  });
});

test('a board switched off and on holds its interval again and keeps the day’s volume and the lock', () => {
  const deaf = boardOf(['roof'], configOf({ guards: { ...GUARDS, minIntervalS: 60, noRiseTimes: 1 } }));
  const { hosted, events } = through(switchOn(deaf, {}, BOOT), deaf, 0, 1000);
  expect(events.map(({ kind }) => kind)).toEqual(['started', 'stopped', 'locked']);
  const again = switchOn(deaf, hosted, BOOT + 2_000_000);
  expect(answersOf(again)).toMatchObject({ roof: { isOn: false, givenMl: 200, isLocked: true } });
});

test('a clock that is set to before the boot: outputs off, nothing forgotten, and time counts from there', () => {
  const back = BOOT - 3 * 3_600_000;
  const { hosted, events } = stepHost(begun.hosted, board, reading(DRY, back), back);
  expect(events[0]).toMatchObject({ kind: 'stopped', reason: 'clock-went-back', ranS: 5, volumeMl: 50 });
  expect(hosted.bootMs).toBe(back);
  expect(answersOf(hosted)).toMatchObject({ roof: { isOn: false, givenMl: 200 } });
  // The run that was cut is watched for its rise before another begins.
  const waits = stepHost(hosted, board, reading(DRY, back + 60_000), back + 60_000);
  expect(waits.events).toMatchObject([{ kind: 'held', reason: 'waiting-for-rise' }]);
  const later = stepHost(waits.hosted, board, reading(DRY, back + 900_000), back + 900_000);
  expect(later.events).toMatchObject([{ kind: 'started', atMs: back + 900_000 }]);
});

test('the channels of a board, each once', () => {
  const shared = boardOf(['a', 'b'], { ...board.config, sensors: [SENSOR, SENSOR] });
  expect(
    channelsOf({
      ...shared,
      sensors: [oneProbe('probe'), oneProbe('probe')],
      tankChannelIds: [null, 'tank'],
      around: [
        { ...NOWHERE, airId: 'air' },
        { ...NOWHERE, airId: 'air', soilId: 'soil' },
      ],
      batteryId: 'battery',
    }),
  ).toEqual(['probe', 'tank', 'air', 'soil', 'battery']);
});

test('the first line of a board takes orders like any other', () => {
  const order: LineOrder = { lineId: 'roof', kind: 'water', volumeMl: 50 };
  const { events } = through(switchOn(board, {}, BOOT), board, 0, 3, MIDDLE, { 2: order });
  expect(events).toMatchObject([{ kind: 'started', lineId: 'roof', reason: 'order', atMs: BOOT + 2000 }]);
});

test('events are counted from the boot on, so that a board and its boot give each a name of its own', () => {
  const all: HostEvent[] = [];
  let hosted = switchOn(board, {}, BOOT);
  for (let atS = 0; atS <= 200; atS += 1) {
    const step = stepHost(hosted, board, reading(DRY, BOOT + atS * 1000), BOOT + atS * 1000);
    hosted = step.hosted;
    all.push(...step.events);
  }
  expect(all.length).toBeGreaterThan(3);
  expect(all.map((event) => event.seq)).toEqual(all.map((_, at) => at));
  expect(new Set(all.map((event) => `${event.boardId} ${event.bootMs}`))).toEqual(new Set([`board ${BOOT}`]));
});

test('two events of one moment are numbered one after the other', () => {
  const two = boardOf(['roof', 'bed'], configOf({}, { lines: [LINE, LINE] }));
  const water = (lineId: string): LineOrder => ({ lineId, kind: 'water', volumeMl: 50 });
  const before = through(switchOn(two, {}, BOOT), two, 0, 3, MIDDLE).hosted;
  const nowMs = BOOT + 4000;
  const { events, hosted } = stepHost(before, two, reading(MIDDLE, nowMs), nowMs, [
    water('roof'),
    water('bed'),
  ]);
  expect(events.length).toBeGreaterThan(1);
  expect(events.map((event) => event.seq)).toEqual(events.map((_, at) => before.told + at));
  expect(hosted.told).toBe(before.told + events.length);
});

test('a board writes down what it keeps at starts and ends, not while it holds or refuses', () => {
  const refused: LineOrder = { lineId: 'roof', kind: 'water', volumeMl: 50 };
  const off = switchOn(board, { memory: { roof: { ...NOTHING_KEPT, hoursMl: [5000] } } }, BOOT);
  // The day has had its maximum: an order is refused, the line holds.
  const held = stepHost(off, board, reading(DRY, BOOT + 90_000), BOOT + 90_000, [refused]);
  expect(held.events.map(({ kind }) => kind).sort()).toEqual(['held', 'refused']);
  expect(held.hosted.memory).toBe(off.memory);
  expect(begun.hosted.memory.roof?.hoursMl[0]).toBe(200);
});

test('a probe that is known to be moving starts nothing', () => {
  const nowMs = BOOT + 70_000;
  const at = (isMoving: boolean) =>
    stepHost(switchOn(board, {}, BOOT), board, { ...reading(DRY, nowMs), isMoving: () => isMoving }, nowMs);
  expect(at(true).hosted.state.lines[0]?.reason).toBe('unsettled');
  expect(at(false).events).toMatchObject([{ kind: 'started' }]);
});

test('a line that has had its day says when some of it is free again', () => {
  // 200 ml in the first hour; the day has had its maximum.
  const full = boardOf(['roof'], configOf({ guards: { ...GUARDS, minIntervalS: 60, dailyMaxMl: 200 } }));
  const off = switchOn(full, { memory: { roof: { ...NOTHING_KEPT, hoursMl: [0, 0, 200] } } }, BOOT);
  const nowMs = BOOT + 90_000;
  const { hosted } = stepHost(off, full, reading(DRY, nowMs), nowMs);
  // It is two hours old at boot, and forgotten when it is 25.
  expect(answersOf(hosted).roof).toMatchObject({
    reason: 'daily-max',
    mayStartAtMs: BOOT + 23 * 3_600_000,
  });
});

describe('a line that is skipped', () => {
  const HOUR_S = 3600;
  const skip = (forS: number): LineOrder => ({ lineId: 'roof', kind: 'skip', forS });
  const starts = (events: readonly HostEvent[]) =>
    events.filter(({ kind }) => kind === 'started').map(({ atMs }) => (atMs - BOOT) / 1000);

  test('starts nothing by itself until then, and begins again at that very second', () => {
    const run = through(switchOn(board, {}, BOOT), board, 0, HOUR_S + 200, DRY, { 10: skip(HOUR_S) });
    expect(starts(run.events)[0]).toBe(HOUR_S + 10);
    const at = through(switchOn(board, {}, BOOT), board, 0, 600, DRY, { 10: skip(HOUR_S) });
    expect(answersOf(at.hosted).roof).toMatchObject({
      reason: 'switched-off',
      skippedUntilMs: BOOT + (HOUR_S + 10) * 1000,
    });
    // Who sleeps until the engine wants to be called is awake by then.
    expect(at.hosted.callMs).toBeLessThanOrEqual(BOOT + (HOUR_S + 10) * 1000);
  });
  test('ends a run that the program has begun, and no order by hand', () => {
    const cut = through(begun.hosted, board, 66, 70, DRY, { 66: skip(HOUR_S) });
    expect(cut.events).toMatchObject([{ kind: 'stopped', reason: 'switched-off' }]);
    const ordered = through(switchOn(board, {}, BOOT), board, 0, 140, DRY, {
      5: skip(HOUR_S),
      100: { lineId: 'roof', kind: 'water', volumeMl: 50 },
    });
    expect(ordered.events).toMatchObject([{ kind: 'started', reason: 'order' }, { kind: 'stopped' }]);
  });
  test('is let go before its time by a skip of nothing', () => {
    const run = through(switchOn(board, {}, BOOT), board, 0, 400, DRY, { 10: skip(HOUR_S), 200: skip(0) });
    expect(starts(run.events)).toEqual([200]);
    expect(answersOf(run.hosted).roof?.skippedUntilMs).toBe(null);
  });
  test('stays skipped when its settings change and when the board is switched off and on', () => {
    const at = through(switchOn(board, {}, BOOT), board, 0, 60, DRY, { 10: skip(HOUR_S) }).hosted;
    const again = switchOn(board, at, BOOT + 60_000);
    expect(answersOf(through(again, board, 61, 62).hosted).roof?.skippedUntilMs).toBe(
      BOOT + (HOUR_S + 10) * 1000,
    );
  });
  test('is no other line, and no skip is longer than 32 days', () => {
    const stray = through(switchOn(board, {}, BOOT), board, 0, 100, DRY, {
      10: { lineId: 'elsewhere', kind: 'skip', forS: HOUR_S },
    });
    expect(starts(stray.events)).toHaveLength(1);
    const long = through(switchOn(board, {}, BOOT), board, 0, 20, DRY, { 10: skip(1e9) });
    expect(answersOf(long.hosted).roof?.skippedUntilMs).toBe(BOOT + 10_000 + 32 * 86_400_000);
  });
});

test.each([
  // Midnight, just before six, six on the dot, and the evening.
  [0, 21_600],
  [21_599, 1],
  [21_600, 86_400],
  [72_000, 36_000],
])('at second %i of the day the next six in the morning is %i s away', (daySecond, asked) =>
  expect(skipLengthS('morning', daySecond)).toBe(asked),
);
