import { describe, expect, test } from 'vitest';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { addContact } from '@plain-trowel/core/garden/edits/contacts';
import { setLimits, setWaterLine } from '@plain-trowel/core/garden/edits/plots';
import { marigoldHare } from '../sample/marigoldHare.ts';
import { NO_CORRECTION, meantOf } from '@plain-trowel/core/temperature/correction';
import { gardenEventOf } from './worldEvent.ts';
import {
  advance,
  fillTank,
  moveProbeOf,
  newWorld,
  orderLine,
  pourOn,
  reboot,
  setBoardFault,
  setCycling,
  setProbeFault,
  setSwitch,
  type World,
} from './world.ts';
import { setupOf } from './setup.ts';

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
  expect(lines[0]?.text).toMatch(/^l1=\d+ c2=\d+ air=[\d.]+ bat=3\.\d+ tank=\d+$/);
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

test('an unplugged probe reads full scale until it is pushed in again', () => {
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
  // Off for four seconds, on for eight, off again: a line each half second, the first at zero.
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
  const meaning = { quantity: 'soil temperature', correction: t1?.correction ?? NO_CORRECTION } as const;
  const warmth = meantOf(meaning, countsOf(text, 't1'), 1023) ?? Number.NaN;
  // Nine in the morning UTC, 4 cm deep: the wave of 6 °C about 14 °C damped by e^(−1/3) and a third of a radian late.
  expect(Math.abs(warmth - (14 - 6 * Math.exp(-1 / 3) * Math.sin(1 / 3)))).toBeLessThan(1.2);
});

describe('the board’s own engine', () => {
  /** The chilli crate with a start limit so high that it always wants water; all of the pump’s water goes to it. */
  const thirsty: Garden = setLimits(garden, 'chilli', { startTenths: 900, stopTenths: 950 });
  const alwaysOf = (change: Parameters<typeof setWaterLine>[2] = {}) =>
    setWaterLine(thirsty, 'line-roof', {
      maxRunS: 15,
      minIntervalS: 900,
      tubeS: 0,
      outlets: [],
      program: { kind: 'until-wet', capMl: 135 },
      dailyMaxMl: 5000,
      ...change,
    });
  const always = setupOf(alwaysOf());
  const isOn = (world: World) => world.boards.roof?.state.lines[0]?.run != null;
  const waterIn = (world: World, plotId: string) =>
    (world.pots[plotId]?.surfaceMl ?? 0) + (world.pots[plotId]?.rootMl ?? 0);

  test('waters after the boot hold, for one dose; the water leaves the tank and reaches the pot', () => {
    const { world, events } = advance(newWorld(always, T0, 3), always, T0 + 1000_000, 10_000);
    const watering = events.filter((event) => event.kind !== 'held');
    expect(watering.map((event) => [event.kind, event.reason])).toEqual([
      ['started', 'below-start'],
      ['stopped', 'dose-done'],
    ]);
    const [begun, ended] = watering;
    expect((begun?.atMs ?? 0) - T0).toBe(900_000);
    expect((ended?.atMs ?? 0) - (begun?.atMs ?? 0)).toBe(15_000);
    expect(ended).toMatchObject({ kind: 'stopped', volumeMl: 135 });
    const off = setupOf(setWaterLine(garden, 'line-roof', { automatic: false }));
    const dry = advance(newWorld(off, T0, 3), off, T0 + 1000_000, 10_000).world;
    expect(waterIn(world, 'chilli') - waterIn(dry, 'chilli')).toBeGreaterThan(125);
    expect((dry.tanks.tank ?? 0) - (world.tanks.tank ?? 0)).toBeCloseTo(135, 6);
  });

  test('an order by hand runs at once; the tube fills first, and outlets share by their cups', () => {
    const shared = setupOf(
      alwaysOf({
        automatic: false,
        tubeS: 3,
        outlets: [
          { id: 'a', name: 'a', plotId: 'chilli', cupMl: 30 },
          { id: 'b', name: 'b', plotId: 'lemon', cupMl: 10 },
        ],
      }),
    );
    const before = newWorld(shared, T0, 3);
    const ordered = orderLine(before, { lineId: 'line-roof', kind: 'water', volumeMl: 63 });
    const { world, events } = advance(ordered, shared, T0 + 12_000, 10_000);
    expect(events.filter((event) => event.kind !== 'held')).toMatchObject([
      { kind: 'started', reason: 'order', atMs: T0, plotId: 'chilli' },
      // 63 ml at 9 ml a second are 7 s, and 3 s for the tube.
      { kind: 'stopped', reason: 'dose-done', ranS: 10, volumeMl: 63 },
    ]);
    const calm = advance(before, shared, T0 + 12_000, 10_000).world;
    expect(waterIn(world, 'chilli') - waterIn(calm, 'chilli')).toBeCloseTo(47.25, 1);
    expect(waterIn(world, 'lemon') - waterIn(calm, 'lemon')).toBeCloseTo(15.75, 1);
  });

  test('an order can be stopped, and a tank below its minimum refuses one', () => {
    const begun = advance(
      orderLine(newWorld(always, T0, 3), { lineId: 'line-roof', kind: 'water', volumeMl: 130 }),
      always,
      T0 + 4000,
      10_000,
    ).world;
    expect(isOn(begun)).toBe(true);
    const stopped = advance(
      orderLine(begun, { lineId: 'line-roof', kind: 'stop' }),
      always,
      T0 + 5000,
      10_000,
    );
    expect(stopped.events[0]).toMatchObject({ kind: 'stopped', reason: 'stop-order', ranS: 4 });
    const empty = fillTank(newWorld(always, T0, 3), always, 'tank', 0.05);
    const refused = advance(
      orderLine(empty, { lineId: 'line-roof', kind: 'water', volumeMl: 130 }),
      always,
      T0 + 4000,
      10_000,
    );
    expect(refused.events.find((event) => event.kind === 'refused')).toMatchObject({ reason: 'tank-low' });
  });

  test('a reboot in the middle of a run ends it, holds for the interval again and forgets no water', () => {
    const running = advance(newWorld(always, T0, 3), always, T0 + 905_000, 1000).world;
    expect(isOn(running)).toBe(true);
    const again = reboot(running, always, T0 + 905_000);
    expect(isOn(again)).toBe(false);
    // Until it has written down the end, a board keeps what the run might have given: 15 s at 9 ml.
    expect(again.boards.roof?.state.lines[0]?.ration.sumMl).toBe(135);
    const after = advance(again, always, T0 + 905_000 + 899_000, 1000);
    expect(after.events.some((event) => event.kind === 'started')).toBe(false);
  });

  test('a run is stopped when its calibration becomes void, and the hold begins again once it holds again', () => {
    const running = advance(newWorld(always, T0, 3), always, T0 + 905_000, 1000).world;
    const at5V = { ...alwaysOf(), boards: garden.boards.map((one) => ({ ...one, supplyV: 5 })) };
    const stopped = advance(running, setupOf(at5V), T0 + 907_000, 1000);
    expect(stopped.events[0]).toMatchObject({
      kind: 'stopped',
      reason: 'settings-changed',
      plotId: 'chilli',
    });
    expect(isOn(stopped.world)).toBe(false);
    const again = advance(stopped.world, always, T0 + 907_000 + 890_000, 1000);
    expect(again.events.some((event) => event.kind === 'started')).toBe(false);
  });

  test('a tube that is off raises nothing, and after three doses the line is locked', () => {
    const lost = setupOf(alwaysOf({ outlets: [{ id: 'a', name: 'on the floor', plotId: null, cupMl: 10 }] }));
    const { events, world } = advance(newWorld(lost, T0, 3), lost, T0 + 3 * 3_600_000, 60_000);
    expect(events.filter((event) => event.kind === 'started')).toHaveLength(3);
    expect(events.at(-1)).toMatchObject({ kind: 'held', reason: 'locked' });
    const unlocked = advance(
      orderLine(reboot(world, lost, world.timeMs), { lineId: 'line-roof', kind: 'unlock' }),
      lost,
      world.timeMs + 5000,
      60_000,
    );
    expect(unlocked.events.map((event) => event.kind)).toContain('unlocked');
  });
});

test('the tank’s sensor reads its distance, and falls as the tank fills', () => {
  const at = (share: number) =>
    countsOf(
      lastLine(advance(fillTank(start, setup, 'tank', share), setup, T0 + 500, 500).lines, 'roof'),
      'tank',
    );
  // Full is 60 mm from the lid, empty 380; the sensor strays by about a millimetre.
  expect(Math.abs(at(1) - 60)).toBeLessThan(6);
  expect(Math.abs(at(0) - 380)).toBeLessThan(6);
  expect(at(0.4)).toBeGreaterThan(at(0.6));
});

test('the log keeps waterings and faults, and leaves out the ordinary rest', () => {
  const common = {
    plotId: 'chilli',
    atMs: T0,
    atS: 5,
    line: 0,
    lineId: 'line-roof',
    lineName: 'Roof pump',
    scale: null,
    boardId: 'roof',
    bootMs: T0 - 5000,
    seq: 3,
  };
  expect(gardenEventOf({ ...common, kind: 'held', reason: 'not-below-start' })).toEqual([]);
  expect(gardenEventOf({ ...common, kind: 'held', reason: 'implausible' })).toEqual([
    {
      kind: 'held',
      id: `roof ${T0 - 5000} 3`,
      boardId: 'roof',
      lineId: 'line-roof',
      seq: 3,
      author: 'board',
      reason: 'implausible',
      plotId: 'chilli',
      atMs: T0,
      simulated: true,
    },
  ]);
  expect(
    gardenEventOf({ ...common, kind: 'stopped', reason: 'above-stop', ranS: 8, volumeMl: 72 }),
  ).toMatchObject([{ kind: 'pump-stopped', ranS: 8, volumeMl: 72 }]);
  expect(gardenEventOf({ ...common, kind: 'locked', reason: 'locked' })).toMatchObject([
    { kind: 'line-locked', lineName: 'Roof pump' },
  ]);
});

describe('outputs that hold a state', () => {
  const START = Date.UTC(2026, 4, 1, 3);
  const withPermit = (atRest: 'forbids' | 'permits', automatic: boolean) => {
    const garden = { ...addContact(marigoldHare(START), 'chilli', 'permit', () => 0.5) };
    return {
      ...garden,
      // Nothing else waters.
      waterLines: [],
      contacts: garden.contacts
        .slice(-1)
        .map((one) => ({ ...one, automatic, rule: { kind: 'permit' as const, atRest } })),
    };
  };
  /** Water in the pot after a morning in which the other timer ran from six to five past, beside one without that timer. */
  const timerGave = (garden: Garden, wetness: number): boolean => {
    const run = (of: Garden) => {
      const setup = setupOf(of);
      const begun = newWorld(setup, START, 7);
      const pot = setup.plots.find((one) => one.plotId === 'chilli')?.pot;
      const pots = {
        ...begun.pots,
        chilli: { surfaceMl: 0, rootMl: wetness * (pot?.saturationMl ?? 0), drainedMl: 0 },
      };
      const settled = { ...begun, pots };
      // Seven in the morning in London is six UTC.
      return advance(settled, setup, START + 4 * 3_600_000, 60_000).world.pots.chilli;
    };
    const sumOf = (pot: ReturnType<typeof run>) =>
      (pot?.rootMl ?? 0) + (pot?.surfaceMl ?? 0) + (pot?.drainedMl ?? 0);
    return sumOf(run(garden)) > sumOf(run({ ...garden, contacts: [] })) + 50;
  };
  test.each([
    ['dry soil: it lets the other timer water', 'forbids', true, 0.25, true],
    ['wet soil: it forbids', 'forbids', true, 0.66, false],
    ['wet soil, closed at rest: it forbids as well', 'permits', true, 0.66, false],
    ['switched off, open at rest: nothing comes', 'forbids', false, 0.25, false],
    ['switched off, closed at rest: the timer waters as it always did', 'permits', false, 0.66, true],
  ] as const)('%s', (_, atRest, automatic, wetness, gave) => {
    expect(timerGave(withPermit(atRest, automatic), wetness)).toBe(gave);
  });

  test('a grow light is told on and off, and its cell sees it', () => {
    const garden = marigoldHare(START);
    const setup = setupOf(garden);
    const { events } = advance(newWorld(setup, START, 7), setup, START + 24 * 3_600_000, 60_000);
    const told = events.flatMap((one) => ('contactId' in one ? [one] : []));
    expect(told.map(({ kind, reason }) => `${kind} ${reason}`)).toEqual(['on in-hours', 'off outside-hours']);
    // Sunset at 52.3° north and 1.2° west on the first of May is at 20:31 summer time, 19:31 UTC; an hour before it, until 21:00.
    const minutes = told.map(({ atMs }) => Math.round((atMs - Date.UTC(2026, 4, 1, 19, 31)) / 60_000));
    expect(Math.abs((minutes[0] ?? 99) + 60)).toBeLessThan(4);
    expect(minutes[1]).toBe(29);
    expect(told.flatMap(gardenEventOf).map(({ kind }) => kind)).toEqual(['contact-on', 'contact-off']);
  });

  test('a skip switch is turned by hand', () => {
    const garden = marigoldHare(START);
    const air = garden.channels.find((one) => one.quantity === 'air temperature');
    if (!air) throw new Error('no thermometer');
    const skip = { ...air, id: 'skip', quantity: 'skip switch' as const, label: 'Skip', streamName: 'skip' };
    const setup = setupOf({ ...garden, channels: [...garden.channels, skip] });
    const lineOf = (world: World) =>
      advance(world, setup, world.timeMs + 60_000, 30_000)
        .lines.map((one) => one.text)
        .join(' ');
    const world = newWorld(setup, START, 7);
    expect(lineOf(world)).toContain('skip=0');
    expect(lineOf(setSwitch(world, 'skip', true))).toContain('skip=1');
  });
});
