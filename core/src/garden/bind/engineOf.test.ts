import { describe, expect, test } from 'vitest';
import { stepHost, switchOn } from '../../control/host/engineHost.ts';
import { engineInput } from '../../control/host/senses.ts';
import { setLimits, setWaterLine } from '../edits/plots.ts';
import { engineOf } from './engineOf.ts';
import { tankConfig } from './engineParts.ts';
import { airAndWater, firstChannel, firstLine, onePlot } from '../edits/gardenForTests.ts';
import type { Channel, Garden, Reservoir } from '../document/schema.ts';
import { sensesOf } from './sensesOf.ts';

const made = airAndWater(onePlot({ pump: { flowMlPerS: 9 } }), 3000, 1000).garden;
const calibrated = () => made;
const boardId = firstChannel(calibrated()).boardId;
const withLine = (change: Parameters<typeof setWaterLine>[2], garden = calibrated()): Garden =>
  setWaterLine(garden, firstLine(garden).id, change);
const lineOf = (garden: Garden) => engineOf(garden, boardId).config.lines[0];

describe('a board’s settings', () => {
  test('table, limits, plausible window and guards come from the garden, in whole numbers', () => {
    const garden = setLimits(
      withLine({ automatic: true, maxRunS: 15, tubeS: 1.24, flowMlPerS: 9.13, dailyMaxMl: 700 }),
      calibrated().plots[0]?.id ?? '',
      { startTenths: 250, stopTenths: 500 },
    );
    const { config, lineIds, sensors } = engineOf(garden, boardId);
    expect(lineIds).toEqual([firstLine(garden).id]);
    expect(sensors).toMatchObject([
      { by: 'one', members: [{ channelId: firstChannel(garden).id, factor: 1 }] },
    ]);
    expect(config.sensors[0]).toMatchObject({
      table: [
        { raw: 1000, tenths: 1000 },
        { raw: 3000, tenths: 0 },
      ],
      lowRaw: 20,
      highRaw: 4075,
      staleAfterS: 60,
      leapTenths: 50,
    });
    expect(config.lines[0]).toMatchObject({
      enabled: true,
      sensor: 0,
      tank: null,
      // 9.13 · 60 = 547.8; 1.24 s.
      flowMlPerMin: 548,
      tubeMs: 1240,
      program: { kind: 'pulse-soak', startTenths: 250, stopTenths: 500 },
      guards: {
        maxRunS: 15,
        dailyMaxMl: 700,
        minIntervalS: 600,
        riseTenths: 20,
        responseS: 900,
        noRiseTimes: 3,
      },
    });
  });
  test('a new line waits for its person, and another board has nothing of it', () => {
    expect(lineOf(calibrated())?.enabled).toBe(false);
    expect(engineOf(calibrated(), 'elsewhere').config.lines).toEqual([]);
  });
  test('without a calibration that holds here there is no sensor, and the engine says so', () => {
    const garden = withLine({ automatic: true }, onePlot({ pump: { flowMlPerS: 9 } }));
    const engine = engineOf(garden, garden.boards[0]?.id ?? '');
    expect(engine.config.lines[0]?.sensor).toBeNull();
    const { hosted } = stepHost(
      switchOn(engine, {}, 0),
      engine,
      sensesOf(garden, () => null),
      700_000,
    );
    expect(hosted.state.lines[0]?.reason).toBe('not-calibrated');
    const at5V = calibrated();
    const moved = { ...at5V, boards: at5V.boards.map((board) => ({ ...board, supplyV: 5 })) };
    expect(lineOf(moved)?.sensor).toBeNull();
  });
  test('times of day and degrees become seconds and tenths', () => {
    const garden = withLine({
      program: { kind: 'veto', slots: [{ minute: 390, days: 31 }], doseMl: 120, interrupts: true },
      conditions: {
        hours: { fromMinute: 1200, toMinute: 420 },
        darkBelow: 300,
        airBelowC: 28.5,
        soilAboveC: 2,
        noRain: true,
        noSkip: true,
        batteryAboveV: 11.8,
      },
    });
    expect(lineOf(garden)).toMatchObject({
      program: { slots: [{ daySecond: 23_400, days: 31 }], wetTenths: 600 },
      conditions: {
        hours: { fromS: 72_000, toS: 25_200 },
        darkBelow: 300,
        airBelowTenthsC: 285,
        soilAboveTenthsC: 20,
        noRain: true,
        noSkip: true,
        batteryAboveMv: 11_800,
      },
    });
  });
  test('a follower finds its leader by place, or nobody', () => {
    const garden = calibrated();
    const leader = firstLine(garden);
    const second = (leaderId: string) => ({
      ...leader,
      id: 'second',
      program: { kind: 'follower', leaderId, sharePercent: 80, everyNth: 1 } as const,
    });
    const at = (leaderId: string) =>
      engineOf({ ...garden, waterLines: [leader, second(leaderId)] }, boardId).config.lines[1]?.program;
    expect(at(leader.id)).toMatchObject({ kind: 'follower', leader: 0 });
    expect(at('gone')).toMatchObject({ leader: -1 });
  });
});

describe('a reservoir', () => {
  const tank: Reservoir = {
    id: 'tank',
    name: 'Tank',
    kind: 'level',
    float: { highIs: 'water', threshold: 0.5 },
    channelId: 'distance',
    levels: [
      { raw: 400, volumeMl: 0 },
      { raw: 100, volumeMl: 30_000 },
    ],
    minimumMl: 3000,
  };
  test('its minimum becomes a raw value, rounded towards more water', () => {
    // Straight between two levels: 3000 of 30000 ml is at 400 − 30 = 370.
    expect(tankConfig(tank)).toMatchObject({
      minimumRaw: 370,
      fallsWithWater: true,
      lowRaw: 10,
      highRaw: 490,
    });
    const rising = { ...tank, levels: tank.levels.map((one) => ({ ...one, raw: 500 - one.raw })) };
    expect(tankConfig(rising)).toMatchObject({ minimumRaw: 130, fallsWithWater: false });
    expect(tankConfig({ ...tank, minimumMl: 3040 }).minimumRaw).toBe(369);
  });
  test('a float is there or not; what is not described is never known', () => {
    expect(tankConfig({ ...tank, kind: 'float', levels: [] })).toMatchObject({
      minimumRaw: 1,
      lowRaw: 0,
      highRaw: 1,
    });
    for (const bad of [
      { ...tank, channelId: null },
      { ...tank, levels: [] },
    ]) {
      const { lowRaw, highRaw } = tankConfig(bad);
      expect(lowRaw).toBeGreaterThan(highRaw);
    }
  });
});

describe('what the engine is told', () => {
  const channel = (
    id: string,
    quantity: Channel['quantity'],
    correction: Channel['correction'],
  ): Channel => ({
    ...firstChannel(calibrated()),
    id,
    probeId: null,
    quantity,
    correction,
    calibrationId: null,
  });
  const garden: Garden = {
    ...withLine({
      conditions: {
        hours: null,
        darkBelow: 300,
        airBelowC: null,
        soilAboveC: null,
        noRain: false,
        noSkip: false,
        batteryAboveV: null,
      },
    }),
    channels: [
      ...calibrated().channels,
      channel('air', 'air temperature', { kind: 'none' }),
      channel('light', 'light', { kind: 'none' }),
      channel('rain', 'rain', { kind: 'none' }),
      channel('bat', 'battery voltage', {
        kind: 'line',
        gain: 4,
        offset: 0,
        madeAt: '2026-05-01T10:00:00Z',
        against: 'a meter',
      }),
    ],
  };
  const engine = engineOf(garden, boardId);
  const told = (values: Record<string, number>, atS = 100) =>
    engineInput(
      engine,
      sensesOf(garden, (id) => (values[id] === undefined ? null : { raw: values[id], timeMs: atS * 1000 })),
      100_000,
      0,
    );
  test('newest values, corrected and whole; what is too old is unknown', () => {
    const input = told({ [firstChannel(garden).id]: 2100.4, air: 18.26, light: 299, rain: 1, bat: 3.105 });
    expect(input).toMatchObject({
      sensors: [{ raw: 2100, atS: 100 }],
      around: [{ airTenthsC: 183, light: 299, rain: true, soilTenthsC: null }],
      batteryMv: 12_420,
    });
    const about = (values: Record<string, number>, atS?: number) => told(values, atS).around[0];
    expect(about({ light: 300, rain: 0 })).toMatchObject({ light: 300, rain: false, airTenthsC: null });
    expect(about({ air: 18, rain: 0 }, -801)).toMatchObject({ airTenthsC: null, rain: null });
    expect(about({ air: 18 }, -800)?.airTenthsC).toBe(180);
  });
});
