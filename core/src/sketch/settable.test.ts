import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { planBoard } from './boardPlan.ts';
import type { BoardPlan } from './plan.ts';
import { cppProgramName } from './cpp.ts';
import { oneStickOnePump } from './gardenForTests.ts';
import { programName } from './python.ts';
import { frameNameOf } from './folder.ts';
import { withLamps } from './playForTests.ts';
import { inSafeOrder, lampKey, settingChanges, settingsOf, type SettingChange } from './settable.ts';

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
    expect(nameOf({ ...plan, garden: 'another', traits: 'another' })).toBe(nameOf(plan));
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
      'a point of a table',
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
