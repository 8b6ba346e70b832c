/** Earlier versions of the garden document, brought up step by step. Each step knows only its own version and the next. */
import { USUAL_SPEED } from '../../bus/timing.ts';
import { edgesByLimits } from '../../quantity/bands.ts';
import { EMPTY_PLAN } from '../../plan/schema.ts';
import { DEFAULT_ALERTS } from '../../control/alerts.ts';
import { DEFAULT_SIGNALS } from '../../control/signals.ts';
import { NOTHING_CHOSEN } from './waterSchema.ts';
import { EMPTY_NETLIST } from '../../wiring/netlist.ts';
import { METRIC } from '../../quantity/units.ts';

type Loose = Readonly<Record<string, unknown>>;
const isObject = (value: unknown): value is Loose =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const PLACEMENT_OF_2 = { where: '', between: '', mapNote: '' } as const;
export const NO_PLACEMENT = { ...PLACEMENT_OF_2, lies: 'upright' } as const;

const { drawer: _drawer, answers: EMPTY_ANSWERS, ...EMPTY_REST } = EMPTY_PLAN;
const { zones: _zones, ...ANSWERS_OF_2 } = EMPTY_ANSWERS;
const PLAN_OF_2 = { ...EMPTY_REST, answers: ANSWERS_OF_2 };

/** From version 1: no plan, no wiring, no own catalogue entries yet; probes without a placement. */
function fromVersion1(garden: Loose): Loose {
  const probes = Array.isArray(garden.probes)
    ? garden.probes.map((probe: unknown) =>
        isObject(probe) ? { ...probe, placement: PLACEMENT_OF_2 } : probe,
      )
    : garden.probes;
  return { ...garden, version: 2, probes, plan: PLAN_OF_2, wiring: EMPTY_NETLIST, catalogue: [] };
}

export const NO_TEST = { touch: null, air: null, water: null } as const;

const eachOf = (list: unknown, change: (one: Loose) => Loose): unknown =>
  Array.isArray(list) ? list.map((one: unknown) => (isObject(one) ? change(one) : one)) : list;

/** References did not know whether they had settled. */
const unwatched = (reference: unknown): unknown =>
  isObject(reference) ? { ...reference, settling: null } : reference;

/** From version 2: every channel was a probe's moisture; probes had no first test, no proof of their label, no bus. */
function fromVersion2(garden: Loose): Loose {
  const probes = eachOf(garden.probes, (probe) => ({
    ...probe,
    firstTest: NO_TEST,
    labelProvedAt: null,
    warmUp: null,
    bus: null,
  }));
  const channels = eachOf(garden.channels, (channel) => ({
    ...channel,
    quantity: 'moisture',
    label: '',
    correction: { kind: 'none' },
    pegs: isObject(channel.pegs)
      ? { dry: unwatched(channel.pegs.dry), wet: unwatched(channel.pegs.wet) }
      : channel.pegs,
  }));
  const calibrations = eachOf(garden.calibrations, (calibration) => ({
    ...calibration,
    dry: unwatched(calibration.dry),
    wet: unwatched(calibration.wet),
  }));
  return { ...garden, version: 3, probes, channels, calibrations, registerMaps: [] };
}

const SOIL_OF_4 = { name: '', bulkDensity: null, capacityVwc: null, wiltingVwc: null } as const;

const SIDES = ['dry', 'wet'] as const;

/** A reference of version 3 as a point with one capture; its condition moves from the one to the other. */
function pointOfReference(reference: unknown, id: string): Loose | null {
  if (!isObject(reference)) return null;
  const { condition, ...capture } = reference;
  return { id, condition, typed: null, felt: null, temperatureC: null, used: true, captures: [capture] };
}

const methodOfPoints = (points: readonly Loose[]) =>
  points.some((point) => point.condition === 'air' || point.condition === 'water')
    ? 'air-water'
    : 'dry-soaked';

const pairOf = (of: Loose): Loose[] =>
  SIDES.flatMap((side) => {
    const point = pointOfReference(of[side], `point-${side}`);
    return point ? [point] : [];
  });

const rawOf = (reference: unknown): number =>
  isObject(reference) && typeof reference.rawCounts === 'number' ? reference.rawCounts : Number.NaN;

/** The straight line through the two references of a version 3 calibration. */
function lineOfPair(calibration: Loose): Loose {
  const [dry, wet] = [rawOf(calibration.dry), rawOf(calibration.wet)];
  const noise = [calibration.dry, calibration.wet].map((one) =>
    isObject(one) && typeof one.noiseCounts === 'number' ? one.noiseCounts : 1,
  );
  const low = Math.min(dry, wet);
  const percentAtLow = dry < wet ? 0 : 100;
  return {
    shape: {
      kind: 'line',
      origin: low,
      unit: Math.abs(wet - dry),
      weights: [percentAtLow, 100 - 2 * percentAtLow],
      temperature: null,
    },
    range: { lowCounts: low, highCounts: Math.max(dry, wet) },
    noiseCounts: Math.max(1, ...noise),
  };
}

/** From version 3: two pegs and a line were all that there was; a calibration did not say where it holds, a pump's flow was a guess. */
function fromVersion3(garden: Loose): Loose {
  const list = (of: unknown): Loose[] => (Array.isArray(of) ? of.filter(isObject) : []);
  const depthOf = (channelId: unknown) => {
    const channel = list(garden.channels).find((one) => one.id === channelId);
    return list(garden.probes).find((one) => one.id === channel?.probeId)?.depthCm ?? 0;
  };
  const calibrations = eachOf(garden.calibrations, (one) => {
    const points = pairOf(one);
    const { dry, wet: _wet, ...kept } = one;
    const place = isObject(dry) ? { boardId: dry.boardId, supplyV: dry.supplyV } : {};
    return {
      ...kept,
      method: methodOfPoints(points),
      inputs: {},
      points,
      convert: null,
      ...lineOfPair(one),
      place: { ...place, depthCm: depthOf(one.channelId), soil: '', temperatureC: null },
      who: '',
      note: '',
      warnings: [],
      guessOf: null,
      recalibrateBy: null,
    };
  });
  const runs = list(garden.channels).flatMap((channel) => {
    const pegs = isObject(channel.pegs) ? channel.pegs : {};
    const used = list(garden.calibrations).find((one) => one.id === channel.calibrationId);
    // Pegs that a calibration was made of are in it; only what goes beyond it is still under way.
    const isNew = SIDES.some(
      (side) => isObject(pegs[side]) && JSON.stringify(pegs[side]) !== JSON.stringify(used?.[side]),
    );
    const points = pairOf(pegs);
    return isNew && points.length > 0
      ? [
          {
            id: `run-${String(channel.id)}`.slice(0, 40),
            channelId: channel.id,
            method: methodOfPoints(points),
            inputs: {},
            points,
            convert: null,
            startedAt: garden.madeAt,
          },
        ]
      : [];
  });
  return {
    ...garden,
    version: 4,
    plots: eachOf(garden.plots, (plot) => ({ ...plot, soil: SOIL_OF_4 })),
    channels: eachOf(garden.channels, ({ pegs: _pegs, ...channel }) => channel),
    calibrations,
    runs,
    waterLines: eachOf(garden.waterLines, (line) => ({ ...line, trials: [], trialNote: '' })),
  };
}

export const NO_SOIL = { ...SOIL_OF_4, kindId: '' } as const;
export const NO_WARMTH = { soilLowC: null, soilHighC: null, airLowC: null, airHighC: null } as const;
export const NO_RIG = { tubeM: null, liftCm: null, tankPercent: null, supplyV: null } as const;
export const NO_CONDITIONS = {
  hours: null,
  darkBelow: null,
  airBelowC: null,
  soilAboveC: null,
  noRain: false,
  batteryAboveV: null,
  noSkip: false,
} as const;
export const USUAL_RISE = { tenths: 20, responseS: 900, times: 3 } as const;

/**
 * From version 4: the only program was "until wet", held by maximum run and interval alone. It goes on as it was; the daily maximum that it never had is
 * what ten full runs give.
 */
function fromVersion4(garden: Loose): Loose {
  const runMl = (line: Loose): number =>
    Math.max(1, Math.min(100_000, Math.round(Number(line.maxRunS) * Number(line.flowMlPerS)) || 1));
  return {
    ...garden,
    version: 5,
    plots: eachOf(garden.plots, (plot) => ({
      ...plot,
      soil: isObject(plot.soil) ? { ...plot.soil, kindId: '' } : plot.soil,
      plantGroupId: '',
      size: null,
      warmth: NO_WARMTH,
    })),
    waterLines: eachOf(garden.waterLines, (line) => ({
      ...line,
      tubeS: 0,
      program: { kind: 'until-wet', capMl: runMl(line) },
      conditions: NO_CONDITIONS,
      fallbackMl: 0,
      tankId: null,
      dailyMaxMl: 10 * runMl(line),
      rise: USUAL_RISE,
      outlets: [],
      cups: null,
      rig: NO_RIG,
      trials: eachOf(line.trials, (trial) => ({ ...trial, rig: NO_RIG })),
    })),
    reservoirs: [],
    signals: DEFAULT_SIGNALS,
    alerts: DEFAULT_ALERTS,
    weather: 'mild',
  };
}

/** From version 5: a line's air, light and rain were those of its board, or else the first that the garden had. Now they go by place, or are chosen. */
const fromVersion5 = (garden: Loose): Loose => ({
  ...garden,
  version: 6,
  waterLines: eachOf(garden.waterLines, (line) => ({ ...line, around: NOTHING_CHOSEN })),
});

export const NOTHING_SAID = {
  comma: null,
  ignores: [] as string[],
  picked: [] as { before: string; name: string }[],
} as const;

/** From version 6: a plot did not say what it roughly is nor how far it is; a plan knew no irrigation timer and no drawer. */
const fromVersion6 = (garden: Loose): Loose => ({
  ...garden,
  version: 7,
  plots: eachOf(garden.plots, (plot) => ({ ...plot, kind: null, cableM: null })),
  boards: eachOf(garden.boards, (board) => ({ ...board, reads: NOTHING_SAID })),
  plan: isObject(garden.plan)
    ? {
        ...garden.plan,
        answers: isObject(garden.plan.answers)
          ? { ...garden.plan.answers, zones: null }
          : garden.plan.answers,
        drawer: {},
      }
    : garden.plan,
});

export const DECIDES_BY_FIRST = { by: 'one', channelIds: [] as string[] } as const;

/** From version 7: a plot was decided by its first probe; units were metric. */
const fromVersion7 = (garden: Loose): Loose => ({
  ...garden,
  version: 8,
  units: METRIC,
  plots: eachOf(garden.plots, (plot) => ({ ...plot, decides: DECIDES_BY_FIRST })),
  boards: eachOf(garden.boards, (board) => ({
    ...board,
    reads: { ...(isObject(board.reads) ? board.reads : {}), picked: [] },
  })),
});

/** Limits that nobody has touched, and the words that stood beside them whatever the limits were. */
const FIRST_LIMITS_OF_8 = { startTenths: 350, stopTenths: 600 } as const;
const FIRST_EDGES_OF_8 = [200, 350, 700, 850] as const;

export const NOTHING_WATCHED = { batteryLowV: null, darkBelow: null, isLithium: false } as const;

/** Limits of battery and night stood at water lines alone: a board takes over the first that its lines would have held or called dark by. */
function watchOf8(garden: Loose, boardId: unknown): Loose {
  const lines = Array.isArray(garden.waterLines) ? garden.waterLines.filter(isObject) : [];
  const of = (key: string) =>
    lines.flatMap((line) => {
      const value = line.boardId === boardId && isObject(line.conditions) ? line.conditions[key] : null;
      return typeof value === 'number' ? [value] : [];
    });
  const [volts, light] = [of('batteryAboveV'), of('darkBelow')];
  return {
    ...NOTHING_WATCHED,
    batteryLowV: volts.length > 0 ? Math.max(...volts) : null,
    darkBelow: light.length > 0 ? Math.min(...light) : null,
  };
}

export const NOTHING_SEEN = { probeOutAt: null, tankLowAt: null, watchedAt: null, overruled: '' } as const;

export const USUAL_FLOAT = { highIs: 'water', threshold: 0.5 } as const;

/** From version 8: words were independent of the limits, nobody knew whether limits were ever set, and a program laid aside was lost. Words that were never moved go with the limits from now on. */
const fromVersion8 = (garden: Loose): Loose => ({
  ...garden,
  version: 9,
  plots: eachOf(garden.plots, (plot) => {
    const limits = isObject(plot.limits) ? plot.limits : {};
    const { startTenths, stopTenths } = limits;
    const isFirst =
      startTenths === FIRST_LIMITS_OF_8.startTenths && stopTenths === FIRST_LIMITS_OF_8.stopTenths;
    const wereMoved = JSON.stringify(plot.bandEdges) !== JSON.stringify(FIRST_EDGES_OF_8);
    const bandEdges =
      wereMoved || typeof startTenths !== 'number' || typeof stopTenths !== 'number'
        ? plot.bandEdges
        : [...edgesByLimits(startTenths, stopTenths, { wiltingTenths: null, capacityTenths: null })];
    return { ...plot, bandEdges, limitsSet: !isFirst, words: 'five' };
  }),
  waterLines: eachOf(garden.waterLines, (line) => ({
    ...line,
    laidAside: [],
    jugStepMl: null,
    // What ran by itself already was looked at by somebody, though nobody knows how.
    firstHour: { ...NOTHING_SEEN, overruled: line.automatic === true ? 'It ran by itself already.' : '' },
  })),
  boards: eachOf(garden.boards, (board) => ({ ...board, watch: watchOf8(garden, board.id) })),
  reservoirs: eachOf(garden.reservoirs, (tank) => ({ ...tank, float: USUAL_FLOAT })),
});

const withoutSkip = (conditions: unknown) =>
  isObject(conditions) ? { ...conditions, noSkip: false } : conditions;

/** From version 9: no outputs but water lines, no skip switch, no longitude. */
const fromVersion9 = (garden: Loose): Loose => ({
  ...garden,
  version: 10,
  contacts: [],
  waterLines: eachOf(garden.waterLines, (line) => ({
    ...line,
    conditions: withoutSkip(line.conditions),
    around: isObject(line.around) ? { ...line.around, skipId: null } : line.around,
  })),
  plan: isObject(garden.plan)
    ? {
        ...garden.plan,
        supply: isObject(garden.plan.supply)
          ? { ...garden.plan.supply, longitudeDeg: null }
          : garden.plan.supply,
      }
    : garden.plan,
});

/** From version 10: parts stood for boards, probes and water lines alone; contacts and lamps had none. */
const fromVersion10 = (garden: Loose): Loose => ({ ...garden, version: 11 });

/** From version 11: probes on a bus had no speed, and were spoken to at 9600 bits a second. Entries of the catalogue say since then how they are asked over I2C. */
const fromVersion11 = (garden: Loose): Loose => ({
  ...garden,
  version: 12,
  probes: eachOf(garden.probes, (probe) =>
    isObject(probe.bus) ? { ...probe, bus: { ...probe.bus, baud: USUAL_SPEED } } : probe,
  ),
});

/** From version 12: every probe stood upright in the soil. */
const fromVersion12 = (garden: Loose): Loose => ({
  ...garden,
  version: 13,
  probes: eachOf(garden.probes, (probe) =>
    isObject(probe.placement) ? { ...probe, placement: { ...probe.placement, lies: 'upright' } } : probe,
  ),
});

const STEPS: readonly ((garden: Loose) => Loose)[] = [
  fromVersion1,
  fromVersion2,
  fromVersion3,
  fromVersion4,
  fromVersion5,
  fromVersion6,
  fromVersion7,
  fromVersion8,
  fromVersion9,
  fromVersion10,
  fromVersion11,
  fromVersion12,
];

/** Kinds of signals and alerts that came later than the document: they stand as at first, before night and "content". */
function withNewKinds(garden: Loose): Loose {
  const missing = <T>(list: unknown, all: readonly T[], key: keyof T): readonly T[] => {
    const known = Array.isArray(list) ? list.filter(isObject).map((one) => one[key as string]) : null;
    return known === null ? [] : all.filter((one) => !known.includes(one[key]));
  };
  const signals = missing(garden.signals, DEFAULT_SIGNALS, 'state');
  const alerts = missing(garden.alerts, DEFAULT_ALERTS, 'kind');
  if (signals.length + alerts.length === 0) return garden;
  const kept = Array.isArray(garden.signals) ? (garden.signals as unknown[]) : [];
  const isAt = (place: number, state: string) => {
    const one = kept.at(place);
    return isObject(one) && one.state === state;
  };
  // Before the night as well, where that comes last but one: it must not hide what is not known.
  const last = isAt(-1, 'content') ? (isAt(-2, 'night') ? 2 : 1) : 0;
  return {
    ...garden,
    signals: Array.isArray(garden.signals)
      ? [...kept.slice(0, kept.length - last), ...signals, ...kept.slice(kept.length - last)]
      : garden.signals,
    alerts: Array.isArray(garden.alerts) ? [...(garden.alerts as unknown[]), ...alerts] : garden.alerts,
  };
}

/** The document in the newest version's shape. It is not checked here: the schema does that. */
export function migrate(parsed: object, version: number): unknown {
  return withNewKinds(
    STEPS.slice(version - 1).reduce<Loose>((garden, step) => step(garden), parsed as Loose),
  );
}
