import { describe, expect, test } from 'vitest';
import { mapOf } from '../../bus/registers.ts';
import {
  addBusProbe,
  busStreamName,
  claimStreams,
  mapStream,
  removeChannel,
  setBoardReads,
  setBus,
  setCorrection,
  setFirstTest,
  setLabelProved,
  setRegisterMap,
  setWarmUp,
  swapStreams,
} from './bench.ts';
import { addPlot, emptyGarden } from './plots.ts';
import { plotParts } from '../bind/plotParts.ts';
import { gardenSchema, type Garden } from '../document/schema.ts';

/** Always the same, and never the same twice. */
const dice = () => {
  let at = 0;
  return () => ((at += 7) % 97) / 97;
};

const NOW = '2026-05-01T10:00:00Z';
const garden = (): Garden => {
  const random = dice();
  const start = emptyGarden('Test', 'UTC', { random, nowIso: NOW });
  return addPlot(
    start,
    {
      plotName: 'Mint',
      plant: '',
      probeLabel: 'M1',
      probeKind: 'capacitive stick',
      colour: 'green',
      depthCm: 6,
      pin: '',
      streamName: 'm1',
      board: { name: 'Board', traits: 'any', adcBits: 12, supplyV: 3.3 },
      pump: null,
    },
    random,
  ).garden;
};
const before = garden();
const boardId = before.boards[0]?.id ?? '';
const plotId = before.plots[0]?.id ?? '';
const channelId = before.channels[0]?.id ?? '';
const probeId = before.probes[0]?.id ?? '';
const valid = (of: Garden) => gardenSchema.safeParse(of).success;

describe('a name in the stream is said once', () => {
  test('to belong to a new probe: with its channel, in its plot', () => {
    const after = mapStream(
      before,
      { boardId, name: 'deep' },
      {
        kind: 'new probe',
        plotId,
        label: 'M2',
        probeKind: 'capacitive stick',
        colour: 'blue',
        depthCm: 20,
        quantity: 'moisture',
      },
      dice(),
    );
    expect(valid(after)).toBe(true);
    expect(after.probes.map((one) => one.label)).toEqual(['M1', 'M2']);
    expect(after.channels[1]).toMatchObject({
      streamName: 'deep',
      probeId: after.probes[1]?.id,
      quantity: 'moisture',
    });
    // The first probe goes on deciding.
    expect(plotParts(after, plotId)?.probe?.label).toBe('M1');
  });
  test('to the board itself, and to another quantity of a probe', () => {
    const battery = mapStream(
      before,
      { boardId, name: 'v' },
      { kind: 'board', label: 'Battery', quantity: 'battery voltage' },
      dice(),
    );
    expect(battery.channels[1]).toMatchObject({ probeId: null, label: 'Battery', streamName: 'v' });
    const warm = mapStream(
      battery,
      { boardId, name: 't' },
      { kind: 'probe', probeId, quantity: 'soil temperature' },
      dice(),
    );
    expect(valid(warm)).toBe(true);
    expect(warm.channels.filter((one) => one.probeId === probeId)).toHaveLength(2);
    expect(plotParts(warm, plotId)?.channel?.quantity).toBe('moisture');
  });
  test('and then to nothing else', () => {
    const taken = mapStream(
      before,
      { boardId, name: 'm1' },
      { kind: 'board', label: 'Tank', quantity: 'level' },
      dice(),
    );
    expect(taken.channels.map((one) => one.streamName)).toEqual(['', 'm1']);
    const back = mapStream(taken, { boardId, name: 'm1' }, { kind: 'channel', channelId }, dice());
    expect(back.channels.map((one) => one.streamName)).toEqual(['m1', '']);
  });
  test('a channel goes with its probe when that had no other', () => {
    const two = mapStream(
      before,
      { boardId, name: 't' },
      { kind: 'probe', probeId, quantity: 'soil temperature' },
      dice(),
    );
    const one = removeChannel(two, two.channels[1]?.id ?? '');
    expect(one).toEqual(before);
    expect(removeChannel(one, channelId).probes).toEqual([]);
  });
});

describe('what the bench found out stays with the probe', () => {
  const result = { rawCounts: 2100, noiseCounts: 3, takenAt: NOW, simulated: false };
  test('its first test, its label, its warm-up, its correction, its place on the bus', () => {
    const warmUp = { waitS: 2.5, runs: 3, measuredAt: NOW };
    let after = setFirstTest(before, probeId, 'air', result);
    after = setLabelProved(after, probeId, NOW);
    after = setWarmUp(after, probeId, warmUp);
    after = setBus(after, probeId, { address: 4, mapId: 'two', baud: 9600 });
    after = setCorrection(after, channelId, { kind: 'offset', offset: 1, madeAt: NOW, against: 'x' });
    expect(valid(after)).toBe(true);
    expect(after.probes[0]).toMatchObject({
      firstTest: { touch: null, air: result, water: null },
      labelProvedAt: NOW,
      warmUp,
      bus: { address: 4 },
    });
    expect(after.channels[0]?.correction.kind).toBe('offset');
    expect(setFirstTest(after, probeId, 'air', null).probes[0]?.firstTest.air).toBeNull();
  });
  test('swapped plugs: the probes exchange their channels', () => {
    const two = mapStream(
      before,
      { boardId, name: 'deep' },
      {
        kind: 'new probe',
        plotId,
        label: 'M2',
        probeKind: 'capacitive stick',
        colour: 'blue',
        depthCm: 20,
        quantity: 'moisture',
      },
      dice(),
    );
    const [first, second] = two.channels;
    const after = swapStreams(two, first?.id ?? '', second?.id ?? '');
    expect(after.channels.map((one) => one.probeId)).toEqual([second?.probeId, first?.probeId]);
    expect(() => swapStreams(two, 'none', channelId)).toThrow(RangeError);
  });
});

test('a bus probe gets a channel for every field of its map', () => {
  const map = mapOf([], 'three');
  if (!map) throw new Error('no map');
  const own = setRegisterMap(before, { ...map, id: 'mine' });
  const after = addBusProbe(
    own,
    { plotId, boardId, label: 'B 1', colour: 'white', depthCm: 20, address: 7, baud: 9600, map },
    dice(),
  );
  expect(valid(after)).toBe(true);
  expect(after.channels.slice(1).map((one) => [one.streamName, one.quantity])).toEqual([
    ['b-1.moisture', 'factory moisture'],
    ['b-1.temperature', 'soil temperature'],
    ['b-1.ec', 'conductivity'],
  ]);
  expect(new Set(after.channels.map((one) => one.id)).size).toBe(4);
  expect(busStreamName('B1', 'ec')).toBe('b1.ec');
});

describe('several numbers are claimed at once', () => {
  const claimed = claimStreams(
    before,
    [
      { boardId, name: 'soil', claim: { kind: 'channel', channelId } },
      { boardId, name: 't1', claim: { kind: 'probe', probeId, quantity: 'soil temperature' } },
      { boardId, name: 'bat', claim: { kind: 'board', quantity: 'battery voltage' } },
      { boardId, name: 'deep', claim: { kind: 'new probe', plotId, quantity: 'moisture' } },
      { boardId, name: 'millis', claim: { kind: 'ignore' } },
    ],
    'resistive fork',
    dice(),
  );
  test('each has its channel under the name that the board prints', () => {
    expect(valid(claimed)).toBe(true);
    expect(claimed.channels.map(({ streamName, quantity }) => [streamName, quantity])).toEqual([
      ['soil', 'moisture'],
      ['t1', 'soil temperature'],
      ['bat', 'battery voltage'],
      ['deep', 'moisture'],
    ]);
  });
  test('a new probe stands in its plot, of the kind that was said', () => {
    expect(claimed.probes.at(-1)).toMatchObject({ label: 'P2', plotId, kind: 'resistive fork' });
  });
  test('what is ignored is remembered once, the newest two hundred of them', () => {
    const again = claimStreams(
      claimed,
      [{ boardId, name: 'millis', claim: { kind: 'ignore' } }],
      'thermistor',
      dice(),
    );
    expect(again.boards[0]?.reads.ignores).toEqual(['millis']);
    const many = Array.from({ length: 250 }, (_, n) => ({
      boardId,
      name: `n${n}`,
      claim: { kind: 'ignore' } as const,
    }));
    const ignores = claimStreams(before, many, 'thermistor', dice()).boards[0]?.reads.ignores ?? [];
    expect([ignores.length, ignores.at(-1)]).toEqual([200, 'n249']);
  });
  test('what a comma is, is said of one board and leaves the rest of it', () => {
    const said = setBoardReads(claimed, boardId, () => ({ comma: 'decimal' }));
    expect(said.boards[0]?.reads).toEqual({ comma: 'decimal', ignores: ['millis'], picked: [] });
    expect(setBoardReads(claimed, 'another', () => ({ comma: 'decimal' }))).toEqual(claimed);
  });
});
