import { describe, expect, test } from 'vitest';
import { gardenSchema } from '../document/schema.ts';
import { addPlots, numberedOn } from './alike.ts';
import { making, MINT } from './gardenForTests.ts';
import { emptyGarden } from './plots.ts';

test.each([
  ['P34', 1, 'P35'],
  ['P34', 0, 'P34'],
  ['input 09', 1, 'input 10'],
  ['input 2', 3, 'input 5'],
  ['soil1_raw', 2, 'soil3_raw'],
  ['moisture', 1, 'moisture2'],
  ['', 2, '3'],
  ['x'.repeat(60), 11, `${'x'.repeat(56)}12`],
])('%s numbered on by %d is %s', (text, n, expected) => {
  expect(numberedOn(text, n)).toBe(expected);
});

describe('several plots at once', () => {
  const { random } = making();
  const empty = emptyGarden('Shed', 'UTC', making());
  const row = { name: 'Pot', plant: 'basil', kind: 'pot', count: 4 } as const;
  test('four pots alike share a board and are labelled, named and wired on', () => {
    const { garden, plotIds } = addPlots(
      empty,
      [row],
      { ...MINT, probeLabel: 'B1', streamName: 'soil1', pin: 'P32' },
      random,
    );
    expect(gardenSchema.safeParse(garden).success).toBe(true);
    expect(plotIds).toEqual(garden.plots.map((plot) => plot.id));
    expect(garden.plots.map((plot) => plot.name)).toEqual(['Pot', 'Pot 2', 'Pot 3', 'Pot 4']);
    expect(garden.probes.map((probe) => probe.label)).toEqual(['B1', 'B2', 'B3', 'B4']);
    expect(garden.channels.map(({ streamName, pin }) => [streamName, pin])).toEqual([
      ['soil1', 'P32'],
      ['soil2', 'P33'],
      ['soil3', 'P34'],
      ['soil4', 'P35'],
    ]);
    expect(garden.boards).toHaveLength(1);
  });
  test('rows go on where the last one ended; a bare number is printed by one probe only', () => {
    const rows = [
      { ...row, count: 2 },
      { ...row, name: 'Bed', kind: 'bed' as const, count: 1 },
    ];
    const { garden } = addPlots(
      empty,
      rows,
      { ...MINT, probeLabel: 'A1', streamName: 'value', pin: '' },
      random,
    );
    expect(garden.channels.map((channel) => channel.streamName)).toEqual(['A1', 'A2', 'A3']);
    expect(garden.plots.map((plot) => plot.kind)).toEqual(['pot', 'pot', 'bed']);
    expect(addPlots(empty, [{ ...row, count: 1 }], MINT, random).garden.channels[0]?.streamName).toBe(
      MINT.streamName,
    );
  });
  test('without parts they are names alone', () => {
    const { garden } = addPlots(empty, [row], null, random);
    expect([garden.plots.length, garden.probes.length, garden.boards.length]).toEqual([4, 0, 0]);
    expect(gardenSchema.safeParse(garden).success).toBe(true);
  });
});
