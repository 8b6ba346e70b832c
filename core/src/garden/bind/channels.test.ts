import { expect, test } from 'vitest';
import { setCorrection } from '../edits/bench.ts';
import { channelName, meantValue, probeScale } from './channels.ts';
import { startRun } from '../edits/calibrations.ts';
import {
  airAndWater,
  captured,
  captureOf,
  firstChannel,
  making,
  NOW,
  onePlot,
} from '../edits/gardenForTests.ts';

const board = { name: 'Board', traits: 'any', adcBits: 10, supplyV: 5 };
const garden = onePlot({ board });
const channel = firstChannel(garden);

test('a channel is called by its probe, by its quantity beside it, or by its own label', () => {
  expect(channelName(garden, channel)).toBe('M1');
  expect(channelName(garden, { ...channel, quantity: 'soil temperature' })).toBe('M1 soil temperature');
  expect(
    channelName(garden, { ...channel, probeId: null, label: 'Battery', quantity: 'battery voltage' }),
  ).toBe('Battery');
  expect(channelName(garden, { ...channel, probeId: null, quantity: 'level' })).toBe('level');
});

test('without references a probe is watched on the usual span, and its rails are half a percent in', () => {
  // 0.44 × 1023; 0.5 % of 1023 is 5 counts.
  expect(probeScale(garden, channel)).toEqual({
    lowCounts: 5,
    highCounts: 1018,
    spanCounts: 0.44 * 1023,
    references: null,
  });
});

test('a calibration gives the scale', () => {
  const { garden: done } = airAndWater(garden, 740, 300, { supplyV: 5, noiseCounts: 1 });
  expect(probeScale(done, firstChannel(done))).toMatchObject({
    spanCounts: 440,
    references: { dry: 740, wet: 300 },
  });
});

test('captures of a run under way give a scale once they lie apart, two on one spot give none', () => {
  const scaleOf = (dry: number, wet: number) => {
    const begun = startRun(garden, channel.id, 'air-water', making());
    const both = captured(captured(begun, 'air', captureOf(dry)), 'water', captureOf(wet, {}, 1));
    return probeScale(both, firstChannel(both)).spanCounts;
  };
  expect(scaleOf(740, 300)).toBe(440);
  expect(scaleOf(740, 735)).toBe(0.44 * 1023);
});

test('a value is meant as its correction says, and moisture stays raw', () => {
  const made = { madeAt: NOW, against: 'x' };
  const corrected = setCorrection(garden, channel.id, { kind: 'line', gain: 4, offset: 0.1, ...made });
  const battery = { ...(corrected.channels[0] ?? channel), quantity: 'battery voltage' as const };
  expect(meantValue(corrected, battery, 3)).toEqual({ value: 12.1, unit: 'V', decimals: 2 });
  expect(meantValue(garden, channel, 512)).toMatchObject({ value: 512, unit: 'raw counts' });
});
