/** The sample garden's own program, run by the real interpreter against the made-up pots: it must water as the stand-in's engine does. */
import { beforeAll, describe, expect, test } from 'vitest';
import { engineOf } from '@plain-trowel/core/garden/bind/engineOf';
import { planBoard } from '@plain-trowel/core/sketch/boardPlan';
import type { BoardPlan } from '@plain-trowel/core/sketch/plan';
import { listText, restLevels } from '@plain-trowel/core/sketch/folder';
import { pythonSettings } from '@plain-trowel/core/sketch/python';
import { readTalk } from '@plain-trowel/core/sketch/talk';
import { moveProbeOf, newWorld } from '../board/world.ts';
import { setupOf } from '../board/setup.ts';
import { marigoldHare } from '../sample/marigoldHare.ts';
import { COMMON, interpreterForTests, pythonFile } from './boardForTests.ts';
import { PyWorld } from './pyWorld.ts';

const START_MS = Date.UTC(2026, 5, 1, 6);
const BOARD = 'roof';

const garden = marigoldHare(START_MS);
const planned = planBoard(garden, BOARD);
const encoder = new TextEncoder();

function filesOf(plan: BoardPlan): ReadonlyMap<string, Uint8Array> {
  const files = [
    { name: 'settings.py', text: pythonSettings(plan, '2026-06-01') },
    ...COMMON.map((name) => ({ name, text: pythonFile(name) })),
  ];
  return new Map([
    ...files.map(({ name, text }) => [`/trowel_a/${name}`, encoder.encode(text)] as const),
    ['/trowel_a/files.txt', encoder.encode(listText(files, 1, restLevels(plan)))],
    ['/main.py', encoder.encode(pythonFile('main.py'))],
  ]);
}

describe('the roof board of the sample garden', () => {
  let py: PyWorld;
  const lines: string[] = [];
  const minutes = async (count: number) => {
    for (let at = 0; at < count; at += 1)
      lines.push(
        ...(await py.run(60_000, 10_000)).lines.filter((one) => one.boardId === BOARD).map((one) => one.text),
      );
  };
  const told = () => lines.flatMap((line) => readTalk(line) ?? []);

  beforeAll(async () => {
    if (!planned.ok) throw new Error(JSON.stringify(planned.problems));
    const world = newWorld(setupOf(garden), START_MS, 7);
    py = new PyWorld(
      garden,
      BOARD,
      planned.plan,
      filesOf(planned.plan),
      world,
      interpreterForTests,
      pythonFile('host/host.py'),
    );
    await py.start();
  });

  test('has its program, prints its channels by their names, and knows its lines', async () => {
    await minutes(2);
    expect(lines.some((line) => /^l1=\d+ c2=\d+ tank=\d+$/.test(line))).toBe(true);
    expect(told()).toContainEqual({ kind: 'lines', ids: engineOf(garden, BOARD).lineIds });
  });

  test('in dry soil its pump runs, the pot becomes wetter and the tank emptier', async () => {
    const id = garden.waterLines[0]?.id ?? '';
    const plot = garden.waterLines[0]?.plotId ?? '';
    const traits = setupOf(garden).plots.find((one) => one.plotId === plot)?.pot;
    py.change((world) => ({
      ...world,
      pots: {
        ...world.pots,
        [plot]: { surfaceMl: 0, rootMl: 0.2 * (traits?.saturationMl ?? 0), drainedMl: 0 },
      },
    }));
    const tankBefore = Object.values(py.world.tanks)[0] ?? 0;
    await minutes(90);
    const stopped = told().filter((one) => one.kind === 'event' && one.told.kind === 'stopped');
    expect(stopped.length).toBeGreaterThan(0);
    const given = stopped.reduce(
      (sum, one) => sum + (one.kind === 'event' && one.told.kind === 'stopped' ? one.told.volumeMl : 0),
      0,
    );
    const tankAfter = Object.values(py.world.tanks)[0] ?? 0;
    expect(Math.abs(tankBefore - tankAfter - given)).toBeLessThan(0.1 * given + 20);
    expect(py.world.driven?.[id]).toBeUndefined();
    expect(py.world.pots[plot]?.rootMl ?? 0).toBeGreaterThan(0.2 * (traits?.saturationMl ?? 0));
  }, 120_000);

  test('with its probe in air it starts nothing', async () => {
    const probeId = garden.channels.find((one) => one.id === 'channel-c2')?.probeId ?? '';
    py.change((world) => moveProbeOf(world, probeId, 'air'));
    await minutes(3);
    const from = lines.length;
    await minutes(30);
    expect(lines.slice(from).some((line) => line.startsWith('# started'))).toBe(false);
    await py.type('why');
    await minutes(1);
    expect(lines.findLast((line) => line.startsWith('# line '))).toMatch(/out-of-soil|implausible/);
  }, 120_000);
});
