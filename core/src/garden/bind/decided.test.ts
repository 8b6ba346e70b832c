import { describe, expect, test } from 'vitest';
import { tenthsFromTable } from '../../calibration/boardTable.ts';
import { readCurve } from '../../calibration/curve.ts';
import { formatPercent } from '../../quantity/format.ts';
import type { ProbeKind } from '../../quantity/probeKind.ts';
import { mapStream } from '../edits/bench.ts';
import { airAndWater, making, MINT, onePlot } from '../edits/gardenForTests.ts';
import { addPlot, emptyGarden, setDecides } from '../edits/plots.ts';
import { candidatesOf, decidedNow, decidersOf, fitOf, isInAir, unknownOf } from './decided.ts';
import { engineOf } from './engineOf.ts';
import type { Garden } from '../document/schema.ts';

const { random } = making();
const plotOf = (garden: Garden) => {
  const [plot] = garden.plots;
  if (!plot) throw new Error('no plot');
  return plot;
};
const withKind = (probeKind: ProbeKind) =>
  addPlot(emptyGarden('Shed', 'UTC', making()), { ...MINT, probeKind, pump: { flowMlPerS: 9 } }, random)
    .garden;

describe('a probe with a scale of its own decides without a calibration', () => {
  const reads = (kind: ProbeKind, raw: number) => {
    const garden = withKind(kind);
    const [channel] = candidatesOf(garden, plotOf(garden).id);
    const fit = channel && fitOf(garden, channel);
    return fit ? formatPercent(readCurve(fit, raw).percent, fit) : null;
  };
  test.each([
    ['steel-rod bus probe', 37.4, '37.4 % factory'],
    ['tensiometer', 30, '30.0 kPa'],
    ['tensiometer', 140, '100.0 kPa'],
    // The usual comparator pulls its output low when the soil is wet.
    ['fork with comparator', 0, 'wet side'],
    ['fork with comparator', 1, 'dry side'],
  ] as const)('%s at %s reads %s', (kind, raw, expected) => expect(reads(kind, raw)).toBe(expected));
  test('raw counts mean nothing until they are calibrated', () =>
    expect(reads('4–20 mA soil probe', 2000)).toBe(null));
  test('an air-humidity probe in the ground is shown, and decides nothing', () => {
    const garden = withKind('air-humidity probe');
    expect(garden.channels.map((one) => one.quantity)).toEqual(['soil humidity']);
    expect(candidatesOf(garden, plotOf(garden).id)).toEqual([]);
  });

  test('the engine starts a tensiometer’s water above 30 kPa and stops it below 10', () => {
    const garden = withKind('tensiometer');
    expect(plotOf(garden).limits).toEqual({ startTenths: 700, stopTenths: 900 });
    const [sensor] = engineOf(garden, garden.boards[0]?.id ?? '').config.sensors;
    // The engine's raw values are tenths of a kPa.
    const at = (kPa: number) => tenthsFromTable(sensor?.table ?? [], Math.round(10 * kPa));
    expect([at(45), at(30), at(10), at(2)]).toEqual([550, 700, 900, 980]);
    expect([sensor?.lowRaw, sensor?.highRaw]).toEqual([-50, 1000]);
  });
  test('the engine takes a comparator’s leap from dry to wet for what it is', () => {
    const garden = withKind('fork with comparator');
    const [sensor] = engineOf(garden, garden.boards[0]?.id ?? '').config.sensors;
    expect([tenthsFromTable(sensor?.table ?? [], 1), tenthsFromTable(sensor?.table ?? [], 0)]).toEqual([
      0, 1000,
    ]);
    expect(sensor?.leapTenths).toBeGreaterThan(1000);
  });
});

describe('several probes of a plot', () => {
  const add = (garden: Garden, name: string) =>
    mapStream(
      garden,
      { boardId: garden.boards[0]?.id ?? '', name },
      {
        kind: 'new probe',
        plotId: plotOf(garden).id,
        label: name.toUpperCase(),
        probeKind: 'steel-rod bus probe',
        colour: 'none',
        depthCm: 10,
        quantity: 'factory moisture',
      },
      random,
    );
  const three = add(add(withKind('steel-rod bus probe'), 'b2'), 'b3');
  const [b1, b2, b3] = three.channels.map((one) => one.id) as [string, string, string];
  const together = (by: 'driest' | 'mean' | 'median') =>
    setDecides(three, plotOf(three).id, { by, channelIds: [] });
  const now = (garden: Garden, said: Readonly<Record<string, number>>, agesS: Record<string, number> = {}) =>
    decidedNow(
      garden,
      plotOf(garden),
      (id) => (id in said ? { raw: said[id] ?? 0, timeMs: 1e9 - 1000 * (agesS[id] ?? 0) } : null),
      1e9,
      60,
    );

  test('the first decides until something else is chosen', () => {
    expect(decidersOf(three, plotOf(three))).toMatchObject({ by: 'one', channels: [{ id: b1 }] });
    const second = setDecides(three, plotOf(three).id, { by: 'one', channelIds: [b2] });
    expect(decidersOf(second, plotOf(second)).channels.map((one) => one.id)).toEqual([b2]);
  });
  test('raw counts go before a number of its own', () => {
    const both = addPlot(emptyGarden('Shed', 'UTC', making()), MINT, random).garden;
    expect(candidatesOf(add(both, 'b9'), plotOf(both).id).map((one) => one.quantity)).toEqual([
      'moisture',
      'factory moisture',
    ]);
  });
  test('the median of three leaves one that fails out, and says which', () => {
    expect(now(together('median'), { [b1]: 30, [b2]: 44, [b3]: 41 }).tenths).toBe(410);
    const failed = now(together('median'), { [b1]: 30, [b2]: 140, [b3]: 41 });
    expect(failed.tenths).toBe(355);
    expect(failed.votes.map((one) => one.dropped)).toEqual([null, 'implausible', null]);
    const silent = now(together('median'), { [b1]: 30, [b2]: 44, [b3]: 41 }, { [b1]: 61, [b2]: 300 });
    expect(silent).toMatchObject({ tenths: null });
    expect(silent.votes.map((one) => one.dropped)).toEqual(['silent', 'silent', null]);
  });
  test('the board’s engine reads them as one sensor, in tenths', () => {
    const garden = together('driest');
    const { sensors, config } = engineOf(garden, garden.boards[0]?.id ?? '');
    expect(sensors).toMatchObject([
      { by: 'driest', members: [{ channelId: b1, factor: 10 }, { channelId: b2 }, { channelId: b3 }] },
    ]);
    expect(config.sensors[0]).toMatchObject({ lowRaw: 0, highRaw: 1000 });
  });
  test('of two that speak of different percents the second is left out, and a mean of two then decides nothing', () => {
    const mixed = add(withKind('tensiometer'), 'b2');
    const garden = setDecides(mixed, plotOf(mixed).id, { by: 'mean', channelIds: [] });
    const [tension, own] = garden.channels.map((one) => one.id) as [string, string];
    const decided = now(garden, { [tension]: 20, [own]: 40 });
    expect(decided.votes.map((one) => one.dropped)).toEqual([null, 'another percent']);
    expect(decided.tenths).toBe(null);
    expect(engineOf(garden, garden.boards[0]?.id ?? '').config.lines[0]?.sensor).toBe(null);
  });
  test('a probe that is taken away decides no longer', () =>
    expect(() => setDecides(three, plotOf(three).id, { by: 'one', channelIds: ['gone'] })).toThrow(
      'cannot decide',
    ));
});

describe('a probe in air', () => {
  // Air 3000, water 1000, noise 3: within 60 counts of air it is out of the soil.
  const made = airAndWater(onePlot({ pump: { flowMlPerS: 9 } }), 3000, 1000).garden;
  const [channel] = made.channels;
  if (!channel) throw new Error('no channel');
  test.each([
    [2939, false],
    [2940, true],
    [3000, true],
    [3400, true],
    [1000, false],
  ])('raw %d: %s', (raw, expected) => expect(isInAir(made, channel, raw)).toBe(expected));
  test('a sensor that rises with water has its air at the low end', () => {
    const rising: Garden = {
      ...made,
      calibrations: made.calibrations.map((one) => ({
        ...one,
        shape: { kind: 'line', origin: 1000, unit: 2000, weights: [0, 100], temperature: null },
        points: one.points.map((point) => ({
          ...point,
          captures: point.captures.map((capture) => ({ ...capture, rawCounts: 4000 - capture.rawCounts })),
        })),
      })),
    };
    expect([1060, 1061].map((raw) => isInAir(rising, channel, raw))).toEqual([true, false]);
  });
  test('it decides nothing, and the engine calls it by its name', () => {
    const [plot] = made.plots;
    if (!plot) throw new Error('no plot');
    const at = (raw: number) => decidedNow(made, plot, () => ({ raw, timeMs: 0 }), 1000, 60);
    expect(at(2950).votes[0]?.dropped).toBe('out of soil');
    expect(unknownOf(at(2950).votes)).toBe('out-of-soil');
    expect(at(2500).tenths).toBe(250);
    const [sensor] = engineOf(made, made.boards[0]?.id ?? '').config.sensors;
    expect(sensor).toMatchObject({ soilHighRaw: 2939, highRaw: 4075 });
  });
  test('a calibration that never saw air has the first test’s, where it lies on the dry side', () => {
    const tested = (air: number) => ({
      ...made,
      calibrations: made.calibrations.map((one) => ({
        ...one,
        points: one.points.map((point) =>
          point.condition === 'air' ? { ...point, condition: 'dry soil' as const } : point,
        ),
      })),
      probes: made.probes.map((one) => ({
        ...one,
        firstTest: {
          ...one.firstTest,
          air: { rawCounts: air, noiseCounts: 3, takenAt: '2026-05-01T10:00:00Z', simulated: false },
        },
      })),
    });
    expect([3320, 3330, 3400].map((raw) => isInAir(tested(3400), channel, raw))).toEqual([false, true, true]);
    expect(isInAir(tested(2800), channel, 2990)).toBe(false);
  });
});
