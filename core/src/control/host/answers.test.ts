import { expect, test } from 'vitest';
import { configOf, DRY, GUARDS, MIDDLE, rawOf, SENSOR } from '../engine/engineForTests.ts';
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
