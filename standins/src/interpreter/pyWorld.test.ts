/** The sample garden's own program, run by the real interpreter against the made-up pots: it must water as the stand-in's engine does. */
import { beforeAll, describe, expect, test } from 'vitest';
import { sensesOf } from '@plain-trowel/core/garden/bind/sensesOf';
import { engineOf } from '@plain-trowel/core/garden/bind/engineOf';
import { planBoard } from '@plain-trowel/core/sketch/boardPlan';
import type { BoardPlan } from '@plain-trowel/core/sketch/plan';
import { readTalk } from '@plain-trowel/core/sketch/talk';
import { advance, moveProbeOf, newWorld } from '../board/world.ts';
import { setupOf } from '../board/setup.ts';
import { marigoldHare } from '../sample/marigoldHare.ts';
import { filesOf, interpreterForTests, pythonFile } from './boardForTests.ts';
import { PyWorld } from './pyWorld.ts';

const START_MS = Date.UTC(2026, 5, 1, 6);
const BOARD = 'roof';

const garden = marigoldHare(START_MS);
const planned = planBoard(garden, BOARD);
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
    expect(
      lines.some((line) => /^l1=\d+ c2=\d+ air=\d+\.\d\d bat=\d\.\d{3} tank=\d+ b1\.moisture=/.test(line)),
    ).toBe(true);
    expect(told()).toContainEqual({ kind: 'lines', ids: engineOf(garden, BOARD).lineIds });
  });

  test('asks its bus probe, and prints what it answers with the decimals of its map', () => {
    const read = lines.flatMap(
      (line) => /b1\.moisture=(\d+\.\d) b1\.temperature=(-?\d+\.\d) b1\.ec=(\d+)/.exec(line) ?? [],
    );
    expect(read.length).toBeGreaterThan(50);
    const moisture = Number(read[1]);
    expect(moisture).toBeGreaterThan(2);
    expect(moisture).toBeLessThan(60);
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
  });

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
  });
});

test('with a latching valve in place of its pump the pot is watered for as long as the valve is open', async () => {
  if (!planned.ok) throw new Error('no plan');
  const { plan } = planned;
  const latching: BoardPlan = {
    ...plan,
    lines: plan.lines.map((one) => ({
      ...one,
      output: { ...one.output, latch: { shut: { kind: 'pin', number: 33 }, ms: 60 } },
    })),
  };
  const world = newWorld(setupOf(garden), START_MS, 7);
  const files = filesOf(latching);
  const py = new PyWorld(
    garden,
    BOARD,
    latching,
    files,
    world,
    interpreterForTests,
    pythonFile('host/host.py'),
  );
  await py.start();
  const id = garden.waterLines[0]?.id ?? '';
  await py.run(20_000, 5000);
  expect(py.world.driven?.[id]).toBeUndefined();
  await py.type('test pump 1 5');
  const open: boolean[] = [];
  for (let second = 0; second < 9; second += 1) {
    await py.run(1000, 1000);
    open.push(py.world.driven?.[id] !== undefined);
  }
  expect(open.filter(Boolean)).toHaveLength(5);
  expect(open.at(-1)).toBe(false);
});

describe('the stern board, as if it were large enough for the language', () => {
  const EVENING_MS = Date.UTC(2026, 5, 1, 19, 5);
  const small = planBoard(garden, 'stern');
  if (!small.ok) throw new Error(JSON.stringify(small.problems));
  const plan: BoardPlan = {
    ...small.plan,
    traits: '3.3 V Wi-Fi board',
    inputs: small.plan.inputs.map((one) => ({ ...one, pin: { kind: 'pin', number: 30 + one.pin.number } })),
  };
  const said: { readonly atMs: number; readonly text: string }[] = [];
  let py: PyWorld;
  const litMs: number[] = [];

  beforeAll(async () => {
    const world = newWorld(setupOf(garden), EVENING_MS, 7);
    py = new PyWorld(
      garden,
      'stern',
      plan,
      filesOf(plan),
      world,
      interpreterForTests,
      pythonFile('host/host.py'),
    );
    await py.start();
    const senses = sensesOf(garden, () => null);
    const clock = senses.localTime(EVENING_MS);
    const sun = senses.sunTimes?.(EVENING_MS);
    await py.type(`clock ${clock?.daySecond} ${clock?.weekday}`);
    await py.type(`sun ${sun?.riseS} ${sun?.setS}`);
    for (let minute = 0; minute < 60; minute += 1) {
      const { lines } = await py.run(60_000, 10_000);
      said.push(...lines.filter((one) => one.boardId === 'stern'));
      if (py.world.driven?.['galley-light'] !== undefined) litMs.push(py.world.timeMs);
    }
  });

  test('its light is lit an hour before sunset until nine, as by the engine of the stand-in', () => {
    const events = said.flatMap(({ atMs, text }) => {
      const one = readTalk(text);
      return one?.kind === 'contact-event' ? [{ kind: one.told.kind, reason: one.told.reason, atMs }] : [];
    });
    const setup = setupOf(garden);
    const alone = advance(newWorld(setup, EVENING_MS, 7), setup, EVENING_MS + 3_600_000, 10_000);
    const asked = alone.events.flatMap((one) =>
      'contactId' in one ? [{ kind: one.kind, reason: one.reason, atMs: one.atMs }] : [],
    );
    expect(asked.map(({ kind }) => kind)).toEqual(['on', 'off']);
    expect(events.map(({ kind, reason }) => [kind, reason])).toEqual(
      asked.map(({ kind, reason }) => [kind, reason]),
    );
    for (const [at, { atMs }] of events.entries())
      expect(Math.abs(atMs - (asked[at]?.atMs ?? NaN))).toBeLessThan(3000);
    expect(litMs.length).toBeGreaterThan(30);
    expect(litMs.length).toBeLessThan(60);
  });

  test('its fork is fed only to be read, every five minutes, and reads what the pot holds', () => {
    const read = said.flatMap(({ text }) => /(?:^| )m1=(\d+)/.exec(text)?.[1] ?? []).map(Number);
    expect(read.length).toBeGreaterThanOrEqual(12);
    expect(read.length).toBeLessThanOrEqual(13);
    for (const counts of read) expect(counts).toBeGreaterThan(20);
  });

  test('its thermistor prints the counts of its divider, and it says which outputs hold a state', () => {
    expect(said.some(({ text }) => /(?:^| )t1=\d+/.test(text))).toBe(true);
    expect(said.flatMap(({ text }) => readTalk(text) ?? [])).toContainEqual({
      kind: 'contacts',
      ids: ['galley-light'],
    });
  });
});
