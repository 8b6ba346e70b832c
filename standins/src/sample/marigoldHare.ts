/**
 * The Marigold Hare: a narrowboat's roof garden, made up. Four plots, two boards, one pump. The strawberries wait for their first
 * calibration, and something is wrong with one probe for the user to find.
 */
import { NO_CONDITIONS } from '@plain-trowel/core/garden/document/migrations';
import { NOTHING_CHOSEN } from '@plain-trowel/core/garden/document/waterSchema';
import { readGarden } from '@plain-trowel/core/garden/document/gardenFile';
import {
  GARDEN_VERSION,
  type Garden,
  type Placement,
  type Capture,
} from '@plain-trowel/core/garden/document/schema';
import { EMPTY_CHANNEL, NEW_LINE, NEW_PLOT, NEW_PROBE } from '@plain-trowel/core/garden/edits/plots';
import { NOTHING_WATCHED } from '@plain-trowel/core/garden/document/migrations';
import { DEFAULT_SIGNALS } from '@plain-trowel/core/control/signals';
import { setWiring } from '@plain-trowel/core/garden/edits/plan';
import { identified, type EventDraft, type GardenEvent } from '@plain-trowel/core/records/event';
import { EMPTY_NETLIST } from '@plain-trowel/core/wiring/netlist';
import { fromBeta } from '@plain-trowel/core/temperature/thermistor';
import { FLAGS, type Reading } from '@plain-trowel/core/records/series';
import { initialLineParser, parseLine } from '@plain-trowel/core/signal/line';
import { gardenEventOf } from '../board/worldEvent.ts';
import { DEFAULT_ALERTS, stepAlerts, type AlertStates } from '@plain-trowel/core/control/alerts';
import { alertEvent } from '@plain-trowel/core/garden/bind/alertEvent';
import { localTimeIn } from '@plain-trowel/core/quantity/localTime';
import {} from '@plain-trowel/core/garden/bind/plotFacts';
import { watchedOf } from '@plain-trowel/core/garden/bind/watched';
import { MARIGOLD_PLAN, marigoldWiring } from './marigoldPlan.ts';
import { setupOf } from '../board/setup.ts';
import { advance, newWorld, setProbeFault, type World } from '../board/world.ts';
import { edgesByLimits } from '@plain-trowel/core/quantity/bands';
import { METRIC } from '@plain-trowel/core/quantity/units';

const SAMPLE_ID = 'marigold-hare';
const SEED = 1886;
const HOUR_MS = 3_600_000;
const HISTORY_MS = 72 * HOUR_MS;
/** The mint's plug came out this long before the sample is opened. */
const UNPLUGGED_MS = 158 * 60_000;
const LINE_EVERY_MS = 300_000;

const placed = (
  where: string,
  between: string,
  mapNote: string,
  lies: Placement['lies'] = 'upright',
): Placement => ({ where, between, mapNote, lies });

/** The pump into the jug: s and ml. */
const JUG = [
  [5, 34],
  [10, 79],
  [15, 125],
  [5, 35],
  [10, 80],
  [15, 123],
] as const;

type Taken = { boardId: string; supplyV: number; takenAt: string };

const capture = (rawCounts: number, noiseCounts: number, taken: Taken): Capture => ({
  rawCounts,
  noiseCounts,
  spreadCounts: noiseCounts,
  readings: 21,
  windowS: 10,
  simulated: true,
  settling: { verdict: 'steady', fromEndCounts: 1 },
  ...taken,
});

type Pair = { readonly dry: readonly number[]; readonly wet: readonly number[]; readonly noise: number };

/** References in air and water, each taken three times two minutes apart, and the line through them. */
function airAndWater(id: string, pair: Pair, taken: Taken, depthCm: number) {
  const repeated = (condition: 'air' | 'water', counts: readonly number[], from: number) => ({
    id: `point-${condition}`,
    condition,
    typed: null,
    felt: null,
    temperatureC: 18,
    used: true,
    captures: counts.map((one, at) =>
      capture(one, pair.noise, {
        ...taken,
        takenAt: new Date(Date.parse(taken.takenAt) + (from + at) * 120_000).toISOString(),
      }),
    ),
  });
  const mean = (of: readonly number[]) => of.reduce((sum, one) => sum + one, 0) / of.length;
  const [dry, wet] = [mean(pair.dry), mean(pair.wet)];
  return {
    id: `cal-${id}`,
    channelId: `channel-${id}`,
    method: 'air-water',
    inputs: {},
    points: [repeated('air', pair.dry, 0), repeated('water', pair.wet, 3)],
    convert: null,
    percentKind: 'span',
    shape: { kind: 'line', origin: wet, unit: dry - wet, weights: [100, -100], temperature: null },
    range: { lowCounts: wet, highCounts: dry },
    noiseCounts: pair.noise,
    place: { boardId: taken.boardId, supplyV: taken.supplyV, depthCm, soil: '', temperatureC: 18 },
    who: 'the skipper',
    note: '',
    warnings: [],
    guessOf: null,
    madeAt: new Date(Date.parse(taken.takenAt) + 900_000).toISOString(),
    recalibrateBy: null,
  };
}

/** The garden document as it is when the sample is opened at `nowMs`. */
export function marigoldHare(nowMs: number): Garden {
  const daysAgo = (days: number) => new Date(nowMs - days * 24 * HOUR_MS).toISOString();
  const roof = { boardId: 'roof', supplyV: 3.3, takenAt: daysAgo(20) };
  const stern = { boardId: 'stern', supplyV: 5, takenAt: daysAgo(19) };
  const limitsAt = (startTenths: number, stopTenths: number) => ({
    limits: { startTenths, stopTenths },
    limitsSet: true,
    bandEdges: edgesByLimits(startTenths, stopTenths, { wiltingTenths: null, capacityTenths: null }),
  });
  const unknownSoil = { name: '', bulkDensity: null, capacityVwc: null, wiltingVwc: null, kindId: '' };
  const frost = { soilLowC: null, soilHighC: null, airLowC: 2, airHighC: 35 };
  const channel = (
    id: string,
    probeId: string | null,
    boardId: string,
    pin: string,
    calibrated: boolean,
  ) => ({
    ...EMPTY_CHANNEL,
    id: `channel-${id}`,
    probeId,
    boardId,
    pin,
    streamName: id,
    calibrationId: calibrated ? `cal-${id}` : null,
  });
  const garden = readGarden({
    format: 'plain-trowel-garden',
    version: GARDEN_VERSION,
    id: SAMPLE_ID,
    name: 'The Marigold Hare',
    note: 'roof garden',
    units: METRIC,
    timeZone: 'Europe/London',
    madeAt: daysAgo(21),
    logEveryS: 10,
    plots: [
      {
        id: 'lemon',
        name: 'Lemon barrel',
        plant: 'lemon in a half barrel',
        soil: { ...unknownSoil, kindId: 'loam-mix' },
        ...NEW_PLOT,
        ...limitsAt(300, 520),
        plantGroupId: 'pot-citrus',
        size: { kind: 'pot', mouthCm: 60, spreadCm: 80 },
        warmth: frost,
      },
      {
        id: 'chilli',
        name: 'Chilli crate',
        plant: 'six chillies',
        soil: { ...unknownSoil, kindId: 'peat-mix' },
        ...NEW_PLOT,
        ...limitsAt(450, 580),
        plantGroupId: 'pot-fruiting',
        size: { kind: 'bed', areaM2: 0.3 },
        warmth: frost,
      },
      {
        id: 'mint',
        name: 'Mint trough',
        plant: 'mint',
        soil: { ...unknownSoil, kindId: '' },
        ...NEW_PLOT,
        ...limitsAt(400, 600),
        plantGroupId: 'pot-leafy',
        size: { kind: 'bed', areaM2: 0.12 },
        warmth: frost,
      },
      {
        id: 'strawberry',
        name: 'Strawberry gutter',
        plant: 'strawberries',
        soil: { ...unknownSoil, kindId: 'coir-mix' },
        ...NEW_PLOT,
        ...limitsAt(350, 600),
        plantGroupId: 'pot-strawberry',
        size: { kind: 'bed', areaM2: 0.2 },
        warmth: frost,
      },
    ],
    boards: [
      {
        id: 'roof',
        name: 'Roof board',
        traits: '3.3 V Wi-Fi board, 12-bit inputs',
        adcBits: 12,
        supplyV: 3.3,
        watch: { batteryLowV: 3.4, darkBelow: null, isLithium: true },
        reads: { comma: null, ignores: [], picked: [] },
      },
      {
        id: 'stern',
        name: 'Stern board',
        traits: '5 V board with a display, 10-bit inputs',
        adcBits: 10,
        supplyV: 5,
        watch: NOTHING_WATCHED,
        reads: { comma: null, ignores: [], picked: [] },
      },
    ],
    probes: [
      {
        id: 'probe-l1',
        ...NEW_PROBE,
        plotId: 'lemon',
        label: 'L1',
        kind: 'capacitive stick',
        colour: 'yellow',
        depthCm: 12,
        placement: placed(
          'half way between stem and rim, on the north side',
          'the stem and the drip ring',
          'under the jasmine hoop',
        ),
      },
      {
        id: 'probe-c2',
        ...NEW_PROBE,
        plotId: 'chilli',
        label: 'C2',
        kind: 'capacitive stick',
        colour: 'blue',
        depthCm: 7,
        placement: placed(
          'middle of the crate, between the third and fourth plant',
          'the second and third outlet',
          'port side, behind the hatch',
        ),
      },
      {
        id: 'probe-m1',
        ...NEW_PROBE,
        plotId: 'mint',
        label: 'M1',
        kind: 'resistive fork',
        colour: 'green',
        depthCm: 6,
        placement: placed(
          'a hand from the left end',
          'no outlet: watered by hand',
          'stern rail, by the bicycle',
        ),
      },
      {
        id: 'probe-b1',
        ...NEW_PROBE,
        plotId: 'lemon',
        label: 'B1',
        kind: 'steel-rod bus probe',
        colour: 'white',
        depthCm: 22,
        placement: placed(
          'half way between stem and rim, on the south side',
          'the stem and the drip ring',
          'under the jasmine hoop',
        ),
        bus: { address: 1, mapId: 'three', baud: 9600 },
      },
      {
        id: 'probe-t1',
        ...NEW_PROBE,
        plotId: 'strawberry',
        label: 'T1',
        kind: 'thermistor',
        colour: 'black',
        depthCm: 4,
        placement: placed(
          'a hand from S1, under the mat',
          'the second and third outlet',
          'starboard, along the handrail',
        ),
      },
      {
        id: 'probe-s1',
        ...NEW_PROBE,
        plotId: 'strawberry',
        label: 'S1',
        kind: 'capacitive stick',
        colour: 'red',
        depthCm: 5,
        placement: placed(
          'middle of the gutter, in the root mat',
          'the first and second outlet',
          'starboard, along the handrail',
        ),
      },
    ],
    channels: [
      channel('l1', 'probe-l1', 'roof', 'input 1', true),
      channel('c2', 'probe-c2', 'roof', 'input 2', true),
      channel('m1', 'probe-m1', 'stern', 'input 0', true),
      channel('s1', 'probe-s1', 'stern', 'input 1', false),
      {
        ...channel('t1', 'probe-t1', 'stern', 'input 2', false),
        quantity: 'soil temperature',
        correction: {
          kind: 'thermistor',
          ...fromBeta({ r25Ohm: 10_000, betaK: 3950 }),
          fixedOhm: 12_000,
          side: 'ground',
          offset: 0,
          madeAt: daysAgo(20),
          against: 'the beta value on its bag',
        },
      },
      {
        ...channel('air', null, 'roof', '', false),
        quantity: 'air temperature',
        label: 'Air under the hatch',
      },
      {
        ...channel('bat', null, 'roof', '', false),
        quantity: 'battery voltage',
        label: 'Battery',
        correction: {
          kind: 'line',
          gain: 4,
          offset: 0,
          madeAt: daysAgo(20),
          against: 'the divider, 30 kΩ over 10 kΩ',
        },
      },
      {
        ...channel('tank', null, 'roof', 'P26 P27', false),
        quantity: 'distance',
        label: 'Rain tank, mm',
      },
      ...(['moisture', 'temperature', 'ec'] as const).map((field, at) => ({
        ...channel(`b1-${field}`, 'probe-b1', 'roof', 'bus', false),
        quantity: (['factory moisture', 'soil temperature', 'conductivity'] as const)[at],
        streamName: `b1.${field}`,
      })),
    ],
    calibrations: [
      airAndWater('l1', { dry: [3079, 3083, 3081], wet: [1262, 1266, 1261], noise: 5.6 }, roof, 12),
      airAndWater('c2', { dry: [2936, 2932, 2934], wet: [1142, 1147, 1143], noise: 5.9 }, roof, 7),
      airAndWater('m1', { dry: [985, 984, 986], wet: [301, 300, 299], noise: 2.4 }, stern, 6),
    ],
    runs: [],
    waterLines: [
      {
        ...NEW_LINE,
        id: 'line-roof',
        name: 'Roof pump',
        boardId: 'roof',
        plotId: 'chilli',
        flowMlPerS: 9,
        tubeS: 1.2,
        automatic: true,
        program: { kind: 'pulse-soak', pulseMl: 120, soakS: 900, mostPulses: 4, restS: 14_400 },
        tankId: 'tank',
        maxRunS: 15,
        dailyMaxMl: 600,
        minIntervalS: 900,
        staleAfterS: 900,
        jugStepMl: 5,
        trials: JUG.map(([runS, volumeMl], at) => ({
          id: `trial-${at + 1}`,
          runS,
          volumeMl,
          used: true,
          takenAt: daysAgo(18),
          simulated: true,
          rig: NEW_LINE.rig,
        })),
        firstHour: {
          probeOutAt: daysAgo(18),
          tankLowAt: daysAgo(18),
          watchedAt: daysAgo(18),
          overruled: '',
        },
        outlets: [
          { id: 'outlet-1', name: 'Crate, left', plotId: 'chilli', cupMl: 31 },
          { id: 'outlet-2', name: 'Crate, middle', plotId: 'chilli', cupMl: 34 },
          { id: 'outlet-3', name: 'Crate, right', plotId: 'chilli', cupMl: 24 },
          { id: 'outlet-4', name: 'Barrel, drip ring', plotId: 'lemon', cupMl: 28 },
        ],
      },
    ],
    reservoirs: [
      {
        id: 'tank',
        name: 'Rain tank',
        kind: 'level',
        float: { highIs: 'water', threshold: 0.5 },
        channelId: 'channel-tank',
        levels: [
          { raw: 380, volumeMl: 0 },
          { raw: 215, volumeMl: 14_000 },
          { raw: 60, volumeMl: 34_000 },
        ],
        minimumMl: 4000,
      },
    ],
    contacts: [
      {
        id: 'galley-light',
        name: 'Galley light',
        boardId: 'stern',
        plotId: 'mint',
        automatic: true,
        // The herbs on the galley shelf get their evening whatever the season.
        rule: {
          kind: 'light',
          from: { by: 'sunset', minute: -60 },
          to: { by: 'clock', minute: 21 * 60 },
          cell: null,
        },
        conditions: NO_CONDITIONS,
        around: NOTHING_CHOSEN,
        mostOnMin: 10 * 60,
        dayMaxMin: 10 * 60,
        leastOffMin: 10,
        staleAfterS: 900,
      },
    ],
    signals: DEFAULT_SIGNALS,
    alerts: DEFAULT_ALERTS,
    weather: 'mild',
    plan: MARIGOLD_PLAN,
    wiring: EMPTY_NETLIST,
    catalogue: [],
    registerMaps: [],
  });
  if (!garden.ok)
    throw new Error(`the sample garden does not fit its schema: ${JSON.stringify(garden.issue)}`);
  return setWiring(garden.value, marigoldWiring());
}

export type SampleHistory = {
  readonly world: World;
  readonly readings: ReadonlyMap<string, readonly Reading[]>;
  readonly events: readonly GardenEvent[];
  /** What was raised at the end. */
  readonly alerts: AlertStates;
};

/** Three days of readings and waterings before `nowMs`, made by the stand-in boards themselves. */
export function sampleHistory(garden: Garden, nowMs: number): SampleHistory {
  const setup = setupOf(garden);
  const start = newWorld(setup, nowMs - HISTORY_MS, SEED);
  const before = advance(start, setup, nowMs - UNPLUGGED_MS, LINE_EVERY_MS);
  const after = advance(setProbeFault(before.world, 'probe-m1', 'open'), setup, nowMs, LINE_EVERY_MS);
  const readings = new Map<string, Reading[]>();
  for (const line of [...before.lines, ...after.lines]) {
    const { result } = parseLine(initialLineParser, line.text);
    if (result.kind !== 'values') continue;
    for (const { name, value } of result.values) {
      const channel = garden.channels.find((one) => one.boardId === line.boardId && one.streamName === name);
      if (!channel) continue;
      const list = readings.get(channel.id) ?? [];
      list.push({ timeMs: line.atMs, raw: value, flags: FLAGS.simulated });
      readings.set(channel.id, list);
    }
  }
  const lines = [...before.lines, ...after.lines];
  const events = [...before.events, ...after.events].flatMap(gardenEventOf);
  const told = alertsOf(garden, readings, lines[0]?.atMs ?? nowMs, nowMs);
  return {
    world: after.world,
    readings,
    events: [...events, ...told.events]
      .sort((a, b) => a.atMs - b.atMs)
      .map((draft, at) => identified(draft, `sample ${at}`, 'page')),
    alerts: told.states,
  };
}

/** The alerts of those days, as the application would have told them. */
function alertsOf(
  garden: Garden,
  readings: ReadonlyMap<string, readonly Reading[]>,
  fromMs: number,
  toMs: number,
): { readonly events: readonly EventDraft[]; readonly states: AlertStates } {
  const clock = localTimeIn(garden.timeZone);
  const next = new Map<string, number>();
  let states: AlertStates = {};
  const events: EventDraft[] = [];
  for (let atMs = fromMs; atMs <= toMs; atMs += LINE_EVERY_MS) {
    const newest = (id: string) => {
      const list = readings.get(id) ?? [];
      let at = next.get(id) ?? 0;
      while ((list[at + 1]?.timeMs ?? Infinity) <= atMs) at += 1;
      next.set(id, at);
      const one = list[at];
      return one && one.timeMs <= atMs ? { raw: one.raw, timeMs: one.timeMs } : null;
    };
    const watched = watchedOf(garden, { nowMs: atMs, newest, isLocked: () => null });
    const minute = Math.floor(clock(atMs).daySecond / 60);
    const step = stepAlerts(states, watched, garden.alerts, { ms: atMs, minute });
    states = step.states;
    events.push(...step.told.map((told) => alertEvent(garden, told, atMs, true)));
  }
  return { events, states };
}
