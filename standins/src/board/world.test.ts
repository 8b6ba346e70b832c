import { describe, expect, test } from 'vitest';
import type { Garden } from '@plain-trowel/core/garden/schema';
import { setLimits, setWaterLine } from '@plain-trowel/core/garden/edit';
import { marigoldHare } from '../sample/marigoldHare.ts';
import { corrected } from '@plain-trowel/core/temperature/correction';
import { gardenEventOf } from './worldEvent.ts';
import {
  advance,
  moveProbeOf,
  newWorld,
  pourOn,
  reboot,
  setBoardFault,
  setCycling,
  setProbeFault,
  setupOf,
} from './world.ts';

const T0 = Date.UTC(2026, 4, 1, 9);
const garden = marigoldHare(T0);
const setup = setupOf(garden);
const start = newWorld(setup, T0, 3);

const countsOf = (text: string, name: string) => Number(new RegExp(`\\b${name}=(\\d+)`).exec(text)?.[1]);
const lastLine = (lines: readonly { boardId: string; text: string }[], boardId: string) =>
  lines.filter((line) => line.boardId === boardId).at(-1)?.text ?? '';

test('each board prints its own probes, at the pace asked for', () => {
  const { lines } = advance(start, setup, T0 + 10_000, 500);
  expect(lines.filter((line) => line.boardId === 'roof')).toHaveLength(21);
  expect(lines[0]?.text).toMatch(/^l1=\d+ c2=\d+ air=[\d.]+ bat=3\.\d+$/);
  expect(lines[1]?.text).toMatch(/^m1=\d+ s1=\d+ t1=\d+$/);
});

test('the same seed gives the same world, and stopping in between changes nothing', () => {
  const whole = advance(start, setup, T0 + 60_000, 500);
  const half = advance(start, setup, T0 + 30_000, 500);
  const rest = advance(half.world, setup, T0 + 60_000, 500);
  expect([...half.lines, ...rest.lines]).toEqual(whole.lines);
});

test('a pour makes the counts fall at once, pulling the probe out makes them rise to air', () => {
  const calm = lastLine(advance(start, setup, T0 + 5000, 500).lines, 'roof');
  const poured = lastLine(advance(pourOn(start, 'chilli', 200), setup, T0 + 5000, 500).lines, 'roof');
  const pulled = lastLine(
    advance(moveProbeOf(start, 'probe-c2', 'air'), setup, T0 + 60_000, 500).lines,
    'roof',
  );
  expect(countsOf(poured, 'c2')).toBeLessThan(countsOf(calm, 'c2') - 50);
  expect(countsOf(pulled, 'c2')).toBeGreaterThan(2900);
  expect(Math.abs(countsOf(poured, 'l1') - countsOf(calm, 'l1'))).toBeLessThan(40);
});

test('an unplugged probe reads full scale until it is pushed in anew', () => {
  const loose = advance(setProbeFault(start, 'probe-m1', 'open'), setup, T0 + 2000, 500);
  expect(countsOf(lastLine(loose.lines, 'stern'), 'm1')).toBe(1023);
  const seated = advance(moveProbeOf(loose.world, 'probe-m1', 'soil'), setup, T0 + 4000, 500);
  expect(countsOf(lastLine(seated.lines, 'stern'), 'm1')).toBeLessThan(1000);
});

test('a board whose lines are garbage or missing is one fault, its probes another', () => {
  const linesWith = (fault: 'garbage' | 'silent') =>
    advance(setBoardFault(start, 'roof', fault), setup, T0 + 2000, 500).lines;
  expect(linesWith('silent').map((line) => line.boardId)).not.toContain('roof');
  expect(linesWith('silent').length).toBeGreaterThan(3);
  const garbage = linesWith('garbage').filter((line) => line.boardId === 'roof');
  expect(garbage.length).toBeGreaterThan(3);
  expect(garbage.every((line) => !line.text.includes('c2='))).toBe(true);
});

test('probes that are switched on for each reading warm up, and print whether they are on', () => {
  const channel = garden.channels.find((one) => one.id === 'channel-c2');
  if (!channel) throw new Error('no channel');
  const powered: Garden = {
    ...garden,
    channels: [
      ...garden.channels,
      { ...channel, id: 'channel-on', probeId: null, quantity: 'probe supply', streamName: 'on' },
    ],
  };
  const on = setupOf(powered);
  const { lines } = advance(setCycling(newWorld(on, T0, 3), true), on, T0 + 14_000, 500);
  const roof = lines.filter((line) => line.boardId === 'roof').map((line) => line.text);
  const supply = roof.map((text) => countsOf(text, 'on'));
  // Off for four seconds, on for eight, off again: a line each half second, the first at nought.
  expect(supply.slice(0, 26)).toEqual([
    ...new Array<number>(8).fill(0),
    ...new Array<number>(16).fill(1),
    0,
    0,
  ]);
  const counts = roof.map((text) => countsOf(text, 'c2'));
  expect(counts[4]).toBeLessThan(20);
  expect(counts[9]).toBeLessThan((counts[22] ?? 0) * 0.8);
  expect(Math.abs((counts[22] ?? 0) - (counts[20] ?? 0))).toBeLessThan(40);
});

test('a board that switches its probes prints so under a name that nobody has explained yet', () => {
  const { lines } = advance(setCycling(start, true), setup, T0 + 6000, 500);
  const roof = lines.filter((line) => line.boardId === 'roof').map((line) => countsOf(line.text, 'on'));
  expect(roof.slice(0, 12)).toEqual([0, 0, 0, 0, 0, 0, 0, 0, 1, 1, 1, 1]);
  const still = advance(start, setup, T0 + 1000, 500).lines;
  expect(still.every((line) => !line.text.includes('on='))).toBe(true);
});

test('a thermistor prints the counts of its divider, which its own curve turns back into degrees', () => {
  const t1 = garden.channels.find((one) => one.id === 'channel-t1');
  const text = lastLine(advance(start, setup, T0 + 5000, 500).lines, 'stern');
  const warmth = corrected(t1?.correction ?? { kind: 'none' }, countsOf(text, 't1'), 1023) ?? Number.NaN;
  // Nine in the morning UTC, 4 cm deep: the wave of 6 °C about 14 °C damped by e^(−1/3) and a third of a radian late.
  expect(Math.abs(warmth - (14 - 6 * Math.exp(-1 / 3) * Math.sin(1 / 3)))).toBeLessThan(1.2);
});

describe('the board’s own engine', () => {
  /** The chilli crate with a start limit so high that it always wants water. */
  const thirsty: Garden = setLimits(garden, 'chilli', { startTenths: 900, stopTenths: 950 });
  const always = setupOf(setWaterLine(thirsty, 'line-roof', { maxRunS: 15, minIntervalS: 900 }));

  test('waters after the boot hold, for the maximum run at most, and the water reaches the pot', () => {
    const { world, events } = advance(newWorld(always, T0, 3), always, T0 + 1000_000, 10_000);
    const watering = events.filter((event) => event.kind !== 'held');
    expect(watering.map((event) => [event.kind, event.reason])).toEqual([
      ['started', 'below-start'],
      ['stopped', 'max-run'],
    ]);
    const [begun, ended] = watering;
    expect((begun?.atMs ?? 0) - T0).toBe(900_000);
    expect((ended?.atMs ?? 0) - (begun?.atMs ?? 0)).toBe(15_000);
    expect(ended?.volumeMl).toBe(135);
    const off = setupOf(setWaterLine(garden, 'line-roof', { automatic: false }));
    const dry = advance(newWorld(off, T0, 3), off, T0 + 1000_000, 10_000).world;
    const held = (one: typeof world) =>
      (one.plots.chilli?.pot.surfaceMl ?? 0) + (one.plots.chilli?.pot.rootMl ?? 0);
    expect(held(world) - held(dry)).toBeGreaterThan(125);
  });

  test('a reboot in the middle of a run ends it and holds for the interval again', () => {
    const running = advance(newWorld(always, T0, 3), always, T0 + 905_000, 1000).world;
    expect(running.plots.chilli?.outputs.pumpOn).toBe(true);
    const again = reboot(running, always, T0 + 905_000);
    expect(again.plots.chilli?.outputs.pumpOn).toBe(false);
    const after = advance(again, always, T0 + 905_000 + 899_000, 1000);
    expect(after.events.some((event) => event.kind === 'started')).toBe(false);
  });

  test('a run is stopped when its calibration becomes void, and the hold begins anew once it holds again', () => {
    const running = advance(newWorld(always, T0, 3), always, T0 + 905_000, 1000).world;
    const voided = { ...always, plots: always.plots.map((one) => ({ ...one, config: null })) };
    const stopped = advance(running, voided, T0 + 907_000, 1000);
    expect(stopped.events).toMatchObject([{ kind: 'stopped', reason: 'not-calibrated', plotId: 'chilli' }]);
    expect(stopped.world.plots.chilli?.outputs.pumpOn).toBe(false);
    const again = advance(stopped.world, always, T0 + 907_000 + 890_000, 1000);
    expect(again.events.some((event) => event.kind === 'started')).toBe(false);
  });

  test('a plot without a calibration decides nothing', () => {
    const { world } = advance(start, setup, T0 + 3_600_000, 60_000);
    expect(world.plots.strawberry?.outputs).toEqual({ pumpOn: false, lamp: 'off' });
  });
});

test('the log keeps waterings and faults, and leaves out the ordinary rest', () => {
  const common = { plotId: 'chilli', atMs: T0, volumeMl: 0, atS: 5 };
  expect(gardenEventOf({ ...common, kind: 'held', reason: 'not-below-start' })).toEqual([]);
  expect(gardenEventOf({ ...common, kind: 'held', reason: 'implausible' })).toEqual([
    { kind: 'held', reason: 'implausible', plotId: 'chilli', atMs: T0, simulated: true },
  ]);
  expect(
    gardenEventOf({ ...common, kind: 'stopped', reason: 'above-stop', ranS: 8, volumeMl: 72 }),
  ).toMatchObject([{ kind: 'pump-stopped', ranS: 8, volumeMl: 72 }]);
});
