import { describe, expect, test } from 'vitest';
import { setBoardWatch } from '../edits/bench.ts';
import { setPlot, setWaterLine } from '../edits/plots.ts';
import { airAndWater, firstChannel, firstLine, onePlot } from '../edits/gardenForTests.ts';
import { signalFacts, signalLimits, tankNow, valueNow, type Heard } from './plotFacts.ts';
import { tankTrouble } from '../../control/engine/trust.ts';
import { tankConfig } from './engineParts.ts';
import { watchedOf } from './watched.ts';
import type { Channel, Garden } from '../document/schema.ts';

const base = airAndWater(onePlot({ pump: { flowMlPerS: 9 } }), 3000, 1000).garden;
const probe = firstChannel(base);
const plotId = base.plots[0]?.id ?? '';
const extra = (id: string, quantity: Channel['quantity']): Channel => ({
  ...probe,
  id,
  probeId: null,
  quantity,
  calibrationId: null,
});
const garden: Garden = {
  ...setPlot(base, plotId, { warmth: { soilLowC: null, soilHighC: null, airLowC: 2, airHighC: 35 } }),
  channels: [
    ...base.channels,
    extra('air', 'air temperature'),
    extra('tank', 'distance'),
    extra('bat', 'battery voltage'),
  ],
  reservoirs: [
    {
      id: 'tub',
      name: 'Tub',
      kind: 'level',
      float: { highIs: 'water', threshold: 0.5 },
      channelId: 'tank',
      levels: [
        { raw: 400, volumeMl: 0 },
        { raw: 100, volumeMl: 30_000 },
      ],
      minimumMl: 3000,
    },
  ],
};
const NOW_MS = 10_000_000;
const heard = (values: Record<string, number>, ageS = 0, locked: boolean | null = false): Heard => ({
  nowMs: NOW_MS,
  newest: (id) => (values[id] === undefined ? null : { raw: values[id], timeMs: NOW_MS - ageS * 1000 }),
  isLocked: () => locked,
});
const tanked = setWaterLine(garden, firstLine(garden).id, { tankId: 'tub' });

describe('facts of a plot', () => {
  test('moisture to trust, temperatures in tenths, the tank of its line', () => {
    // 2500 is 25 %.
    expect(signalFacts(tanked, plotId, heard({ [probe.id]: 2500, air: 18.26, tank: 380 }))).toEqual({
      tenths: 250,
      unknown: null,
      isFaulty: false,
      hasFault: false,
      isOutOfSoil: false,
      isLocked: false,
      isWatering: false,
      isTankLow: true,
      soilTenthsC: null,
      airTenthsC: 183,
      isDark: null,
    });
    expect(signalFacts(tanked, plotId, heard({ tank: 200 }))?.isTankLow).toBe(false);
    expect(signalFacts(garden, plotId, heard({ tank: 380 }))?.isTankLow).toBe(false);
  });
  test.each([
    [4095, 0, true],
    [2500, 61, true],
    [2500, 60, false],
  ])('raw %d, %d s old: faulty %s', (raw, ageS, isFaulty) => {
    const facts = signalFacts(garden, plotId, heard({ [probe.id]: raw }, ageS));
    expect(facts).toMatchObject({ isFaulty, tenths: isFaulty ? null : 250 });
  });
  test('nothing heard is no fault, and no plot has no facts', () => {
    expect(signalFacts(garden, plotId, heard({}))).toMatchObject({
      tenths: null,
      isFaulty: false,
      unknown: 'no-reading',
    });
    expect(signalFacts(garden, 'nowhere', heard({}))).toBeNull();
  });
  test('why a plot is unknown: silent, at the rail, void, not calibrated, no probe, a tank that nobody hears', () => {
    const why = (from: Garden, values: Record<string, number>, ageS = 0) =>
      signalFacts(from, plotId, heard(values, ageS))?.unknown;
    const now = { [probe.id]: 2500 };
    expect(why(garden, now)).toBeNull();
    expect(why(garden, now, 61)).toBe('stale');
    expect(why(garden, { [probe.id]: 4095 })).toBe('implausible');
    const at5V = { ...garden, boards: garden.boards.map((one) => ({ ...one, supplyV: 5 })) };
    expect(why(at5V, now)).toBe('void');
    const bare = { ...garden, channels: garden.channels.map((one) => ({ ...one, calibrationId: null })) };
    expect(why(bare, now)).toBe('not-calibrated');
    expect(why({ ...garden, probes: [], channels: [] }, now)).toBe('no-probe');
    expect(why(tanked, now)).toBe('tank-unknown');
    expect(why(tanked, { ...now, tank: 200 })).toBeNull();
    // A probe that is out says more than a tank.
    expect(why(tanked, {})).toBe('no-reading');
  });
  test('limits of the lamp are the plot’s own', () => {
    const [plot] = garden.plots;
    expect(plot && signalLimits(plot)).toMatchObject({
      dryTenths: 350,
      wetTenths: 800,
      airLowTenthsC: 20,
      airHighTenthsC: 350,
      soilLowTenthsC: null,
    });
  });
});

test('a value is of now for a quarter of an hour', () => {
  const air = garden.channels.find((one) => one.id === 'air') ?? null;
  expect(valueNow(garden, air, heard({ air: 20 }, 900))).toBe(20);
  expect(valueNow(garden, air, heard({ air: 20 }, 901))).toBeNull();
  expect(valueNow(garden, null, heard({}))).toBeNull();
});

describe('a reservoir now', () => {
  const [tub] = garden.reservoirs;
  if (!tub) throw new Error('no tub');
  test.each([
    [250, { volumeMl: 15_000, isLow: false }],
    [371, { volumeMl: 2900, isLow: true }],
    // Beyond the known levels by a third: taken for a fault.
    [500, null],
  ])('at %d mm', (raw, expected) => {
    const now = tankNow(tub, heard({ tank: raw }));
    expect(now && { ...now, volumeMl: Math.round(now.volumeMl ?? -1) }).toEqual(expected);
  });
  test('a float knows only whether there is water', () => {
    const float = { ...tub, kind: 'float' as const, levels: [] };
    expect(tankNow(float, heard({ tank: 1 }))).toEqual({ volumeMl: null, isLow: false });
    expect(tankNow(float, heard({ tank: 0 }))).toEqual({ volumeMl: null, isLow: true });
    expect(tankNow(float, heard({ tank: 7 }))).toBeNull();
  });
});

describe('a float', () => {
  const [tub] = garden.reservoirs;
  if (!tub) throw new Error('no tub');
  const lowAt = (highIs: 'water' | 'empty', threshold: number, raw: number) => {
    const float = { ...tub, kind: 'float' as const, levels: [], float: { highIs, threshold } };
    const config = tankConfig(float);
    const now = tankNow(float, heard({ tank: raw }));
    // The engine and the page say the same.
    expect(tankTrouble({ raw, atS: 0 }, 0, config)).toBe(
      now ? (now.isLow ? 'tank-low' : null) : 'tank-unknown',
    );
    return now?.isLow;
  };
  test.each([
    ['water', 0.5, 1, false],
    ['water', 0.5, 0, true],
    ['empty', 0.5, 1, true],
    ['empty', 0.5, 0, false],
    ['water', 2000, 2000, false],
    ['water', 2000, 1999, true],
    ['empty', 2000, 3100, true],
    ['empty', 2000, 12, false],
  ] as const)('high is %s from %d: at %d low is %s', (highIs, threshold, raw, expected) =>
    expect(lowAt(highIs, threshold, raw)).toBe(expected),
  );
});

describe('what alerts watch', () => {
  const of = (
    key: string,
    values: Record<string, number>,
    from = garden,
    ageS = 0,
    locked: boolean | null = false,
  ) => watchedOf(from, heard(values, ageS, locked)).find((one) => one.key === key);
  test('dry: below the start limit where a person waters, below "dry" where a pump does', () => {
    expect(of(`dry ${plotId}`, { [probe.id]: 2500 })).toMatchObject({
      value: 250,
      limit: 350,
      side: 'below',
    });
    const armed = setWaterLine(garden, firstLine(garden).id, { automatic: true });
    expect(of(`dry ${plotId}`, { [probe.id]: 2500 }, armed)).toMatchObject({ limit: 175 });
    const told = setWaterLine(armed, firstLine(garden).id, { program: { kind: 'alert-only' } });
    expect(of(`dry ${plotId}`, { [probe.id]: 2500 }, told)).toMatchObject({ limit: 350 });
  });
  test('wet, hot and cold; limits that are not set watch nothing', () => {
    expect(of(`wet ${plotId}`, { [probe.id]: 1200 })).toMatchObject({
      value: 900,
      limit: 799,
      side: 'above',
    });
    expect(of(`cold air ${plotId}`, { air: 1.5 })).toMatchObject({ value: 15, limit: 20, side: 'below' });
    expect(of(`hot air ${plotId}`, { air: 36 })).toMatchObject({ value: 360, limit: 350, side: 'above' });
    expect(of(`cold ${plotId}`, { air: 1 })).toBeUndefined();
  });
  test('a probe fault needs something heard; a silent board is one that was heard and stopped', () => {
    expect(of(`probe-fault ${plotId}`, { [probe.id]: 4095 })).toMatchObject({ holds: true });
    expect(of(`probe-fault ${plotId}`, {})).toMatchObject({ holds: null });
    const board = garden.boards[0]?.id ?? '';
    expect(of(`silent-board ${board}`, {})).toMatchObject({ holds: null });
    expect(of(`silent-board ${board}`, { air: 20 }, garden, 900)).toMatchObject({ holds: false });
    expect(of(`silent-board ${board}`, { air: 20 }, garden, 901)).toMatchObject({ holds: true });
  });
  test('tank, lock, battery, calibration', () => {
    expect(of('tank-low tub', { tank: 390 })).toMatchObject({ holds: true });
    expect(of('tank-low tub', {})).toMatchObject({ holds: null });
    expect(of(`line-locked ${firstLine(garden).id}`, {}, garden, 0, true)).toMatchObject({ holds: true });
    expect(of(`recalibrate ${probe.id}`, {})).toMatchObject({ holds: false });
    const board = garden.boards[0]?.id ?? '';
    expect(of(`battery-low ${board}`, { bat: 11.5 })).toBeUndefined();
    // The limit is the board's, whether it has a pump or not.
    const dry = { ...setBoardWatch(garden, board, { batteryLowV: 11.8 }), waterLines: [] };
    expect(of(`battery-low ${board}`, { bat: 11.5 }, dry)).toMatchObject({
      value: 11_500,
      limit: 11_800,
    });
  });
  test('a probe in air is told by its own alert, not as a fault', () => {
    expect(of(`out-of-soil ${plotId}`, { [probe.id]: 2990 })).toMatchObject({ holds: true });
    expect(of(`probe-fault ${plotId}`, { [probe.id]: 2990 })).toMatchObject({ holds: false });
    expect(of(`out-of-soil ${plotId}`, { [probe.id]: 2500 })).toMatchObject({ holds: false });
    expect(of(`out-of-soil ${plotId}`, {})).toMatchObject({ holds: null });
    expect(signalFacts(garden, plotId, heard({ [probe.id]: 2990 }))).toMatchObject({
      unknown: 'out-of-soil',
      isFaulty: true,
    });
  });
  test('frost where a lithium cell is charged: one degree above freezing already', () => {
    const board = garden.boards[0]?.id ?? '';
    expect(of(`frozen-charge ${board}`, { air: -3 })).toBeUndefined();
    const lithium = setBoardWatch(garden, board, { isLithium: true });
    expect(of(`frozen-charge ${board}`, { air: 0.5 }, lithium)).toMatchObject({ value: 5, limit: 10 });
    expect(of(`frozen-charge ${board}`, {}, lithium)).toMatchObject({ value: null });
  });
  test('night is the board’s, whatever its lines call dark', () => {
    const board = garden.boards[0]?.id ?? '';
    const lit = { ...garden, channels: [...garden.channels, extra('light', 'light')], waterLines: [] };
    const dark = (from: Garden, light: number) => signalFacts(from, plotId, heard({ light }))?.isDark;
    expect(dark(lit, 10)).toBeNull();
    const night = setBoardWatch(lit, board, { darkBelow: 50 });
    expect([49, 50].map((light) => dark(night, light))).toEqual([true, false]);
  });
  test('no two things have one key', () => {
    const keys = watchedOf(garden, heard({})).map((one) => one.key);
    expect(new Set(keys).size).toBe(keys.length);
  });
});
