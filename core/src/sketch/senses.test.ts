import { describe, expect, test } from 'vitest';
import type { Sense } from '../control/conditions/conditions.ts';
import { onePlot } from '../garden/edits/gardenForTests.ts';
import type { Channel, Garden } from '../garden/document/schema.ts';
import type { TablePoint } from '../calibration/boardTable.ts';
import type { Correction } from '../temperature/correction.ts';
import { fromBeta } from '../temperature/thermistor.ts';
import { SENSE_BOUND, senseTable } from './senses.ts';
import { rawRange, type Reads } from './plan.ts';

/** As a board reckons: linear between the points, division truncated toward zero. */
function tenthsFromTable(table: readonly TablePoint[], raw: number): number {
  const at = table.findIndex((one) => raw <= one.raw);
  const [left, right] = [table[at - 1], table[at]];
  if (!right) return NaN;
  if (!left) return right.tenths;
  return left.tenths + Math.trunc(((raw - left.raw) * (right.tenths - left.tenths)) / (right.raw - left.raw));
}

const MADE = { madeAt: '2026-05-01T10:00:00Z', against: 'a trusted one' };
const NTC: Correction = {
  kind: 'thermistor',
  ...fromBeta({ r25Ohm: 10_000, betaK: 3950 }),
  fixedOhm: 10_000,
  side: 'ground',
  offset: 0.4,
  ...MADE,
};

const garden: Garden = onePlot();
const channelOf = (quantity: Channel['quantity'], correction: Correction): Channel => ({
  ...(garden.channels[0] as Channel),
  probeId: null,
  quantity,
  correction,
});
const tableOf = (sense: Sense, channel: Channel, reads: Reads) =>
  senseTable(garden, channel, sense, { reads, adcBits: 12 });

/** Degrees of a thermistor between input and ground by the beta equation, worked here anew. */
const degrees = (counts: number): number => {
  const ohm = (10_000 * counts) / (4095 - counts);
  return 1 / (1 / 298.15 + Math.log(ohm / 10_000) / 3950) - 273.15 + 0.4;
};

describe('a thermistor', () => {
  const table = tableOf('airTenthsC', channelOf('air temperature', NTC), 'analog') ?? [];

  test('is a table that keeps within two tenths of a degree of its curve, from its cold end to its warm one', () => {
    const [first, last] = [table[0], table.at(-1)];
    if (!first || !last) throw new Error('no table');
    for (let counts = first.raw; counts <= last.raw; counts += 1)
      expect(Math.abs(tenthsFromTable(table, counts) - 10 * degrees(counts))).toBeLessThan(
        SENSE_BOUND + 1.01,
      );
  });
  test('ends where it is open or shorted, and where no plant lives', () => {
    // Half a percent of the scale to either side, or 85 degrees.
    expect(table[0]?.raw).toBeGreaterThan(20);
    expect(degrees(table[0]?.raw ?? 0)).toBeLessThan(85);
    expect(table.at(-1)?.raw).toBeLessThan(4075);
  });
  test('that nobody has described means nothing', () => {
    for (const correction of [{ kind: 'none' }, { kind: 'offset', offset: 3, ...MADE }] as const)
      expect(tableOf('airTenthsC', channelOf('air temperature', correction), 'analog')).toBeNull();
  });
});

test('a 1-Wire thermometer: hundredths in tenths, with its offset, and not what it says before it has measured', () => {
  const table =
    tableOf(
      'soilTenthsC',
      channelOf('soil temperature', { kind: 'offset', offset: -0.5, ...MADE }),
      'one-wire',
    ) ?? [];
  expect(Math.abs(tenthsFromTable(table, 2144) - 209.4)).toBeLessThanOrEqual(1);
  expect(Math.abs(tenthsFromTable(table, -300) + 35)).toBeLessThanOrEqual(1);
  expect(table.at(-1)?.raw).toBeLessThan(8500);
});

test('a battery behind a divider by four: mV at the pin in mV of the battery', () => {
  const table =
    tableOf(
      'battery',
      channelOf('battery voltage', { kind: 'line', gain: 4, offset: 0, ...MADE }),
      'volts',
    ) ?? [];
  expect(tenthsFromTable(table, 3150)).toBe(12_600);
});

test('a switch that is turned round by its line is turned round here as well', () => {
  const upright = tableOf('rain', channelOf('rain', { kind: 'none' }), 'digital') ?? [];
  const turned =
    tableOf('rain', channelOf('rain', { kind: 'line', gain: -1, offset: 1, ...MADE }), 'digital') ?? [];
  expect([0, 1].map((raw) => tenthsFromTable(upright, raw))).toEqual([0, 1]);
  expect([0, 1].map((raw) => tenthsFromTable(turned, raw))).toEqual([1, 0]);
});

test('light as it is read, in whole counts', () => {
  const table = tableOf('light', channelOf('light', { kind: 'none' }), 'analog') ?? [];
  const [low, high] = rawRange({ reads: 'analog', adcBits: 12 });
  for (const raw of [low, 1, 777, high]) expect(tenthsFromTable(table, raw)).toBe(raw);
});
