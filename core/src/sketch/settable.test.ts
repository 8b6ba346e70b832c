import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { planBoard } from './boardPlan.ts';
import type { BoardPlan } from './plan.ts';
import { cppProgramName } from './cpp.ts';
import { oneStickOnePump } from './gardenForTests.ts';
import { programName } from './python.ts';
import { frameNameOf } from './folder.ts';
import { withContacts, withLamps } from './playForTests.ts';
import {
  contactKey,
  contactSettings,
  inSafeOrder,
  lampKey,
  probeKey,
  probeSettings,
  settingChanges,
  settingsOf,
  toType,
  type SettingChange,
} from './settable.ts';

const planOf = (): BoardPlan => {
  const { garden, boardId } = oneStickOnePump();
  const planned = planBoard(garden, boardId);
  if (!planned.ok) throw new Error('not planned');
  return planned.plan;
};
const plan = planOf();
const withLine = (change: (line: BoardPlan['engine']['lines'][number]) => object): BoardPlan => ({
  ...plan,
  engine: { ...plan.engine, lines: plan.engine.lines.map((line) => ({ ...line, ...change(line) })) },
});
const frame = (name: string) => name.slice(0, 6);

describe.each([
  ['C++', cppProgramName],
  ['MicroPython', programName],
])('the name of a program in %s', (_, nameOf) => {
  test('is the same on every day and whatever its plants and boards are called', () => {
    expect(nameOf({ ...plan, garden: 'another', traits: 'another 8-bit board' })).toBe(nameOf(plan));
    expect(nameOf(plan)).toMatch(/^[0-9a-f]{12}$/);
  });
  test('keeps its first half when only limits, dose or watering change', () => {
    const changed = withLine((line) => ({
      enabled: false,
      program: { ...line.program, startTenths: 111, stopTenths: 777, pulseMl: 5 },
      guards: { ...line.guards, provesBelowTenths: 777 },
    }));
    expect(frame(nameOf(changed))).toBe(frame(nameOf(plan)));
    expect(nameOf(changed)).not.toBe(nameOf(plan));
  });
  test.each([
    ['a guard', withLine((line) => ({ guards: { ...line.guards, maxRunS: 61 } }))],
    ['the flow', withLine(() => ({ flowMlPerMin: 541 }))],
    ['a pause', withLine((line) => ({ program: { ...line.program, soakS: 1 } }))],
    [
      'a point of a table, on a small board,',
      {
        ...plan,
        engine: {
          ...plan.engine,
          sensors: plan.engine.sensors.map((one) => ({
            ...one,
            table: one.table.map((point, at) => (at === 0 ? { ...point, raw: point.raw + 1 } : point)),
          })),
        },
      },
    ],
    [
      'a pin',
      {
        ...plan,
        lines: plan.lines.map((one) => ({ ...one, output: { ...one.output, activeLow: true } })),
      },
    ],
  ])('and changes both when %s does', (_what, changed) =>
    expect(frame(nameOf(changed))).not.toBe(frame(nameOf(plan))),
  );
});

test('what differs between board and garden, by line and setting', () => {
  const [line] = plan.lines;
  const [config] = plan.engine.lines;
  if (!line || !config) throw new Error('no line');
  expect(settingsOf(config)).toEqual({ start: '40.0', stop: '60.0', dose: '90', water: 'on' });
  expect(settingChanges(plan, { [line.id]: settingsOf(config) })).toEqual([]);
  expect(
    settingChanges(plan, { [line.id]: { start: '35.5', stop: '60.0', dose: '90', water: 'off' } }),
  ).toEqual([
    { lineId: line.id, lineName: 'Roof pump', name: 'start', onBoard: '35.5', inGarden: '40.0' },
    { lineId: line.id, lineName: 'Roof pump', name: 'water', onBoard: 'off', inGarden: 'on' },
  ]);
  expect(settingChanges(plan, {})).toEqual([]);
});

test('lamps go with the words of their plot, which can be sent; their frame stays', () => {
  const lit = withLamps(plan);
  const [watch] = lit.watches;
  if (!watch) throw new Error('no lamp');
  expect(settingChanges(lit, { [lampKey(1)]: { dry: '30.0', wet: '80.0' } })).toEqual([]);
  expect(settingChanges(lit, { [lampKey(1)]: { dry: '45.0', wet: '100.1' } })).toEqual([
    { lineId: 'lamp 1', lineName: 'Mint', name: 'dry', onBoard: '45.0', inGarden: '30.0' },
    { lineId: 'lamp 1', lineName: 'Mint', name: 'wet', onBoard: '100.1', inGarden: '80.0' },
  ]);
  const moved = {
    ...lit,
    watches: [{ ...watch, limits: { ...watch.limits, dryTenths: 333, wetTenths: 1001 } }],
  };
  const hot = { ...lit, watches: [{ ...watch, limits: { ...watch.limits, airHighTenthsC: 300 } }] };
  for (const nameOf of [programName, cppProgramName]) {
    expect(frameNameOf(nameOf(moved))).toBe(frameNameOf(nameOf(lit)));
    expect(nameOf(moved)).not.toBe(nameOf(lit));
    expect(frameNameOf(nameOf(hot))).not.toBe(frameNameOf(nameOf(lit)));
  }
});

test('typed in the order that is given, the start limit never comes within 1 of the stop limit on the way', () => {
  const limits = fc.tuple(fc.integer({ min: 0, max: 900 }), fc.integer({ min: 10, max: 100 }));
  fc.assert(
    fc.property(limits, limits, ([fromStart, fromGap], [toStart, toGap]) => {
      const change = (name: 'start' | 'stop', onBoard: number, inGarden: number): SettingChange => ({
        lineId: '1',
        lineName: '1',
        name,
        onBoard: String(onBoard / 10),
        inGarden: String(inGarden / 10),
      });
      const now = { start: fromStart, stop: fromStart + fromGap };
      const changes = [change('start', now.start, toStart), change('stop', now.stop, toStart + toGap)].filter(
        (one) => one.onBoard !== one.inGarden,
      );
      for (const { name, inGarden } of inSafeOrder(changes)) {
        now[name as 'start' | 'stop'] = Number(inGarden) * 10;
        expect(now.stop - now.start).toBeGreaterThanOrEqual(10 - 1e-6);
      }
    }),
    { numRuns: 3000, seed: 3 },
  );
});

const large: BoardPlan = { ...plan, traits: '3.3 V board' };
const [sensor] = large.engine.sensors;
const [line] = large.lines;
const [config] = large.engine.lines;
if (!sensor || !line || !config) throw new Error('no line');

describe('the calibration of a probe', () => {
  const recalibrated: BoardPlan = {
    ...large,
    engine: {
      ...large.engine,
      sensors: [
        {
          ...sensor,
          table: [
            { raw: 1150, tenths: 1000 },
            { raw: 2850, tenths: 0 },
          ],
          soilHighRaw: sensor.soilHighRaw - 50,
          leapTenths: 75,
        },
      ],
    },
  };
  const onBoard = { [line.id]: settingsOf(config), [probeKey(1)]: probeSettings(sensor) };
  test('is sent as its table, with the raw values between which it is in the soil; the frame stays', () => {
    for (const nameOf of [programName, cppProgramName]) {
      expect(frameNameOf(nameOf(recalibrated))).toBe(frameNameOf(nameOf(large)));
      expect(nameOf(recalibrated)).not.toBe(nameOf(large));
    }
    const changes = settingChanges(recalibrated, onBoard);
    expect(changes).toEqual([
      {
        lineId: 'probe 1',
        lineName: 'C2',
        name: 'table',
        onBoard: '1100:1000,2900:0',
        inGarden: '1150:1000,2850:0',
      },
      {
        lineId: 'probe 1',
        lineName: 'C2',
        name: 'soil',
        onBoard: `${sensor.soilLowRaw}:${sensor.soilHighRaw}`,
        inGarden: `${sensor.soilLowRaw}:${sensor.soilHighRaw - 50}`,
      },
      { lineId: 'probe 1', lineName: 'C2', name: 'leap', onBoard: '5.0', inGarden: '7.5' },
    ]);
    // Meanwhile its line does not water: the old limits mean nothing in the new percent.
    expect(
      toType(recalibrated, changes, onBoard, () => 1).map(({ text, isNeeded }) => [text, isNeeded]),
    ).toEqual([
      ['set 1 water off', true],
      ['set probe 1 table 1150:1000,2850:0', true],
      [`set probe 1 soil ${sensor.soilLowRaw}:${sensor.soilHighRaw - 50}`, true],
      ['set probe 1 leap 7.5', true],
      ['set 1 water on', false],
    ]);
  });
  test('goes before the limits, and a line that is to be off stays off', () => {
    const moved: BoardPlan = {
      ...recalibrated,
      engine: {
        ...recalibrated.engine,
        lines: [
          {
            ...config,
            enabled: false,
            program: { ...config.program, startTenths: 300 } as typeof config.program,
          },
        ],
      },
    };
    const typed = toType(moved, settingChanges(moved, onBoard), onBoard, () => 1).map(({ text }) => text);
    expect(typed.map((one) => one.split(' ').slice(0, 4).join(' '))).toEqual([
      'set 1 water off',
      'set probe 1 table',
      'set probe 1 soil',
      'set probe 1 leap',
      'set 1 start 30.0',
    ]);
  });
  test('of several probes together, and on a small board, cannot be sent', () => {
    expect(settingChanges({ ...recalibrated, traits: plan.traits }, onBoard)).toEqual([]);
    const members = [{ input: 0, table: sensor.table, lowRaw: 0, highRaw: 4095 }];
    const together = { ...recalibrated, sources: [{ by: 'mean', members }] as const };
    expect(settingChanges(together, onBoard)).toEqual([]);
  });
});

test('limits of a permit contact, and whether a contact switches, can be sent; the times of a light are its frame', () => {
  const held = withContacts(large);
  const [permit, light] = held.contacts;
  if (!permit || !light) throw new Error('no contacts');
  expect(contactSettings(permit.config)).toEqual({ start: '40.0', stop: '60.0', switch: 'on' });
  expect(contactSettings(light.config)).toEqual({ switch: 'on' });
  const onBoard = {
    [contactKey(1)]: { start: '35.0', stop: '38.0', switch: 'on' },
    [contactKey(2)]: { switch: 'off' },
  };
  const changes = settingChanges(held, onBoard);
  expect(toType(held, changes, onBoard, () => null).map(({ text }) => text)).toEqual([
    'set contact 1 stop 60.0',
    'set contact 1 start 40.0',
    'set contact 2 switch on',
  ]);
  const later = {
    ...light.config,
    rule: { ...light.config.rule, to: { by: 'clock', s: 1 } },
  } as typeof light.config;
  const other = { ...held, contacts: [permit, { ...light, config: later }] };
  expect(frame(programName(other))).not.toBe(frame(programName(held)));
});

test('a probe that is calibrated anew in the garden keeps the frame of its board’s program, whatever its noise', () => {
  const { garden, boardId } = oneStickOnePump();
  const board = garden.boards.map((one) => ({ ...one, traits: '3.3 V Wi-Fi board, 12-bit inputs' }));
  const wiring = { ...garden.wiring, parts: garden.wiring.parts.map((one) => ({ ...one })) };
  const of = (calibrations: typeof garden.calibrations) => {
    const planned = planBoard({ ...garden, boards: board, wiring, calibrations }, boardId);
    if (!planned.ok) throw new Error(JSON.stringify(planned.problems));
    // Drawn as a small board it could not be told over the line.
    return { ...planned.plan, traits: '3.3 V Wi-Fi board' };
  };
  const before = of(garden.calibrations);
  const after = of(garden.calibrations.map((one) => ({ ...one, noiseCounts: 15.5 })));
  expect(after.engine.sensors[0]?.leapTenths).not.toBe(before.engine.sensors[0]?.leapTenths);
  expect(frame(cppProgramName(after))).toBe(frame(cppProgramName(before)));
});

test('while a probe is calibrated anew, lines that go by another one, and those that are off on the board, are left as they are', () => {
  const other = { ...sensor, table: [...sensor.table] };
  const three: BoardPlan = {
    ...large,
    inputs: [...large.inputs, ...large.inputs],
    sources: [
      { by: 'one', input: 0 },
      { by: 'one', input: 1 },
    ],
    lines: ['a', 'b', 'c', 'd'].map((id) => ({ ...line, id, name: id })),
    engine: {
      ...large.engine,
      sensors: [{ ...sensor, leapTenths: 75 }, other],
      // By the probe that changes; by another one; by none; by the first, but off on the board.
      lines: [0, 1, null, 0].map((at) => ({ ...config, sensor: at })),
    },
  };
  const settings = settingsOf(config);
  const onBoard = {
    a: settings,
    b: settings,
    c: settings,
    d: { ...settings, water: 'off' },
    [probeKey(1)]: probeSettings(sensor),
    [probeKey(2)]: probeSettings(other),
  };
  const numbers: Readonly<Record<string, number>> = { a: 1, b: 2, c: 3, d: 4 };
  const typed = toType(three, settingChanges(three, onBoard), onBoard, (id) => numbers[id] ?? null);
  expect(typed.map(({ text }) => text)).toEqual([
    'set 1 water off',
    'set probe 1 leap 7.5',
    'set 4 water on',
    'set 1 water on',
  ]);
});
