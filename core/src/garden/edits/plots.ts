/** Changes to the garden: each takes the document and gives a new one. Nothing here knows storage or the screen. */
import { candidatesOf } from '../bind/decided.ts';
import { plotParts } from '../bind/plotParts.ts';
import { NOTHING_CHOSEN } from '../document/waterSchema.ts';
import { leaderOf } from '../../control/programs/programs.ts';
import { edgesByLimits, type BandEdges } from '../../quantity/bands.ts';
import { edgesAfter, usualEdges } from '../bind/words.ts';
import { byId } from '../../quantity/byId.ts';
import type { LimitName, Limits } from '../../control/limits.ts';
import { EMPTY_PLAN } from '../../plan/schema.ts';
import { EMPTY_NETLIST } from '../../wiring/netlist.ts';
import { makeId } from '../document/ids.ts';
import {
  DECIDES_BY_FIRST,
  NO_CONDITIONS,
  NO_PLACEMENT,
  NO_RIG,
  NO_SOIL,
  NO_TEST,
  NO_WARMTH,
  NOTHING_SAID,
  NOTHING_SEEN,
  NOTHING_WATCHED,
  USUAL_RISE,
} from '../document/migrations.ts';
import { DEFAULT_ALERTS } from '../../control/alerts.ts';
import { DEFAULT_SIGNALS } from '../../control/signals.ts';
import { NO_CORRECTION } from '../../temperature/correction.ts';
import { firstQuantityOf } from '../../quantity/probeKind.ts';
import { METRIC } from '../../quantity/units.ts';
import { syncWiring } from './plan.ts';
import {
  GARDEN_FORMAT,
  GARDEN_VERSION,
  type Board,
  type Channel,
  type Garden,
  type Plot,
  type Probe,
  type WaterLine,
} from '../document/schema.ts';

/** A cautious pair for span percent; it is only a place to begin, and the Limits sheet says so. */
const DEFAULT_LIMITS: Limits = { startTenths: 350, stopTenths: 600 };
const FIRST_EDGES = edgesByLimits(DEFAULT_LIMITS.startTenths, DEFAULT_LIMITS.stopTenths, {
  wiltingTenths: null,
  capacityTenths: null,
});

/** What a person says about a plot, its probe and its board, before anything is calibrated. */
export type Parts = {
  readonly plotName: string;
  readonly plant: string;
  /** Absent: not said. */
  readonly plotKind?: Plot['kind'];
  readonly probeLabel: string;
  readonly probeKind: Probe['kind'];
  readonly colour: Probe['colour'];
  readonly depthCm: number;
  readonly pin: string;
  readonly streamName: string;
  /** An existing board's id, or the traits of a new one. */
  readonly board:
    | { readonly id: string }
    | { readonly name: string; readonly traits: string; readonly adcBits: number; readonly supplyV: number };
  /** Null: no pump, the lamp alone. */
  readonly pump: { readonly flowMlPerS: number } | null;
};

/** What a new probe and a new channel have before anything is known of them. */
export const NEW_PROBE = {
  placement: NO_PLACEMENT,
  firstTest: NO_TEST,
  labelProvedAt: null,
  warmUp: null,
  bus: null,
} as const;
export const EMPTY_CHANNEL = {
  quantity: 'moisture',
  label: '',
  pin: '',
  correction: NO_CORRECTION,
  calibrationId: null,
} as const;

/** What a board has before anybody says more about it. */
const NEW_BOARD = {
  watch: NOTHING_WATCHED,
  reads: { ...NOTHING_SAID, ignores: [] as string[], picked: [] as Board['reads']['picked'] },
};

/** How deep a probe is put until somebody says so, cm. */
export const USUAL_DEPTH_CM = 7;

/** What a plot has before anybody says more about it. */
export const NEW_PLOT = {
  decides: DECIDES_BY_FIRST,
  limitsSet: false,
  words: 'five',
  kind: null,
  cableM: null,
  plantGroupId: '',
  size: null,
  warmth: NO_WARMTH,
} as const;

/** What a water line has before anybody says more about it: it pulses and soaks, cautiously. */
export const NEW_LINE = {
  tubeS: 0,
  automatic: false,
  firstHour: NOTHING_SEEN,
  laidAside: [],
  conditions: NO_CONDITIONS,
  around: NOTHING_CHOSEN,
  fallbackMl: 0,
  tankId: null,
  maxRunS: 20,
  minIntervalS: 600,
  staleAfterS: 60,
  rise: USUAL_RISE,
  outlets: [],
  cups: null,
  rig: NO_RIG,
  trials: [],
  jugStepMl: null,
  trialNote: '',
} satisfies Partial<WaterLine>;

type Making = { readonly random: () => number; readonly nowIso: string };

export function emptyGarden(name: string, timeZone: string, { random, nowIso }: Making): Garden {
  return {
    format: GARDEN_FORMAT,
    version: GARDEN_VERSION,
    id: makeId('garden', new Set(), random),
    name,
    note: '',
    units: METRIC,
    timeZone,
    madeAt: nowIso,
    logEveryS: 10,
    plots: [],
    boards: [],
    probes: [],
    channels: [],
    calibrations: [],
    runs: [],
    waterLines: [],
    contacts: [],
    reservoirs: [],
    signals: DEFAULT_SIGNALS.map((one) => ({ ...one })),
    alerts: DEFAULT_ALERTS.map((one) => ({ ...one })),
    weather: 'mild',
    plan: EMPTY_PLAN,
    wiring: EMPTY_NETLIST,
    catalogue: [],
    registerMaps: [],
  };
}

/** Adds a plot of which no more is known yet: its board and probe come from the plan, or from what a board prints. */
export function addBarePlot(
  garden: Garden,
  of: { readonly name: string; readonly plant: string; readonly kind: Plot['kind'] },
  random: () => number,
): { garden: Garden; plotId: string } {
  const plotId = makeId('plot', new Set(garden.plots.map((one) => one.id)), random);
  const plot: Plot = {
    id: plotId,
    limits: DEFAULT_LIMITS,
    bandEdges: [...FIRST_EDGES],
    soil: { ...NO_SOIL },
    ...NEW_PLOT,
    ...of,
  };
  return { plotId, garden: { ...garden, plots: [...garden.plots, plot] } };
}

/** Adds a plot with its probe, channel, board (new or existing) and, when asked for, a pump that is switched off until the person arms it. */
export function addPlot(
  garden: Garden,
  parts: Parts,
  random: () => number,
): { garden: Garden; plotId: string } {
  const { garden: bare, plotId } = addBarePlot(
    garden,
    { name: parts.plotName, plant: parts.plant, kind: parts.plotKind ?? null },
    random,
  );
  return { plotId, garden: giveProbe(bare, plotId, parts, random) };
}

/** Puts a probe with its channel, its board (new or existing) and, when asked for, a pump into a plot. */
export function giveProbe(garden: Garden, plotId: string, parts: Parts, random: () => number): Garden {
  const fresh = (prefix: string, list: readonly { id: string }[]) =>
    makeId(prefix, new Set(list.map((one) => one.id)), random);
  const probeId = fresh('probe', garden.probes);
  const newBoard: Board | null =
    'id' in parts.board ? null : { id: fresh('board', garden.boards), ...parts.board, ...NEW_BOARD };
  const boardId = 'id' in parts.board ? parts.board.id : (newBoard?.id ?? '');
  const channel: Channel = {
    ...EMPTY_CHANNEL,
    id: fresh('channel', garden.channels),
    probeId,
    boardId,
    quantity: firstQuantityOf(parts.probeKind),
    pin: parts.pin,
    streamName: parts.streamName,
  };
  const line =
    parts.pump &&
    newLine(
      garden,
      { name: pumpName(parts.plotName), plotId, boardId, flowMlPerS: parts.pump.flowMlPerS },
      random,
    );
  return {
    ...withUsualLimits(garden, plotId, channel.quantity),
    boards: newBoard ? [...garden.boards, newBoard] : garden.boards,
    probes: [
      ...garden.probes,
      {
        id: probeId,
        plotId,
        label: parts.probeLabel,
        kind: parts.probeKind,
        colour: parts.colour,
        depthCm: parts.depthCm,
        ...NEW_PROBE,
      },
    ],
    channels: [...garden.channels, channel],
    waterLines: line ? [...garden.waterLines, line] : garden.waterLines,
  };
}

/** Where a tensiometer decides, the cautious pair is 30 and 10 kPa: the middle of what most guides give for vegetables in loam. Limits that were moved stay. */
const TENSION_LIMITS: Limits = { startTenths: 700, stopTenths: 900 };
const TENSION_EDGES = edgesByLimits(TENSION_LIMITS.startTenths, TENSION_LIMITS.stopTenths, {
  wiltingTenths: null,
  capacityTenths: null,
});

function withUsualLimits(garden: Garden, plotId: string, quantity: Channel['quantity']): Garden {
  if (quantity !== 'soil tension') return garden;
  return {
    ...garden,
    plots: replace(garden.plots, plotId, (plot) =>
      !plot.limitsSet ? { ...plot, limits: TENSION_LIMITS, bandEdges: [...TENSION_EDGES] } : plot,
    ),
  };
}

/** "Mint pump"; a long plot name gives way, for a name has at most 60 characters. */
const pumpName = (plotName: string): string => `${plotName.slice(0, 55)} pump`;

/** A line for a plot, with cautious guards, switched off until the person arms it. */
function newLine(
  garden: Garden,
  of: {
    readonly name: string;
    readonly plotId: string;
    readonly boardId: string;
    readonly flowMlPerS: number;
  },
  random: () => number,
): WaterLine {
  // Half of what the maximum run gives, so that no setting contradicts another.
  const pulseMl = Math.max(1, Math.round((of.flowMlPerS * NEW_LINE.maxRunS) / 2));
  return {
    id: makeId('line', new Set(garden.waterLines.map((one) => one.id)), random),
    ...of,
    ...NEW_LINE,
    program: { kind: 'pulse-soak', pulseMl, soakS: 900, mostPulses: 4, restS: 14_400 },
    dailyMaxMl: 4 * pulseMl,
  };
}

/** Another line for a plot that has one, such as the valve of a zone without a probe; it only alerts until it gets a program. */
export function addLine(garden: Garden, plotId: string, random: () => number): Garden {
  const first = garden.waterLines.find((one) => one.plotId === plotId);
  if (!first) return garden;
  const count = garden.waterLines.filter((one) => one.plotId === plotId).length;
  const line = newLine(
    garden,
    {
      name: `${first.name.slice(0, 50)} ${count + 1}`,
      plotId,
      boardId: first.boardId,
      flowMlPerS: first.flowMlPerS,
    },
    random,
  );
  return { ...garden, waterLines: [...garden.waterLines, { ...line, program: { kind: 'alert-only' } }] };
}

/** Takes a line away; what followed it only alerts. */
export const removeLine = (garden: Garden, lineId: string): Garden => ({
  ...garden,
  waterLines: withoutLines(garden.waterLines, (line) => line.id === lineId),
});

/**
 * Says everything about a plot, its first probe, that probe's board and its pump again; calibrations, limits and guards stay. A board given by its traits
 * replaces the traits of the board in use, for every plot on it; without a pump the plot's line goes.
 */
export function editPlot(garden: Garden, plotId: string, parts: Parts, random: () => number): Garden {
  const held = plotParts(garden, plotId);
  if (!held) throw new RangeError(`editPlot: no plot ${plotId}`);
  if (!held.probe) return namePlot(giveProbe(garden, plotId, parts, random), plotId, parts);
  const { board, pump } = parts;
  // A probe that decides nothing has its channel all the same.
  const own = held.channel ?? garden.channels.find((one) => one.probeId === held.probe?.id);
  const boardId = 'id' in board ? board.id : (own?.boardId ?? '');
  const kept = garden.waterLines.filter((one) => one.plotId !== plotId || pump !== null);
  const waterLines = !pump
    ? withoutLines(kept, () => false)
    : held.line
      ? replace(kept, held.line.id, (one) => ({ ...one, flowMlPerS: pump.flowMlPerS }))
      : [
          ...kept,
          newLine(
            garden,
            { name: pumpName(parts.plotName), plotId, boardId, flowMlPerS: pump.flowMlPerS },
            random,
          ),
        ];
  return syncWiring({
    ...garden,
    plots: namePlot(garden, plotId, parts).plots,
    boards: 'id' in board ? garden.boards : replace(garden.boards, boardId, (one) => ({ ...one, ...board })),
    probes: replace(garden.probes, held.probe.id, (probe) => ({
      ...probe,
      label: parts.probeLabel,
      kind: parts.probeKind,
      colour: parts.colour,
      depthCm: parts.depthCm,
    })),
    channels: replace(garden.channels, own?.id ?? '', (channel) => ({
      ...channel,
      // Another kind speaks of another quantity, unless somebody has said otherwise of this one.
      quantity:
        channel.quantity === firstQuantityOf(held.probe?.kind ?? parts.probeKind)
          ? firstQuantityOf(parts.probeKind)
          : channel.quantity,
      pin: parts.pin,
      streamName: parts.streamName,
    })),
    waterLines,
  });
}

/** Says again what a plot is called, what grows in it and what it roughly is. */
export const namePlot = (
  garden: Garden,
  plotId: string,
  of: Pick<Parts, 'plotName' | 'plant' | 'plotKind'>,
): Garden => ({
  ...garden,
  plots: replace(garden.plots, plotId, (plot) => ({
    ...plot,
    name: of.plotName,
    plant: of.plant,
    kind: of.plotKind ?? null,
  })),
});

/** Renames the garden and changes the note beside its name. */
export const renameGarden = (garden: Garden, name: string, note: string): Garden => ({
  ...garden,
  name,
  note,
});

/** Removes a plot with its probes, channels, calibrations, lines and contacts. Boards and stored readings stay. */
export function removePlot(garden: Garden, plotId: string): Garden {
  const gone = new Set(garden.probes.filter((probe) => probe.plotId === plotId).map((probe) => probe.id));
  const channels = garden.channels.filter((channel) => !gone.has(channel.probeId ?? ''));
  const kept = new Set(channels.map((channel) => channel.id));
  const rest = withoutChannels(garden, kept);
  return syncWiring({
    ...rest,
    plots: rest.plots.filter((plot) => plot.id !== plotId),
    probes: garden.probes.filter((probe) => probe.plotId !== plotId),
    channels,
    calibrations: garden.calibrations.filter((calibration) => kept.has(calibration.channelId)),
    runs: garden.runs.filter((run) => kept.has(run.channelId)),
    contacts: rest.contacts.filter((one) => one.plotId !== plotId),
    waterLines: withoutLines(
      rest.waterLines.map((line) => ({
        ...line,
        outlets: line.outlets.map((one) => (one.plotId === plotId ? { ...one, plotId: null } : one)),
      })),
      (line) => line.plotId === plotId,
    ),
  });
}

/** The same without what went by channels that are gone: reservoirs are then watched by none, lines go by what is near. */
export function withoutChannels(garden: Garden, kept: ReadonlySet<string>): Garden {
  const still = (id: string | null) => (id !== null && kept.has(id) ? id : null);
  const aroundStill = ({ airId, lightId, rainId, skipId }: WaterLine['around']): WaterLine['around'] => ({
    airId: still(airId),
    lightId: still(lightId),
    rainId: still(rainId),
    skipId: still(skipId),
  });
  return {
    ...garden,
    plots: garden.plots.map((plot) => ({
      ...plot,
      decides: {
        ...plot.decides,
        channelIds: plot.decides.channelIds.filter((id) => kept.has(id)),
      },
    })),
    reservoirs: garden.reservoirs.map((one) => ({ ...one, channelId: still(one.channelId) })),
    waterLines: garden.waterLines.map((line) => ({ ...line, around: aroundStill(line.around) })),
    contacts: garden.contacts.map((one) => ({ ...one, around: aroundStill(one.around) })),
  };
}

/** Takes lines away; those that followed one of them only alert from then on. */
export function withoutLines(lines: readonly WaterLine[], isGone: (line: WaterLine) => boolean): WaterLine[] {
  const kept = lines.filter((line) => !isGone(line));
  const ids = new Set(kept.map((line) => line.id));
  return kept.map((line) => {
    const leaderId = leaderOf(line.program);
    return leaderId === null || ids.has(leaderId) ? line : { ...line, program: { kind: 'alert-only' } };
  });
}

const replace = <T extends { id: string }>(list: readonly T[], id: string, change: (one: T) => T): T[] =>
  list.map((one) => (one.id === id ? change(one) : one));

/** Sets the limits; the words go with them, unless a person has moved those apart. */
export function setLimits(garden: Garden, plotId: string, limits: Limits): Garden {
  const bandEdges = edgesAfter(garden, garden, plotId, limits);
  return {
    ...garden,
    plots: replace(garden.plots, plotId, (plot): Plot => ({
      ...plot,
      limits: { ...limits },
      limitsSet: true,
      bandEdges: [...bandEdges],
    })),
  };
}

/** Puts the words back to where the limits put them. */
export const joinWords = (garden: Garden, plotId: string): Garden => ({
  ...garden,
  plots: replace(garden.plots, plotId, (plot) => ({
    ...plot,
    bandEdges: [...usualEdges(garden, plot, plot.limits)],
  })),
});

/** Moves one flag and leaves the other where it is. @param tenths of a percent */
export const setLimit = (garden: Garden, plotId: string, which: LimitName, tenths: number): Garden => {
  const plot = byId(garden.plots, plotId);
  return plot
    ? setLimits(garden, plotId, {
        ...plot.limits,
        [which === 'start' ? 'startTenths' : 'stopTenths']: tenths,
      })
    : garden;
};

export const setBandEdges = (garden: Garden, plotId: string, [dry, low, right, wet]: BandEdges): Garden => ({
  ...garden,
  plots: replace(garden.plots, plotId, (plot) => ({ ...plot, bandEdges: [dry, low, right, wet] })),
});

export const setWaterLine = (
  garden: Garden,
  lineId: string,
  change: Partial<Omit<WaterLine, 'id'>>,
): Garden => ({
  ...garden,
  waterLines: replace(garden.waterLines, lineId, (line) => ({ ...line, ...change })),
});

export const setPlot = (
  garden: Garden,
  plotId: string,
  change: Partial<Pick<Plot, 'plantGroupId' | 'size' | 'warmth' | 'cableM' | 'words'>>,
): Garden => ({ ...garden, plots: replace(garden.plots, plotId, (plot) => ({ ...plot, ...change })) });

export const setStreamName = (garden: Garden, channelId: string, streamName: string): Garden => ({
  ...garden,
  channels: replace(garden.channels, channelId, (channel) => ({ ...channel, streamName })),
});

/** Says which of a plot's probes decide, and how. @throws RangeError for a channel that cannot decide this plot: no form offers it */
export function setDecides(garden: Garden, plotId: string, decides: Plot['decides']): Garden {
  const able = new Set(candidatesOf(garden, plotId).map((one) => one.id));
  const stranger = decides.channelIds.find((id) => !able.has(id));
  if (stranger !== undefined) throw new RangeError(`setDecides: channel ${stranger} cannot decide ${plotId}`);
  return { ...garden, plots: replace(garden.plots, plotId, (plot) => ({ ...plot, decides })) };
}

/** Says in which units a person reads and types. */
export const setUnits = (garden: Garden, units: Garden['units']): Garden => ({ ...garden, units });
