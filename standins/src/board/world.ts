/**
 * The stand-in boards of a garden: every plot a pot with its probe, every reservoir a tank, every board printing lines as a real one would and deciding with
 * the engine that its sketch will carry, each second while water runs. A pure reducer: state in, state and what was printed out.
 */
import {
  runningSinceMs,
  stepHost,
  switchOn,
  type Hosted,
  type LineOrder,
} from '@plain-trowel/core/control/host/engineHost';
import { receivedAt } from '@plain-trowel/core/faults/wrongSpeed';
import { uniform, type Seed } from '../random.ts';
import { measureChannel } from './channels.ts';
import { pour, stepPot, wetnessAtProbe, type PotState } from './pot.ts';
import {
  moveProbe,
  settledProbe,
  stepProbe,
  withFault,
  type ProbeFault,
  type ProbePlace,
  type ProbeState,
} from './potProbe.ts';
import type { ContactSetup, LineSetup, Setup } from './setup.ts';
import { arrivedMl, tankRaw, FULL_SHARE } from './tank.ts';
import { timerGivesMl } from './otherTimer.ts';
import { contactWorldEvents, worldEvents, type WorldEvent } from './worldEvent.ts';

/** What can be wrong with a board's lines. */
export const BOARD_FAULTS = ['none', 'garbage', 'silent'] as const;
export type BoardFault = (typeof BOARD_FAULTS)[number];
/** The speed at which a stand-in with garbage really sends, and the one it is read at. */
export const GARBAGE_SPEEDS = { sentBaud: 57_600, readBaud: 115_200 } as const;

/** Everything that a stand-in must remember; plain data, so it can be stored and taken up again. */
export type World = {
  readonly timeMs: number;
  readonly nextLineMs: number;
  readonly seed: Seed;
  readonly pots: Readonly<Record<string, PotState>>;
  /** Water in each reservoir, ml. */
  readonly tanks: Readonly<Record<string, number>>;
  readonly boards: Readonly<Record<string, Hosted>>;
  /** Orders by hand that the boards have not seen yet. */
  readonly orders: readonly LineOrder[];
  /** By the id of the probe. */
  readonly probes: Readonly<Record<string, ProbeState>>;
  readonly boardFaults: Readonly<Record<string, BoardFault>>;
  /** Since when the boards switch their probes on for eight seconds and off for four; null: always on. */
  readonly cyclingSinceMs: number | null;
  /** Switches that a person can turn, by channel. */
  readonly switches: Readonly<Record<string, boolean>>;
  /** Water lines and contacts that something else than a stand-in's engine switches, and since when their coil is driven, ms since 1970. */
  readonly driven?: Readonly<Record<string, number>>;
};

export type BoardLine = { readonly boardId: string; readonly text: string; readonly atMs: number };

export type Advance = {
  readonly world: World;
  readonly lines: readonly BoardLine[];
  readonly events: readonly WorldEvent[];
};

/** The name under which a board prints whether its probes are on. */
const SUPPLY_NAME = 'on';
const SUPPLY_ON_MS = 8000;
const SUPPLY_OFF_MS = 4000;

/** A garden's stand-ins, just switched on: every pot somewhere between dry and moist, every tank nearly full. */
export function newWorld(setup: Setup, timeMs: number, seed: Seed): World {
  let chance = seed;
  const pots: Record<string, PotState> = {};
  for (const one of setup.plots) {
    const drawn = uniform(chance);
    chance = drawn.seed;
    pots[one.plotId] = potAt(one.pot.saturationMl, 0.3 + 0.25 * drawn.value);
  }
  const world: World = {
    timeMs,
    nextLineMs: timeMs,
    seed: chance,
    pots,
    tanks: {},
    boards: {},
    orders: [],
    probes: {},
    boardFaults: {},
    cyclingSinceMs: null,
    switches: {},
  };
  return reboot(world, setup, timeMs);
}

const potAt = (saturationMl: number, wetness: number): PotState => ({
  surfaceMl: 0,
  rootMl: wetness * saturationMl,
  drainedMl: 0,
});

/** Every probe of the garden's, settled in its plot where it is new. */
function probesOf(world: World, setup: Setup): Record<string, ProbeState> {
  return Object.fromEntries(
    setup.channels.flatMap(({ probeId, plotId }) =>
      probeId === null
        ? []
        : [[probeId, world.probes[probeId] ?? settledProbe(wetnessIn(world, setup, plotId))]],
    ),
  );
}

function wetnessIn(world: World, setup: Setup, plotId: string | null): number {
  const pot = world.pots[plotId ?? ''];
  const traits = setup.plots.find((one) => one.plotId === plotId)?.pot;
  return pot && traits ? wetnessAtProbe(pot, traits) : 0.4;
}

/**
 * Switches the boards off and on: pots and tanks stay, the engines begin again with their boot hold and with what a board keeps. Plots, tanks and probes that
 * are new get their place.
 */
export function reboot(world: World, setup: Setup, timeMs: number): World {
  const pots = Object.fromEntries(
    setup.plots.map((one) => [one.plotId, world.pots[one.plotId] ?? potAt(one.pot.saturationMl, 0.4)]),
  );
  const tanks = Object.fromEntries(
    setup.tanks.map((one) => [one.tankId, world.tanks[one.tankId] ?? FULL_SHARE * one.fullMl]),
  );
  const boards = Object.fromEntries(
    setup.engines.map((engine) => [
      engine.boardId,
      switchOn(engine, world.boards[engine.boardId] ?? {}, timeMs),
    ]),
  );
  const fresh: World = {
    ...world,
    timeMs,
    nextLineMs: timeMs,
    pots,
    tanks,
    boards,
    orders: [],
    cyclingSinceMs: null,
  };
  return { ...fresh, probes: probesOf(fresh, setup) };
}

/** Pours water on a plot by hand. */
export function pourOn(world: World, plotId: string, volumeMl: number): World {
  const pot = world.pots[plotId];
  return pot ? { ...world, pots: { ...world.pots, [plotId]: pour(pot, volumeMl) } } : world;
}

/** Fills a reservoir to the brim, or empties it. */
export const fillTank = (world: World, setup: Setup, tankId: string, share: number): World => {
  const tank = setup.tanks.find((one) => one.tankId === tankId);
  return tank ? { ...world, tanks: { ...world.tanks, [tankId]: share * tank.fullMl } } : world;
};

/** Gives a line an order by hand; its board sees it at once. */
export const orderLine = (world: World, order: LineOrder): World => ({
  ...world,
  orders: [...world.orders, order],
});

const changeProbe = (world: World, probeId: string, change: (probe: ProbeState) => ProbeState): World => {
  const probe = world.probes[probeId];
  return probe ? { ...world, probes: { ...world.probes, [probeId]: change(probe) } } : world;
};

/** Takes a probe out of the soil, into the hand, the jar or back. */
export const moveProbeOf = (world: World, probeId: string, place: ProbePlace): World =>
  changeProbe(world, probeId, (probe) => moveProbe(probe, place));

/** Puts something wrong with a probe, or right again. */
export const setProbeFault = (world: World, probeId: string, fault: ProbeFault): World =>
  changeProbe(world, probeId, (probe) => withFault(probe, fault));

export const setBoardFault = (world: World, boardId: string, fault: BoardFault): World => ({
  ...world,
  boardFaults: { ...world.boardFaults, [boardId]: fault },
});

/** Turns a switch on or off. */
export const setSwitch = (world: World, channelId: string, isOn: boolean): World => ({
  ...world,
  switches: { ...world.switches, [channelId]: isOn },
});

/** Lets the boards switch their probes on and off, or leaves them on. */
export const setCycling = (world: World, cycling: boolean): World => ({
  ...world,
  cyclingSinceMs: cycling ? (world.cyclingSinceMs ?? world.timeMs) : null,
});

/** What a person does in the made-up world, as plain data. */
export type WorldEdit =
  | { readonly kind: 'pour'; readonly plotId: string; readonly volumeMl: number }
  | { readonly kind: 'move'; readonly probeId: string; readonly place: ProbePlace }
  | { readonly kind: 'fill'; readonly tankId: string; readonly share: number }
  | { readonly kind: 'probe-fault'; readonly probeId: string; readonly fault: ProbeFault }
  | { readonly kind: 'board-fault'; readonly boardId: string; readonly fault: BoardFault }
  | { readonly kind: 'switch'; readonly channelId: string; readonly isOn: boolean }
  | { readonly kind: 'cycling'; readonly isOn: boolean };

export function applyEdit(world: World, setup: Setup, edit: WorldEdit): World {
  switch (edit.kind) {
    case 'pour':
      return pourOn(world, edit.plotId, edit.volumeMl);
    case 'move':
      return moveProbeOf(world, edit.probeId, edit.place);
    case 'fill':
      return fillTank(world, setup, edit.tankId, edit.share);
    case 'probe-fault':
      return setProbeFault(world, edit.probeId, edit.fault);
    case 'board-fault':
      return setBoardFault(world, edit.boardId, edit.fault);
    case 'switch':
      return setSwitch(world, edit.channelId, edit.isOn);
    case 'cycling':
      return setCycling(world, edit.isOn);
  }
}

/** Seconds since the probes were switched on; null while they are off, infinite when they always are on. */
function poweredForS(world: World): number | null {
  if (world.cyclingSinceMs === null) return Infinity;
  const since = (world.timeMs - world.cyclingSinceMs) % (SUPPLY_ON_MS + SUPPLY_OFF_MS);
  // It begins with the probes off, so that the first switching on is seen.
  return since < SUPPLY_OFF_MS ? null : (since - SUPPLY_OFF_MS) / 1000;
}

/**
 * Runs the stand-ins up to a time. Boards print a line each `lineEveryMs`; they also measure and decide each second while water runs, and whenever their
 * engine asked to be called.
 */
export function advance(world: World, setup: Setup, toMs: number, lineEveryMs: number): Advance {
  const lines: BoardLine[] = [];
  const events: WorldEvent[] = [];
  let now = world;
  while (now.timeMs < toMs || now.nextLineMs <= now.timeMs || now.orders.length > 0) {
    const calledMs = Math.min(...Object.values(now.boards).map((board) => board.callMs), Infinity);
    // An order is seen at once, whatever was due next.
    const nextMs = now.orders.length > 0 ? now.timeMs : Math.min(toMs, now.nextLineMs, calledMs);
    now = live(now, setup, Math.max(now.timeMs, nextMs));
    const prints = now.timeMs >= now.nextLineMs;
    if (!prints && now.orders.length === 0 && now.timeMs < calledMs) continue;
    const measured = measure(now, setup);
    now = measured.world;
    if (prints) {
      lines.push(...linesOf(now, setup, measured.values));
      now = { ...now, nextLineMs: now.timeMs + lineEveryMs };
    }
    const decided = decide(now, setup, measured.values);
    now = decided.world;
    events.push(...decided.events);
  }
  return { world: now, lines, events };
}

/** Lets pots, tanks and probes live on, a minute at a time at most. */
function live(world: World, setup: Setup, toMs: number): World {
  let pots = { ...world.pots };
  const tanks = { ...world.tanks };
  const probes = { ...world.probes };
  for (let atMs = world.timeMs; atMs < toMs;) {
    const durationS = Math.min(60, (toMs - atMs) / 1000);
    for (const line of setup.lines) water(world, line, atMs, durationS, pots, tanks);
    otherTimersWater(world, setup, atMs, durationS, pots);
    for (const one of setup.plots) {
      const pot = pots[one.plotId] ?? potAt(one.pot.saturationMl, 0.4);
      pots[one.plotId] = stepPot(pot, one.pot, atMs, durationS);
    }
    const now = { ...world, pots };
    const stepped = new Set<string>();
    for (const { probeId, plotId, probe } of setup.channels) {
      if (probeId === null || stepped.has(probeId)) continue;
      stepped.add(probeId);
      const wetness = wetnessIn(now, setup, plotId);
      probes[probeId] = stepProbe(probes[probeId] ?? settledProbe(wetness), probe, wetness, durationS);
    }
    pots = { ...pots };
    atMs += durationS * 1000;
  }
  return { ...world, timeMs: toMs, pots, tanks, probes };
}

/** What somebody else's timer brings to the plots whose permit contact lets it. */
function otherTimersWater(
  world: World,
  setup: Setup,
  atMs: number,
  durationS: number,
  pots: Record<string, PotState>,
): void {
  for (const contact of setup.contacts) {
    const pot = pots[contact.plotId];
    if (contact.use !== 'permit' || !pot || !isOn(world, contact)) continue;
    const clock = setup.localTime(atMs);
    if (clock) pots[contact.plotId] = pour(pot, timerGivesMl(clock.daySecond, durationS));
  }
}

/** Whether a contact is on: lit, or letting the other timer water. Of a board that runs its own program its coil tells. */
function isOn(world: World, { boardId, contactId, restsOn }: ContactSetup): boolean {
  const board = world.boards[boardId];
  if (!board && world.driven) return (world.driven[contactId] !== undefined) !== restsOn;
  return board?.contacts.contacts[board.settings.contactIds.indexOf(contactId)]?.isOn ?? false;
}

/** What a running line brings to its plots and takes from its tank. */
function water(
  world: World,
  line: LineSetup,
  atMs: number,
  durationS: number,
  pots: Record<string, PotState>,
  tanks: Record<string, number>,
): void {
  const board = world.boards[line.boardId];
  const sinceMs = world.driven?.[line.lineId] ?? (board ? runningSinceMs(board, line.lineId) : null);
  if (sinceMs === null) return;
  const ranS = (atMs - sinceMs) / 1000;
  const wantedMl = arrivedMl(line, ranS + durationS) - arrivedMl(line, ranS);
  const tank = line.tankId === null ? undefined : tanks[line.tankId];
  // An empty tank gives nothing, however long the pump runs.
  const givenMl = tank === undefined ? wantedMl : Math.min(wantedMl, tank);
  if (line.tankId !== null && tank !== undefined) tanks[line.tankId] = tank - givenMl;
  for (const { plotId, share } of line.shares) {
    const pot = pots[plotId];
    if (pot) pots[plotId] = pour(pot, share * givenMl);
  }
}

/** What every channel prints, by its id. */
export function measure(world: World, setup: Setup): { world: World; values: Map<string, number> } {
  const values = new Map<string, number>();
  const poweredS = poweredForS(world);
  let seed = world.seed;
  for (const one of setup.channels) {
    const probe = one.probeId === null ? null : (world.probes[one.probeId] ?? null);
    const tank = setup.tanks.find((of) => of.channelId === one.channelId);
    const level = tank ? tankRaw(tank, world.tanks[tank.tankId] ?? 0) : null;
    const reading = measureChannel(one, {
      probe,
      timeMs: world.timeMs,
      poweredS,
      seed,
      level,
      isSwitched: world.switches[one.channelId] ?? false,
      isLit: setup.contacts.some(
        (contact) => contact.use === 'light' && contact.boardId === one.boardId && isOn(world, contact),
      ),
    });
    seed = reading.seed;
    values.set(one.channelId, reading.value);
  }
  return { world: { ...world, seed }, values };
}

/** One line a board, as a sketch would print it: `c2=1512 l1=2240`. */
function linesOf(world: World, setup: Setup, values: ReadonlyMap<string, number>): BoardLine[] {
  const boards = new Map<string, string[]>();
  for (const one of setup.channels) {
    const pair = `${one.streamName}=${values.get(one.channelId) ?? 0}`;
    boards.set(one.boardId, [...(boards.get(one.boardId) ?? []), pair]);
  }
  // A board that switches its probes prints so, whether anybody has said yet what the name is.
  if (world.cyclingSinceMs !== null)
    for (const [boardId, pairs] of boards) {
      const isKnown = setup.channels.some(
        (one) => one.boardId === boardId && one.quantity === 'probe supply',
      );
      if (!isKnown) pairs.push(`${SUPPLY_NAME}=${poweredForS(world) === null ? 0 : 1}`);
    }
  return [...boards].flatMap(([boardId, pairs]) => {
    const text = pairs.join(' ');
    const fault = world.boardFaults[boardId] ?? 'none';
    if (fault === 'silent') return [];
    const { sentBaud, readBaud } = GARBAGE_SPEEDS;
    const shown =
      fault === 'garbage' ? String.fromCharCode(...receivedAt(`${text}\r\n`, sentBaud, readBaud)) : text;
    return [{ boardId, text: shown, atMs: world.timeMs }];
  });
}

function decide(
  world: World,
  setup: Setup,
  values: ReadonlyMap<string, number>,
): { world: World; events: WorldEvent[] } {
  const events: WorldEvent[] = [];
  const boards: Record<string, Hosted> = { ...world.boards };
  const senses = setup.senses((channelId) => {
    const raw = values.get(channelId);
    return raw === undefined ? null : { raw, timeMs: world.timeMs };
  });
  for (const engine of setup.engines) {
    const before = boards[engine.boardId] ?? switchOn(engine, {}, world.timeMs);
    const step = stepHost(before, engine, senses, world.timeMs, world.orders);
    boards[engine.boardId] = step.hosted;
    events.push(...worldEvents(step.events, setup), ...contactWorldEvents(step.contactEvents, setup));
  }
  return { world: { ...world, boards, orders: [] }, events };
}
