/**
 * The stand-in boards of a garden: every plot a pot with its probe, every board printing lines as a real one would, the engine deciding
 * on the board itself each second while water runs. A pure reducer: state in, state and what was printed out.
 */
import {
  initialEngine,
  stepEngine,
  type EngineConfig,
  type EngineEvent,
  type EngineOutputs,
  type EngineState,
} from '@plain-trowel/core/control/engine';
import { fullScaleCounts } from '@plain-trowel/core/electrics/converter';
import { engineConfig, plotParts, type PlotParts } from '@plain-trowel/core/garden/edit';
import type { Garden } from '@plain-trowel/core/garden/schema';
import { seedOf, uniform, type Seed } from '../random.ts';
import { pour, stepPot, wetnessAtProbe, type PotState, type PotTraits } from './pot.ts';
import {
  moveProbe,
  readProbe,
  settledProbe,
  stepProbe,
  type ProbePlace,
  type ProbeState,
  type ProbeTraits,
} from './potProbe.ts';

export type PlotWorld = {
  readonly pot: PotState;
  readonly probe: ProbeState;
  readonly engine: EngineState;
  readonly outputs: EngineOutputs;
};

/** Everything that a stand-in must remember; plain data, so it can be stored and taken up again. */
export type World = {
  readonly timeMs: number;
  /** Time at which the boards were switched on; the engine's clock counts from here. */
  readonly bootMs: number;
  readonly nextLineMs: number;
  readonly seed: Seed;
  readonly plots: Readonly<Record<string, PlotWorld>>;
};

export type PlotSetup = {
  readonly plotId: string;
  readonly boardId: string;
  readonly streamName: string;
  readonly pot: PotTraits;
  readonly probe: ProbeTraits;
  readonly flowMlPerS: number;
  readonly config: EngineConfig | null;
};

export type BoardLine = { readonly boardId: string; readonly text: string; readonly atMs: number };

export type WorldEvent = EngineEvent & {
  readonly plotId: string;
  readonly atMs: number;
  readonly volumeMl: number;
};

export type Advance = {
  readonly world: World;
  readonly lines: readonly BoardLine[];
  readonly events: readonly WorldEvent[];
};

const OFF: EngineOutputs = { pumpOn: false, lamp: 'off' };

/** What a stand-in needs of a garden. Pots and probes differ a little from plot to plot, always in the same way for the same plot. */
export function setupOf(garden: Garden): PlotSetup[] {
  return garden.plots.flatMap((plot) => {
    const parts = plotParts(garden, plot.id);
    if (!parts?.channel || !parts.board) return [];
    return [
      {
        plotId: plot.id,
        boardId: parts.board.id,
        streamName: parts.channel.streamName,
        pot: potTraits(plot.id),
        probe: probeTraits(parts, parts.board.adcBits),
        flowMlPerS: parts.line?.flowMlPerS ?? 0,
        config: engineConfig(parts),
      },
    ];
  });
}

function potTraits(plotId: string): PotTraits {
  const size = 900 + 1200 * uniform(seedOf(plotId)).value;
  return { saturationMl: size, capacityMl: 0.68 * size, driestMl: 0.12 * size, dryingMlPerDay: 0.16 * size };
}

function probeTraits(parts: PlotParts, adcBits: number): ProbeTraits {
  const full = fullScaleCounts(adcBits);
  const spread = uniform(seedOf(parts.probe?.id ?? '')).value - 0.5;
  const isFork = parts.probe?.kind === 'resistive fork' || parts.probe?.kind === 'home-made electrodes';
  return {
    airCounts: Math.round(full * (isFork ? 0.965 + 0.02 * spread : 0.73 + 0.05 * spread)),
    waterCounts: Math.round(full * (isFork ? 0.3 + 0.06 * spread : 0.29 + 0.04 * spread)),
    noiseCounts: full * (isFork ? 0.0022 : 0.0014),
    slowS: isFork ? 300 : 45,
    fullScaleCounts: full,
  };
}

/** A garden's stand-ins, just switched on: every pot somewhere between dry and moist. */
export function newWorld(setup: readonly PlotSetup[], timeMs: number, seed: Seed): World {
  let chance = seed;
  const plots: Record<string, PlotWorld> = {};
  for (const one of setup) {
    const drawn = uniform(chance);
    chance = drawn.seed;
    plots[one.plotId] = newPlot(one, 0.3 + 0.25 * drawn.value);
  }
  return { timeMs, bootMs: timeMs, nextLineMs: timeMs, seed: chance, plots };
}

function newPlot(setup: PlotSetup, wetness: number): PlotWorld {
  const pot = { surfaceMl: 0, rootMl: wetness * setup.pot.saturationMl, drainedMl: 0 };
  return { pot, probe: settledProbe(wetness), engine: initialEngine, outputs: OFF };
}

/** Switches the boards off and on: the pots stay, the engines begin anew with their boot hold. Plots that are new get a pot. */
export function reboot(world: World, setup: readonly PlotSetup[], timeMs: number): World {
  const plots = Object.fromEntries(
    setup.map((one) => {
      const held = world.plots[one.plotId] ?? newPlot(one, 0.4);
      return [one.plotId, { ...held, engine: initialEngine, outputs: OFF }];
    }),
  );
  return { ...world, timeMs, bootMs: timeMs, nextLineMs: timeMs, plots };
}

const changePlot = (world: World, plotId: string, change: (plot: PlotWorld) => PlotWorld): World => {
  const plot = world.plots[plotId];
  return plot ? { ...world, plots: { ...world.plots, [plotId]: change(plot) } } : world;
};

/** Pours water on a plot by hand. */
export const pourOn = (world: World, plotId: string, volumeMl: number): World =>
  changePlot(world, plotId, (plot) => ({ ...plot, pot: pour(plot.pot, volumeMl) }));

/** Takes a plot's probe out of the soil, into the jar or back. */
export const moveProbeOf = (world: World, plotId: string, place: ProbePlace): World =>
  changePlot(world, plotId, (plot) => ({ ...plot, probe: moveProbe(plot.probe, place) }));

/** Pulls a plot's plug above the soil; the probe then reads full scale. */
export const unplug = (world: World, plotId: string): World =>
  changePlot(world, plotId, (plot) => ({ ...plot, probe: { ...plot.probe, unplugged: true } }));

/**
 * Runs the stand-ins up to a time. Boards print a line each `lineEveryMs`; while a pump runs its board also measures and decides each second.
 */
export function advance(
  world: World,
  setup: readonly PlotSetup[],
  toMs: number,
  lineEveryMs: number,
): Advance {
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
      lines.push(...linesOf(setup, measured.counts, now.timeMs));
      now = { ...now, nextLineMs: now.timeMs + lineEveryMs };
    }
    const decided = decide(now, setup, measured.counts);
    now = decided.world;
    events.push(...decided.events);
  }
  return { world: now, lines, events };
}

/** Lets pots and probes live on, a minute at a time at most. */
function live(world: World, setup: readonly PlotSetup[], toMs: number): World {
  const plots = { ...world.plots };
  for (const one of setup) {
    let plot = plots[one.plotId] ?? newPlot(one, 0.4);
    for (let atMs = world.timeMs; atMs < toMs;) {
      const durationS = Math.min(60, (toMs - atMs) / 1000);
      const watered = plot.outputs.pumpOn ? pour(plot.pot, one.flowMlPerS * durationS) : plot.pot;
      const pot = stepPot(watered, one.pot, atMs, durationS);
      plot = {
        ...plot,
        pot,
        probe: stepProbe(plot.probe, one.probe, wetnessAtProbe(pot, one.pot), durationS),
      };
      atMs += durationS * 1000;
    }
    plots[one.plotId] = plot;
  }
  return { ...world, timeMs: toMs, plots };
}

function measure(world: World, setup: readonly PlotSetup[]): { world: World; counts: Map<string, number> } {
  const counts = new Map<string, number>();
  let seed = world.seed;
  for (const one of setup) {
    const plot = world.plots[one.plotId];
    if (!plot) continue;
    const reading = readProbe(plot.probe, one.probe, world.timeMs, seed);
    seed = reading.seed;
    counts.set(one.plotId, reading.counts);
  }
  return { world: { ...world, seed }, counts };
}

/** One line a board, as a sketch would print it: `c2=1512 l1=2240`. */
function linesOf(
  setup: readonly PlotSetup[],
  counts: ReadonlyMap<string, number>,
  atMs: number,
): BoardLine[] {
  const boards = new Map<string, string[]>();
  for (const one of setup) {
    const pair = `${one.streamName}=${counts.get(one.plotId) ?? 0}`;
    boards.set(one.boardId, [...(boards.get(one.boardId) ?? []), pair]);
  }
  return [...boards].map(([boardId, pairs]) => ({ boardId, text: pairs.join(' '), atMs }));
}

function decide(
  world: World,
  setup: readonly PlotSetup[],
  counts: ReadonlyMap<string, number>,
): { world: World; events: WorldEvent[] } {
  const events: WorldEvent[] = [];
  const plots = { ...world.plots };
  const nowS = Math.floor((world.timeMs - world.bootMs) / 1000);
  for (const one of setup) {
    const plot = plots[one.plotId];
    const raw = counts.get(one.plotId);
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
      events.push({ ...event, plotId: one.plotId, atMs: world.timeMs, volumeMl });
    }
  }
  return { world: { ...world, plots }, events };
}
