import { expect, test } from 'vitest';
import { readCurve } from '../../calibration/curve.ts';
import { curveOf } from '../bind/curveOf.ts';
import { contradictions } from '../bind/contradictions.ts';
import { ALERT_KINDS } from '../../control/alerts.ts';
import { readGarden } from './gardenFile.ts';
import type { Probe } from './schema.ts';
import { firstLine } from '../edits/gardenForTests.ts';

/** A garden as version 1 wrote it, shortened by hand from a real export. */
const VERSION_1 = {
  format: 'plain-trowel-garden',
  version: 1,
  id: 'garden-old',
  name: 'Old garden',
  note: '',
  timeZone: 'UTC',
  madeAt: '2026-05-01T10:00:00Z',
  logEveryS: 10,
  plots: [
    {
      id: 'mint',
      name: 'Mint',
      plant: 'mint',
      limits: { startTenths: 350, stopTenths: 600 },
      bandEdges: [200, 350, 700, 850],
    },
  ],
  boards: [{ id: 'b', name: 'Board', traits: 'any', adcBits: 12, supplyV: 3.3 }],
  probes: [{ id: 'p', plotId: 'mint', label: 'M1', kind: 'resistive fork', colour: 'green', depthCm: 6 }],
  channels: [
    {
      id: 'c',
      probeId: 'p',
      boardId: 'b',
      pin: 'input 1',
      streamName: 'm1',
      pegs: { dry: null, wet: null },
      calibrationId: null,
    },
  ],
  calibrations: [],
  waterLines: [
    {
      id: 'w',
      name: 'Pump',
      boardId: 'b',
      plotId: 'mint',
      flowMlPerS: 9,
      maxRunS: 20,
      minIntervalS: 600,
      staleAfterS: 60,
      automatic: false,
    },
  ],
};

test('a garden of version 1 opens with an empty plan, an empty wiring, and everything it had', () => {
  const read = readGarden(structuredClone(VERSION_1));
  if (!read.ok) throw new Error(JSON.stringify(read.issue));
  const channels = VERSION_1.channels.map(({ pegs: _pegs, ...channel }) => channel);
  // Words that were never moved go with the limits.
  const plots = VERSION_1.plots.map((plot) => ({ ...plot, bandEdges: [175, 350, 600, 800] }));
  expect(read.value).toMatchObject({ ...VERSION_1, version: 13, plots, channels, runs: [] });
  expect(read.value.waterLines[0]).toMatchObject({ flowMlPerS: 9, trials: [], trialNote: '' });
  expect(read.value.plots[0]?.soil.bulkDensity).toBeNull();
  expect(read.value.wiring).toEqual({ parts: [], wires: [], cables: [] });
  expect(read.value.plan.answers.power).toBeNull();
  expect(read.value.probes[0]?.placement).toEqual({ where: '', between: '', mapNote: '', lies: 'upright' });
});

test('a damaged garden of version 1 is refused with the field, not with a fall', () => {
  expect(readGarden({ ...VERSION_1, probes: 'none' })).toMatchObject({
    ok: false,
    issue: { kind: 'field', fault: { field: 'probes' } },
  });
  expect(readGarden({ ...VERSION_1, probes: [null] })).toMatchObject({
    ok: false,
    issue: { kind: 'field', fault: { field: 'probes[0]' } },
  });
});

test('a garden of version 2 opens with channels that measure moisture, and references that did not know whether they had settled', () => {
  const reference = {
    condition: 'air',
    rawCounts: 3000,
    noiseCounts: 3,
    spreadCounts: 3,
    readings: 20,
    windowS: 10,
    takenAt: '2026-05-02T10:00:00Z',
    supplyV: 3.3,
    boardId: 'b',
    simulated: false,
  };
  const wet = { ...reference, condition: 'water', rawCounts: 1200 };
  const upgraded = readGarden(structuredClone(VERSION_1));
  if (!upgraded.ok) throw new Error('refused');
  const { plan, wiring, catalogue } = upgraded.value;
  const version2 = {
    ...VERSION_1,
    version: 2,
    plan,
    wiring,
    catalogue,
    probes: VERSION_1.probes.map((probe) => ({
      ...probe,
      placement: { where: 'x', between: '', mapNote: '' },
    })),
    channels: VERSION_1.channels.map((channel) => ({
      ...channel,
      pegs: { dry: reference, wet },
      calibrationId: 'k',
    })),
    calibrations: [
      { id: 'k', channelId: 'c', percentKind: 'span', dry: reference, wet, madeAt: '2026-05-02T10:00:00Z' },
    ],
  };
  const read = readGarden(version2);
  if (!read.ok) throw new Error(JSON.stringify(read.issue));
  expect(read.value.version).toBe(13);
  expect(read.value.channels[0]).toMatchObject({
    quantity: 'moisture',
    correction: { kind: 'none' },
    calibrationId: 'k',
  });
  const [calibration] = read.value.calibrations;
  if (!calibration) throw new Error('no calibration');
  expect(calibration).toMatchObject({
    method: 'air-water',
    percentKind: 'span',
    points: [
      { condition: 'air', used: true, captures: [{ rawCounts: 3000, settling: null }] },
      { condition: 'water', captures: [{ rawCounts: 1200, settling: null }] },
    ],
    place: { boardId: 'b', supplyV: 3.3, depthCm: 6 },
    guessOf: null,
  });
  // Half way between 3000 and 1200.
  const curve = curveOf(calibration);
  expect(curve && readCurve(curve, 2100).percent).toBeCloseTo(50, 9);
  // What its calibration was made of is no run under way.
  expect(read.value.runs).toEqual([]);
  expect(read.value.probes[0]).toMatchObject({
    placement: { where: 'x' },
    firstTest: { touch: null, air: null, water: null },
    labelProvedAt: null,
    warmUp: null,
    bus: null,
  });
});

test('pegs of version 3 that made no calibration yet open as a run under way', () => {
  const upgraded = readGarden(structuredClone(VERSION_1));
  if (!upgraded.ok) throw new Error('refused');
  const { runs: _runs, ...rest } = upgraded.value;
  const peg = {
    condition: 'dry soil',
    rawCounts: 2800,
    noiseCounts: 3,
    spreadCounts: 3,
    readings: 20,
    windowS: 10,
    takenAt: '2026-05-02T10:00:00Z',
    supplyV: 3.3,
    boardId: 'b',
    simulated: false,
    settling: null,
  };
  const read = readGarden({
    ...rest,
    version: 3,
    plots: rest.plots.map(({ soil: _soil, ...plot }) => plot),
    channels: rest.channels.map((channel) => ({ ...channel, pegs: { dry: peg, wet: null } })),
  });
  if (!read.ok) throw new Error(JSON.stringify(read.issue));
  expect(read.value.runs).toMatchObject([
    {
      channelId: 'c',
      method: 'dry-soaked',
      points: [{ condition: 'dry soil', captures: [{ rawCounts: 2800 }] }],
    },
  ]);
});

test('a line of version 4 goes on as it was: until wet, with a daily maximum of ten full runs', () => {
  const read = readGarden(structuredClone(VERSION_1));
  if (!read.ok) throw new Error(JSON.stringify(read.issue));
  expect(read.value.waterLines[0]).toMatchObject({
    tubeS: 0,
    // 20 s at 9 ml a second.
    program: { kind: 'until-wet', capMl: 180 },
    dailyMaxMl: 1800,
    fallbackMl: 0,
    tankId: null,
    conditions: { hours: null, noRain: false },
    outlets: [],
  });
  expect(read.value).toMatchObject({ reservoirs: [], weather: 'mild' });
  expect(read.value.signals.at(-1)?.state).toBe('content');
  expect(read.value.alerts).toHaveLength(ALERT_KINDS.length);
  expect(read.value.plots[0]).toMatchObject({ plantGroupId: '', size: null, soil: { kindId: '' } });
  expect(contradictions(read.value, firstLine(read.value))).toEqual([]);
});

test('a line of version 5 goes by what is near it', () => {
  const upgraded = readGarden(structuredClone(VERSION_1));
  if (!upgraded.ok) throw new Error(JSON.stringify(upgraded.issue));
  const { around: _around, ...line } = upgraded.value.waterLines[0] ?? {};
  const read = readGarden({ ...upgraded.value, version: 5, waterLines: [line] });
  if (!read.ok) throw new Error(JSON.stringify(read.issue));
  expect(read.value.waterLines[0]?.around).toEqual({
    airId: null,
    lightId: null,
    rainId: null,
    skipId: null,
  });
});

test('kinds of alerts and signals that a garden does not know yet are added as they are at first', () => {
  const upgraded = readGarden(structuredClone(VERSION_1));
  if (!upgraded.ok) throw new Error(JSON.stringify(upgraded.issue));
  const { signals, alerts } = upgraded.value;
  const fewer = {
    ...upgraded.value,
    signals: signals.filter((one) => one.state !== 'night').map((one) => ({ ...one, display: 'mine' })),
    alerts: alerts.filter((one) => one.kind !== 'cold').map((one) => ({ ...one, on: false })),
  };
  const read = readGarden(structuredClone(fewer));
  if (!read.ok) throw new Error(JSON.stringify(read.issue));
  expect(read.value.signals.slice(-2)).toMatchObject([
    { state: 'night', display: 'Good night' },
    { state: 'content', display: 'mine' },
  ]);
  // What came later is not hidden by the night.
  const noUnknown = { ...upgraded.value, signals: signals.filter((one) => one.state !== 'unknown') };
  const again = readGarden(structuredClone(noUnknown));
  expect(again.ok && again.value.signals.slice(-3).map((one) => one.state)).toEqual([
    'unknown',
    'night',
    'content',
  ]);
  expect(read.value.alerts.slice(0, -1)).toEqual(fewer.alerts);
  expect(read.value.alerts.at(-1)).toMatchObject({ kind: 'cold', on: true });
});

test('a garden of version 6 opens with plots of no kind and no way, no timer and an empty drawer; a wiring and a plan stay', () => {
  const read = readGarden(structuredClone(VERSION_1));
  if (!read.ok) throw new Error(JSON.stringify(read.issue));
  const old = structuredClone(read.value) as unknown as Record<string, unknown> & {
    plots: Record<string, unknown>[];
    boards: Record<string, unknown>[];
    plan: Record<string, unknown> & { answers: Record<string, unknown> };
  };
  old.version = 6;
  for (const plot of old.plots) {
    delete plot.kind;
    delete plot.cableM;
  }
  for (const board of old.boards) delete board.reads;
  delete old.plan.drawer;
  delete old.plan.answers.zones;
  old.plan.answers.water = 'tank';
  const opened = readGarden(old);
  if (!opened.ok) throw new Error(JSON.stringify(opened.issue));
  expect(opened.value.plots[0]).toMatchObject({ kind: null, cableM: null, name: 'Mint' });
  expect(opened.value.boards[0]?.reads).toEqual({ comma: null, ignores: [], picked: [] });
  expect(opened.value.plan).toMatchObject({ drawer: {}, answers: { zones: null, water: 'tank' } });
});

test('of version 8: a board watches its battery and its night by the limits that its lines had', () => {
  const fresh = readGarden(structuredClone(VERSION_1));
  if (!fresh.ok) throw new Error('not read');
  const { boards, plots, ...rest } = fresh.value;
  const [line] = rest.waterLines;
  if (!line) throw new Error('no line');
  const conditions = { ...line.conditions, batteryAboveV: 11.8, darkBelow: 300 };
  const { laidAside: _laid, ...asOf8 } = { ...line, conditions };
  const read = readGarden({
    ...rest,
    version: 8,
    boards: boards.map(({ watch: _watch, ...board }) => board),
    plots: plots.map(({ words: _words, limitsSet: _set, ...plot }) => plot),
    waterLines: [asOf8, { ...asOf8, id: 'second', conditions: { ...conditions, batteryAboveV: 12 } }],
  });
  if (!read.ok) throw new Error(JSON.stringify(read.issue));
  expect(read.value.boards[0]?.watch).toEqual({ batteryLowV: 12, darkBelow: 300, isLithium: false });
  expect(fresh.value.boards[0]?.watch).toEqual({ batteryLowV: null, darkBelow: null, isLithium: false });
});

test('of version 8: words that were moved stay, limits that were moved were set by somebody', () => {
  const opened = (change: object) => {
    const plots = VERSION_1.plots.map((plot) => ({ ...plot, ...change }));
    const read = readGarden({ ...structuredClone(VERSION_1), plots });
    if (!read.ok) throw new Error(JSON.stringify(read.issue));
    return read.value.plots[0];
  };
  expect(opened({})).toMatchObject({ limitsSet: false, words: 'five' });
  expect(opened({ limits: { startTenths: 300, stopTenths: 500 } })).toMatchObject({
    limitsSet: true,
    bandEdges: [150, 300, 500, 750],
  });
  expect(opened({ bandEdges: [100, 350, 700, 850] })).toMatchObject({ bandEdges: [100, 350, 700, 850] });
});

/** A probe as before version 13, when it could not be said how it lies. */
const stood = (probe: Probe): object => {
  const { lies: _lies, ...placement } = probe.placement;
  return { ...probe, placement };
};

test('of version 12: every probe stood upright, and keeps what was said of its place', () => {
  const read = readGarden(structuredClone(VERSION_1));
  if (!read.ok) throw new Error(JSON.stringify(read.issue));
  const placement = { where: 'a hand from the rim', between: 'two drippers', mapNote: 'left' };
  const probes = read.value.probes.map((probe) => ({ ...probe, placement }));
  expect(readGarden({ ...read.value, version: 12, probes })).toMatchObject({
    ok: true,
    value: { version: 13, probes: [{ placement: { ...placement, lies: 'upright' } }] },
  });
});

test('a garden of version 10 opens as it is: contacts and lamps have no parts yet', () => {
  const read = readGarden(structuredClone(VERSION_1));
  if (!read.ok) throw new Error(JSON.stringify(read.issue));
  const probes = read.value.probes.map(stood);
  const before = { ...read.value, version: 10, probes };
  expect(readGarden(before)).toEqual({ ok: true, value: read.value });
});

test('of version 11: probes on a bus were spoken to at 9600 bits a second', () => {
  const read = readGarden(structuredClone(VERSION_1));
  if (!read.ok) throw new Error(JSON.stringify(read.issue));
  const [probe] = read.value.probes;
  const onBus = { ...(probe ? stood(probe) : {}), bus: { address: 4, mapId: 'two' } };
  const opened = readGarden({ ...read.value, version: 11, probes: [onBus] });
  expect(opened).toMatchObject({
    ok: true,
    value: { version: 13, probes: [{ bus: { address: 4, mapId: 'two', baud: 9600 } }] },
  });
});
