import { describe, expect, test } from 'vitest';
import { configOf, DRY, GUARDS, MIDDLE, NO_CONDITIONS, rawOf, SENSOR } from '../engine/engineForTests.ts';
import type { Program } from '../programs/programs.ts';
import { answersOf } from './answers.ts';
import type { BoardEngine } from './boardEngine.ts';
import type { SensorSource } from './combined.ts';
import { stepHost, switchOn, type Hosted, type LineOrder } from './engineHost.ts';

const oneProbe = (channelId: string): SensorSource => ({
  by: 'one',
  members: [{ channelId, factor: 1, table: [], lowRaw: 0, highRaw: 4095 }],
});

const BOOT = Date.UTC(2026, 4, 1, 6);

const boardOf = (program: Program, guards: Partial<typeof GUARDS> = {}): BoardEngine => ({
  boardId: 'board',
  config: configOf({ program, guards: { ...GUARDS, minIntervalS: 60, responseS: 120, ...guards } }),
  lineIds: ['roof'],
  sensors: [oneProbe('probe')],
  tankIds: [],
  tankChannelIds: [],
  around: [],
  batteryId: null,
  contacts: [],
  contactIds: [],
  contactsAround: [],
});

/** Steps each second up to a second after boot, the probe reading what it is told. */
function until(
  board: BoardEngine,
  toS: number,
  tenths: (atS: number) => number,
  orders: readonly LineOrder[] = [],
) {
  let hosted: Hosted = switchOn(board, {}, BOOT);
  for (let atS = 0; atS <= toS; atS += 1) {
    const timeMs = BOOT + atS * 1000;
    const senses = {
      newest: () => ({ raw: rawOf(tenths(atS)), timeMs }),
      meant: () => null,
      localTime: () => null,
    };
    hosted = stepHost(hosted, board, senses, timeMs, atS === toS ? orders : []).hosted;
  }
  return answersOf(hosted).roof;
}

const PULSE: Program = {
  kind: 'pulse-soak',
  startTenths: 300,
  stopTenths: 600,
  pulseMl: 100,
  soakS: 300,
  mostPulses: 1,
  restS: 4000,
};
/** Ten seconds at ten ml a second, from the end of the boot hold. */
const ENDED_S = 70;

test('while it runs: since when, for how long, and that no start is waited for', () => {
  expect(until(boardOf(PULSE), 65, () => DRY)).toMatchObject({
    isOn: true,
    reason: 'below-start',
    runningSinceMs: BOOT + 60_000,
    plannedS: 10,
    mayStartAtMs: null,
    pulses: 1,
    isLocked: false,
    noRise: 0,
  });
});

test.each([
  ['the boot hold', PULSE, 10, () => DRY, 'min-interval', 60],
  ['the soak', { ...PULSE, mostPulses: 2 }, 100, () => DRY, 'soaking', ENDED_S + 300],
  ['the rest', PULSE, 600, () => DRY, 'pulses-used', ENDED_S + 4000],
  [
    'the time between two doses',
    { kind: 'single-dose', startTenths: 300, doseMl: 100, intervalS: 900 },
    950,
    (atS: number) => (atS > 920 ? DRY : DRY + 30),
    'dose-interval',
    // The dose came when the interval since boot was over.
    1800,
  ],
  [
    'a dose that is being watched for',
    { kind: 'until-wet', startTenths: 300, stopTenths: 600, capMl: 100 },
    // The minimum interval counts from the start of the run, the response time from its end.
    125,
    () => DRY,
    'waiting-for-rise',
    ENDED_S + 120,
  ],
] as const)('%s says until when', (_, program, atS, tenths, reason, mayS) => {
  expect(until(boardOf(program as Program), atS, tenths)).toMatchObject({
    isOn: false,
    reason,
    runningSinceMs: null,
    plannedS: null,
    mayStartAtMs: BOOT + mayS * 1000,
  });
});

test('soil that is wet enough holds for no time that could be named', () => {
  expect(until(boardOf(PULSE), 700, () => MIDDLE)).toMatchObject({
    reason: 'not-below-start',
    mayStartAtMs: null,
  });
});

test('what was given counts, and a lock is told', () => {
  const locked = until(boardOf(PULSE, { noRiseTimes: 1 }), 400, () => DRY);
  expect(locked).toMatchObject({ isLocked: true, noRise: 1, givenMl: 100 });
});

test('after a leap: until it has had its time to settle', () => {
  const board = boardOf(PULSE);
  const leaping = {
    ...board,
    config: { ...board.config, sensors: [{ ...SENSOR, leapTenths: 50, settleS: 400 }] },
  };
  expect(until(leaping, 100, (atS) => (atS < 90 ? MIDDLE : DRY))).toMatchObject({
    reason: 'unsettled',
    mayStartAtMs: BOOT + 490_000,
  });
});

describe('by the clock of the day', () => {
  const at = (program: Program, hour: number, weekday = 2, conditions = NO_CONDITIONS) => {
    const board = {
      ...boardOf(program),
      config: configOf({ program, conditions, guards: { ...GUARDS, minIntervalS: 60 } }),
    };
    const nowMs = BOOT + 90_000;
    const senses = {
      newest: () => ({ raw: rawOf(DRY), timeMs: nowMs }),
      meant: () => null,
      localTime: () => ({ daySecond: hour * 3600, weekday }),
    };
    return answersOf(stepHost(switchOn(board, {}, BOOT), board, senses, nowMs).hosted).roof;
  };
  const AT_SIX = { kind: 'timer', doseMl: 100, slots: [{ daySecond: 6 * 3600, days: 127 }] } as const;

  test('a timer says when its next time is', () =>
    expect(at(AT_SIX, 20)).toMatchObject({
      reason: 'not-due',
      mayStartAtMs: BOOT + 90_000 + 10 * 3_600_000,
    }));
  test('also where that is days away: on a Wednesday the next Monday', () =>
    expect(at({ ...AT_SIX, slots: [{ daySecond: 6 * 3600, days: 1 }] }, 20)).toMatchObject({
      mayStartAtMs: BOOT + 90_000 + (4 * 24 + 10) * 3_600_000,
    }));
  test('today’s time that has passed comes again in a week', () =>
    expect(at({ ...AT_SIX, slots: [{ daySecond: 6 * 3600, days: 1 << 2 }] }, 20)).toMatchObject({
      mayStartAtMs: BOOT + 90_000 + (6 * 24 + 10) * 3_600_000,
    }));
  test('hours say when they begin', () =>
    expect(at(PULSE, 12, 2, { ...NO_CONDITIONS, hours: { fromS: 19 * 3600, toS: 7 * 3600 } })).toMatchObject({
      reason: 'outside-hours',
      mayStartAtMs: BOOT + 90_000 + 7 * 3_600_000,
    }));
});
