import { expect, test } from 'vitest';
import { airAndWater, firstChannel, onePlot } from '../edits/gardenForTests.ts';
import { meantSeries } from './meantSeries.ts';

const board = { name: 'Board', traits: 'any', adcBits: 10, supplyV: 5 };
const garden = onePlot({ board });
const channel = firstChannel(garden);
const of = (...raws: number[]) => Float64Array.of(...raws);

test('counts of a probe without a calibration are counts', () => {
  expect(meantSeries(garden, channel, of(512, 300))).toEqual({ values: of(512, 300), unit: 'raw counts' });
});

test('with one they are its percent', () => {
  const { garden: done } = airAndWater(garden, 740, 300, { supplyV: 5, noiseCounts: 1 });
  // Halfway from 740 to 300.
  const { values, unit } = meantSeries(done, firstChannel(done), of(740, 520, 300));
  expect(unit).toBe('% span');
  expect([...values].map((value) => Math.round(value))).toEqual([0, 50, 100]);
});

test('a line of volts goes by its correction', () => {
  const battery = {
    ...channel,
    quantity: 'battery voltage' as const,
    correction: { kind: 'line' as const, gain: 4, offset: 0.1, madeAt: '2026-05-01T00:00:00Z', against: 'x' },
  };
  expect(meantSeries(garden, battery, of(3))).toEqual({ values: of(12.1), unit: 'V' });
});

test('what a thermometer says while it measures nothing keeps its place and means nothing', () => {
  const thermometer = {
    ...channel,
    quantity: 'soil temperature' as const,
    correction: { kind: 'none' as const },
  };
  const { values, unit } = meantSeries(garden, thermometer, of(18.5, -127, 85, 19));
  expect(unit).toBe('°C');
  expect([...values]).toEqual([18.5, Number.NaN, Number.NaN, 19]);
});
