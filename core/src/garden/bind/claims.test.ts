import { describe, expect, test } from 'vitest';
import { addBarePlot, addPlot, emptyGarden } from '../edits/plots.ts';
import { making, MINT } from '../edits/gardenForTests.ts';
import { suggestClaims, type Claim, type Unclaimed } from './claims.ts';

const { random } = making();
const { garden: one } = addPlot(
  emptyGarden('Shed', 'UTC', making()),
  { ...MINT, streamName: 'value' },
  random,
);
const garden = addBarePlot(one, { name: 'Bed', plant: '', kind: 'bed' }, random).garden;
const [board] = garden.boards;
const [channel] = garden.channels;
const [mint, bed] = garden.plots;
const number = (name: string, last: number, unit: string | null = null): Unclaimed => ({
  boardId: board?.id ?? '',
  name,
  last,
  unit,
});
const claims = (...numbers: Unclaimed[]) =>
  suggestClaims(garden, numbers, new Set(numbers.map((each) => each.name)), mint?.id ?? null);
const word = (claim: Claim | undefined) =>
  claim === undefined ? '' : 'quantity' in claim ? claim.quantity : claim.kind;

describe('what a number probably is', () => {
  test.each([
    [number('t1', 18.4), 'soil temperature'],
    [number('value', 18.4, '°C'), 'soil temperature'],
    [number('air temp', 21), 'air temperature'],
    [number('bat', 12.31), 'battery voltage'],
    [number('x', 12.31, 'V'), 'battery voltage'],
    [number('lux', 400), 'light'],
    [number('tank', 23, 'cm'), 'distance'],
    [number('Moisture %', 40, '%'), 'factory moisture'],
    [number('humidity', 45, '%'), 'other'],
    [number('pump', 1), 'ignore'],
    [number('temp', 70, '°F'), 'ignore'],
    [number('bat', 3900, 'mV'), 'ignore'],
    [number('millis', 4500), 'ignore'],
  ])('%j: %s', (each, expected) => {
    expect(word(claims(each)[0])).toBe(expected);
  });
  test('a number that says moisture goes to the probe that waits, the next to the plot that has none, whatever their order', () => {
    expect(claims(number('number 3', 402), number('soil', 512))).toEqual([
      { kind: 'new probe', plotId: bed?.id, quantity: 'moisture' },
      { kind: 'channel', channelId: channel?.id },
    ]);
  });
  test('once every probe and plot has its number, the rest is ignored; what no converter counts as well', () => {
    expect(claims(number('a', 1), number('b', 2), number('c', 3)).map(word)).toEqual([
      'channel',
      'moisture',
      'ignore',
    ]);
    expect(claims(number('a', 70_000)).map(word)).toEqual(['ignore']);
    expect(claims(number('a', -3)).map(word)).toEqual(['ignore']);
  });
  test('a probe that is heard already waits for nothing', () => {
    const heard = new Set(['value', 'soil']);
    expect(suggestClaims(garden, [number('soil', 5)], heard, mint?.id ?? null)).toEqual([
      { kind: 'new probe', plotId: bed?.id, quantity: 'moisture' },
    ]);
  });
});
