import { expect, test } from 'vitest';
import { setCorrection } from './benchEdit.ts';
import { channelName, meantValue, probeScale } from './channels.ts';
import { addPlot, emptyGarden, placePeg } from './edit.ts';
import type { Garden, Reference } from './schema.ts';

const making = { random: () => 0.3, nowIso: '2026-05-01T10:00:00Z' };
const garden: Garden = addPlot(
  emptyGarden('Test', 'UTC', making),
  {
    plotName: 'Mint',
    plant: '',
    probeLabel: 'M1',
    probeKind: 'capacitive stick',
    colour: 'green',
    depthCm: 6,
    pin: '',
    streamName: 'm1',
    board: { name: 'Board', traits: 'any', adcBits: 10, supplyV: 5 },
    pump: null,
  },
  making.random,
).garden;
const channel = garden.channels[0];
if (!channel) throw new Error('no channel');
const boardId = garden.boards[0]?.id ?? '';
const reference = (condition: Reference['condition'], rawCounts: number): Reference => ({
  condition,
  rawCounts,
  noiseCounts: 1,
  spreadCounts: 1,
  readings: 20,
  windowS: 10,
  takenAt: making.nowIso,
  supplyV: 5,
  boardId,
  simulated: false,
  settling: null,
});

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

test('two references give the scale, two on one spot give none', () => {
  const withPegs = (dry: number, wet: number) => {
    const one = placePeg(garden, channel.id, 'dry', reference('air', dry), making).garden;
    const both = placePeg(one, channel.id, 'wet', reference('water', wet), making).garden;
    return probeScale(both, both.channels[0] ?? channel);
  };
  expect(withPegs(740, 300)).toMatchObject({ spanCounts: 440, references: { dry: 740, wet: 300 } });
  expect(withPegs(740, 735).references).toBeNull();
});

test('a value is meant as its correction says, and moisture stays raw', () => {
  const made = { madeAt: making.nowIso, against: 'x' };
  const corrected = setCorrection(garden, channel.id, { kind: 'line', gain: 4, offset: 0.1, ...made });
  const battery = { ...(corrected.channels[0] ?? channel), quantity: 'battery voltage' as const };
  expect(meantValue(corrected, battery, 3)).toEqual({ value: 12.1, unit: 'V', decimals: 2 });
  expect(meantValue(garden, channel, 512)).toMatchObject({ value: 512, unit: 'raw counts' });
});
