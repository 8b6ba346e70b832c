import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  BAND_NAMES,
  bandAt,
  bandsOf,
  checkEdges,
  bandWord,
  edgesByLimits,
  FEEL_EDGES,
  leastBandTenths,
  moveEdge,
  type BandEdges,
} from './bands.ts';

const edges: BandEdges = [100, 300, 600, 900];

test('four edges make five bands that tile the scale', () => {
  expect(bandsOf(edges)).toEqual([
    { name: 'dry', fromTenths: 0, toTenths: 100 },
    { name: 'low', fromTenths: 100, toTenths: 300 },
    { name: 'right', fromTenths: 300, toTenths: 600 },
    { name: 'wet', fromTenths: 600, toTenths: 900 },
    { name: 'flooded', fromTenths: 900, toTenths: 1000 },
  ]);
});

test.each([
  [0, 'dry'],
  [99, 'dry'],
  [100, 'low'],
  [300, 'right'],
  [599, 'right'],
  [600, 'wet'],
  [900, 'flooded'],
  [1000, 'flooded'],
])('%d tenths are %s', (tenths, name) => {
  expect(bandAt(edges, tenths)).toBe(name);
});

test('every moisture lies in exactly the band that names it', () => {
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 999 }), (tenths) => {
      const holding = bandsOf(edges).filter((band) => tenths >= band.fromTenths && tenths < band.toTenths);
      expect(holding.map((band) => band.name)).toEqual([bandAt(edges, tenths)]);
    }),
  );
});

test.each([
  { says: 'rising edges', given: edges, issue: null },
  { says: 'those of a finger', given: FEEL_EDGES, issue: null },
  { says: 'no room for flooded, at the very end', given: [100, 300, 600, 1000], issue: null },
  {
    says: 'two edges at one place',
    given: [100, 100, 600, 900],
    issue: { kind: 'edge-order', at: 1, leastTenths: 110 },
  },
  {
    says: 'a band narrower than one percent',
    given: [100, 109, 600, 900],
    issue: { kind: 'edge-order', at: 1, leastTenths: 110 },
  },
  {
    says: 'no room for dry',
    given: [9, 300, 600, 900],
    issue: { kind: 'edge-order', at: 0, leastTenths: 10 },
  },
  {
    says: 'no room for flooded',
    given: [100, 300, 600, 991],
    issue: { kind: 'edge-order', at: 3, leastTenths: 1001 },
  },
  {
    says: 'an edge that is no number',
    given: [100, NaN, 600, 900],
    issue: { kind: 'edge-order', at: 1, leastTenths: 110 },
  },
] as const)('$says', ({ given, issue }) => {
  expect(checkEdges(given)).toEqual(issue);
});

test('a noisy probe needs wider bands: twice its noise', () => {
  expect([0, 5, 10.1, 40].map(leastBandTenths)).toEqual([10, 10, 21, 80]);
  expect(checkEdges([100, 170, 600, 900], 40)).toEqual({ kind: 'edge-order', at: 1, leastTenths: 180 });
});

test.each([
  [1, 250.4, [100, 250, 600, 900]],
  [1, 10, [100, 110, 600, 900]],
  [1, 990, [100, 590, 600, 900]],
  [0, -50, [10, 300, 600, 900]],
  [3, 985, [100, 300, 600, 985]],
  [3, 993, [100, 300, 600, 990]],
  [3, 5000, [100, 300, 600, 1000]],
] as const)('edge %d moved to %d stops at its neighbours', (at, to, expected) => {
  expect(moveEdge(edges, at, to, 0)).toEqual(expected);
});

test('however an edge is moved, the bands tile and keep their width', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 0, max: 3 }),
      fc.double({ min: -500, max: 1500, noNaN: true }),
      fc.double({ min: 0, max: 60, noNaN: true }),
      (at, to, noise) => {
        const wide: BandEdges = [200, 400, 600, 800];
        expect(checkEdges(moveEdge(wide, at, to, noise), noise)).toBeNull();
      },
    ),
  );
});

test('where two neighbours leave no room nothing moves', () => {
  expect(moveEdge([100, 120, 140, 900], 1, 130, 30)).toEqual([100, 120, 140, 900]);
});

describe('words go with the limits', () => {
  const unknown = { wiltingTenths: null, capacityTenths: null };
  test('right between start and stop, dry below half of start, flooded from half of what is left', () => {
    expect(edgesByLimits(300, 600, unknown)).toEqual([150, 300, 600, 800]);
  });
  test('where the soil is known: dry from half way to wilting, flooded above its capacity', () => {
    // Loam by volume: wilting 14, capacity 28.
    expect(edgesByLimits(238, 266, { wiltingTenths: 140, capacityTenths: 280 })).toEqual([
      189, 238, 266, 280,
    ]);
  });
  test('of the available water nothing is flooded at capacity itself', () => {
    const edges = edgesByLimits(700, 900, { wiltingTenths: 0, capacityTenths: 1000 });
    expect(edges).toEqual([350, 700, 900, 1000]);
    expect(bandAt(edges, 1000)).toBe('wet');
  });
  test('a stop above what the soil holds leaves capacity out of account', () => {
    expect(edgesByLimits(238, 300, { wiltingTenths: 140, capacityTenths: 280 })).toEqual([
      189, 238, 300, 650,
    ]);
  });
  test('whatever the limits, the words tile', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 990 }), fc.integer({ min: 10, max: 1000 }), (start, gap) => {
        expect(checkEdges(edgesByLimits(start, Math.min(1000, start + gap), unknown))).toBeNull();
      }),
    );
  });
});

test('the school of a target range has three words', () => {
  expect(BAND_NAMES.map((name) => bandWord(name, 'three'))).toEqual([
    'too dry',
    'too dry',
    'good',
    'too wet',
    'too wet',
  ]);
  expect(bandWord('low', 'five')).toBe('low');
});
