import { describe, expect, test } from 'vitest';
import { tenthsFromTable } from '../../calibration/boardTable.ts';
import { readCurve } from '../../calibration/curve.ts';
import { formatPercent } from '../../quantity/format.ts';
import type { ProbeKind } from '../../quantity/probeKind.ts';
import { mapStream } from '../edits/bench.ts';
import { making, MINT } from '../edits/gardenForTests.ts';
import { addPlot, emptyGarden, setDecides } from '../edits/plots.ts';
import { candidatesOf, decidedNow, decidersOf, fitOf } from './decided.ts';
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
