/**
 * The stand-in boards of a garden: every plot a pot with its probe, every board printing lines as a real one would, the engine deciding
 * on the board itself each second while water runs. A pure reducer: state in, state and what was printed out.
 */
import type { PercentKind } from '@plain-trowel/core/quantity/percentKind';
import {
  initialEngine,
  stepEngine,
  type EngineConfig,
  type EngineEvent,
  type EngineOutputs,
  type EngineState,
} from '@plain-trowel/core/control/engine';
import { receivedAt } from '@plain-trowel/core/faults/wrongSpeed';
import { engineConfig, plotParts } from '@plain-trowel/core/garden/edit';
import type { Garden } from '@plain-trowel/core/garden/schema';
import { seedOf, uniform, type Seed } from '../random.ts';
import { channelSetup, measureChannel, type ChannelSetup } from './channels.ts';
import { pour, stepPot, wetnessAtProbe, type PotState, type PotTraits } from './pot.ts';
import {
  moveProbe,
  settledProbe,
  stepProbe,
  withFault,
  type ProbeFault,
  type ProbePlace,
  type ProbeState,
} from './potProbe.ts';

export type PlotWorld = {
  readonly pot: PotState;
  readonly engine: EngineState;
  readonly outputs: EngineOutputs;
};

/** What can be wrong with a board's lines. */
export const BOARD_FAULTS = ['none', 'garbage', 'silent'] as const;
export type BoardFault = (typeof BOARD_FAULTS)[number];
/** The speed at which a stand-in with garbage really sends, and the one it is read at. */
export const GARBAGE_SPEEDS = { sentBaud: 57_600, readBaud: 115_200 } as const;

/** Everything that a stand-in must remember; plain data, so it can be stored and taken up again. */
export type World = {
  readonly timeMs: number;
  /** Time at which the boards were switched on; the engine's clock counts from here. */
  readonly bootMs: number;
  readonly nextLineMs: number;
  readonly seed: Seed;
  readonly plots: Readonly<Record<string, PlotWorld>>;
  /** By the id of the probe. */
  readonly probes: Readonly<Record<string, ProbeState>>;
  readonly boardFaults: Readonly<Record<string, BoardFault>>;
  /** Since when the boards switch their probes on for eight seconds and off for four; null: always on. */
  readonly cyclingSinceMs: number | null;
};

export type PlotSetup = {
  readonly plotId: string;
  readonly boardId: string;
  /** The channel whose reading decides. */
  readonly channelId: string;
  readonly pot: PotTraits;
  readonly flowMlPerS: number;
  readonly config: EngineConfig | null;
  /** Kind of percent that its decisions are made in. */
  readonly percentKind: PercentKind | null;
};

export type Setup = { readonly plots: readonly PlotSetup[]; readonly channels: readonly ChannelSetup[] };

export type BoardLine = { readonly boardId: string; readonly text: string; readonly atMs: number };

export type WorldEvent = EngineEvent & {
  readonly plotId: string;
  readonly atMs: number;
  readonly volumeMl: number;
  readonly percentKind?: PercentKind | null;
};

export type Advance = {
  readonly world: World;
  readonly lines: readonly BoardLine[];
  readonly events: readonly WorldEvent[];
};

const OFF: EngineOutputs = { pumpOn: false, lamp: 'off' };
/** The name under which a board prints whether its probes are on. */
const SUPPLY_NAME = 'on';
const SUPPLY_ON_MS = 8000;
const SUPPLY_OFF_MS = 4000;

/** What a stand-in needs of a garden. Pots and probes differ a little from plot to plot, always in the same way for the same plot. */
export function setupOf(garden: Garden): Setup {
  const plots = garden.plots.flatMap((plot): PlotSetup[] => {
    const parts = plotParts(garden, plot.id);
    if (!parts?.channel || !parts.board) return [];
    return [
      {
        plotId: plot.id,
        boardId: parts.board.id,
        channelId: parts.channel.id,
        pot: potTraits(plot.id),
        flowMlPerS: parts.line?.flowMlPerS ?? 0,
        config: engineConfig(parts),
        percentKind: parts.fit?.percentKind ?? null,
      },
    ];
  });
  return { plots, channels: garden.channels.flatMap((one) => channelSetup(garden, one) ?? []) };
}

function potTraits(plotId: string): PotTraits {
  const size = 900 + 1200 * uniform(seedOf(plotId)).value;
  return { saturationMl: size, capacityMl: 0.68 * size, driestMl: 0.12 * size, dryingMlPerDay: 0.16 * size };
}

/** A garden's stand-ins, just switched on: every pot somewhere between dry and moist. */
export function newWorld(setup: Setup, timeMs: number, seed: Seed): World {
  let chance = seed;
  const plots: Record<string, PlotWorld> = {};
  for (const one of setup.plots) {
    const drawn = uniform(chance);
    chance = drawn.seed;
    plots[one.plotId] = newPlot(one, 0.3 + 0.25 * drawn.value);
  }
  const world: World = {
    timeMs,
    bootMs: timeMs,
    nextLineMs: timeMs,
    seed: chance,
    plots,
    probes: {},
    boardFaults: {},
    cyclingSinceMs: null,
  };
  return { ...world, probes: probesOf(world, setup) };
}

function newPlot(setup: PlotSetup, wetness: number): PlotWorld {
  const pot = { surfaceMl: 0, rootMl: wetness * setup.pot.saturationMl, drainedMl: 0 };
  return { pot, engine: initialEngine, outputs: OFF };
}

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
  const pot = world.plots[plotId ?? '']?.pot;
  const traits = setup.plots.find((one) => one.plotId === plotId)?.pot;
  return pot && traits ? wetnessAtProbe(pot, traits) : 0.4;
}

/** Switches the boards off and on: the pots stay, the engines begin anew with their boot hold. Plots and probes that are new get their place. */
export function reboot(world: World, setup: Setup, timeMs: number): World {
  const plots = Object.fromEntries(
    setup.plots.map((one) => {
      const held = world.plots[one.plotId] ?? newPlot(one, 0.4);
      return [one.plotId, { ...held, engine: initialEngine, outputs: OFF }];
    }),
  );
  const fresh = { ...world, timeMs, bootMs: timeMs, nextLineMs: timeMs, plots, cyclingSinceMs: null };
  return { ...fresh, probes: probesOf(fresh, setup) };
}

/** Pours water on a plot by hand. */
export function pourOn(world: World, plotId: string, volumeMl: number): World {
  const plot = world.plots[plotId];
  return plot
    ? { ...world, plots: { ...world.plots, [plotId]: { ...plot, pot: pour(plot.pot, volumeMl) } } }
    : world;
}

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

/** Lets the boards switch their probes on and off, or leaves them on. */
export const setCycling = (world: World, cycling: boolean): World => ({
  ...world,
  cyclingSinceMs: cycling ? (world.cyclingSinceMs ?? world.timeMs) : null,
});

/** Seconds since the probes were switched on; null while they are off, infinite when they always are on. */
function poweredForS(world: World): number | null {
  if (world.cyclingSinceMs === null) return Infinity;
  const since = (world.timeMs - world.cyclingSinceMs) % (SUPPLY_ON_MS + SUPPLY_OFF_MS);
  // It begins with the probes off, so that the first switching on is seen.
  return since < SUPPLY_OFF_MS ? null : (since - SUPPLY_OFF_MS) / 1000;
}

/**
 * Runs the stand-ins up to a time. Boards print a line each `lineEveryMs`; while a pump runs its board also measures and decides each second.
 */
export function advance(world: World, setup: Setup, toMs: number, lineEveryMs: number): Advance {
  const lines: BoardLine[] = [];
  const events: WorldEvent[] = [];
  let now = world;
  while (now.timeMs < toMs || now.nextLineMs <= now.timeMs) {
    const pumping = Object.values(now.plots).some((plot) => plot.outputs.pumpOn);
    const untilMs = Math.min(toMs, now.nextLineMs, pumping ? now.timeMs + 1000 : Infinity);
    now = live(now, setup, Math.max(untilMs, now.timeMs));
    const prints = now.timeMs >= now.nextLineMs;
    if (!prints && !pumping) continue;
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

/** Lets pots and probes live on, a minute at a time at most. */
function live(world: World, setup: Setup, toMs: number): World {
  const plots = { ...world.plots };
  const probes = { ...world.probes };
  for (let atMs = world.timeMs; atMs < toMs;) {
    const durationS = Math.min(60, (toMs - atMs) / 1000);
    for (const one of setup.plots) {
      const plot = plots[one.plotId] ?? newPlot(one, 0.4);
      const watered = plot.outputs.pumpOn ? pour(plot.pot, one.flowMlPerS * durationS) : plot.pot;
      plots[one.plotId] = { ...plot, pot: stepPot(watered, one.pot, atMs, durationS) };
    }
    const now = { ...world, plots };
    const stepped = new Set<string>();
    for (const { probeId, plotId, probe } of setup.channels) {
      if (probeId === null || stepped.has(probeId)) continue;
      stepped.add(probeId);
      const wetness = wetnessIn(now, setup, plotId);
      probes[probeId] = stepProbe(probes[probeId] ?? settledProbe(wetness), probe, wetness, durationS);
    }
    atMs += durationS * 1000;
  }
  return { ...world, timeMs: toMs, plots, probes };
}

/** What every channel prints, by its id. */
function measure(world: World, setup: Setup): { world: World; values: Map<string, number> } {
  const values = new Map<string, number>();
  const poweredS = poweredForS(world);
  let seed = world.seed;
  for (const one of setup.channels) {
    const probe = one.probeId === null ? null : (world.probes[one.probeId] ?? null);
    const reading = measureChannel(one, { probe, timeMs: world.timeMs, poweredS, seed });
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
  const plots = { ...world.plots };
  const nowS = Math.floor((world.timeMs - world.bootMs) / 1000);
  for (const one of setup.plots) {
    const plot = plots[one.plotId];
    const raw = values.get(one.channelId);
    if (!plot || raw === undefined) continue;
    if (!one.config) {
      // Without a calibration that holds, nothing can be decided, so nothing runs; what ran is stopped, and the boot hold begins anew.
      const ranS = plot.engine.runningSinceS === null ? null : nowS - plot.engine.runningSinceS;
      if (ranS !== null)
        events.push({
          kind: 'stopped',
          atS: nowS,
          reason: 'not-calibrated',
          ranS,
          plotId: one.plotId,
          atMs: world.timeMs,
          volumeMl: ranS * one.flowMlPerS,
        });
      plots[one.plotId] = { ...plot, engine: { ...initialEngine, nowS, lastStartS: nowS }, outputs: OFF };
      continue;
    }
    const result = stepEngine(plot.engine, { nowS, reading: { raw, atS: nowS } }, one.config);
    plots[one.plotId] = { ...plot, engine: result.state, outputs: result.outputs };
    for (const event of result.events) {
      const volumeMl = event.kind === 'stopped' ? event.ranS * one.flowMlPerS : 0;
      events.push({
        ...event,
        plotId: one.plotId,
        atMs: world.timeMs,
        volumeMl,
        percentKind: one.percentKind,
      });
    }
  }
  return { world: { ...world, plots }, events };
}
