import fc from 'fast-check';
import { expect, test } from 'vitest';
import {
  bandAt,
  bandsOf,
  checkEdges,
  DEFAULT_EDGES,
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
  { says: 'the default', given: DEFAULT_EDGES, issue: null },
  {
    says: 'two edges at one place',
    given: [100, 100, 600, 900],
    issue: { kind: 'edge-order', at: 1, leastTenths: 120 },
  },
  {
    says: 'a band narrower than two percent',
    given: [100, 119, 600, 900],
    issue: { kind: 'edge-order', at: 1, leastTenths: 120 },
  },
  {
    says: 'no room for dry',
    given: [10, 300, 600, 900],
    issue: { kind: 'edge-order', at: 0, leastTenths: 20 },
  },
  {
    says: 'no room for flooded',
    given: [100, 300, 600, 990],
    issue: { kind: 'edge-order', at: 3, leastTenths: 1010 },
  },
  {
    says: 'an edge that is no number',
    given: [100, NaN, 600, 900],
    issue: { kind: 'edge-order', at: 1, leastTenths: 120 },
  },
] as const)('$says', ({ given, issue }) => {
  expect(checkEdges(given)).toEqual(issue);
});

test('a noisy probe needs wider bands: twice its noise', () => {
  expect([0, 10, 10.1, 40].map(leastBandTenths)).toEqual([20, 20, 21, 80]);
  expect(checkEdges([100, 170, 600, 900], 40)).toEqual({ kind: 'edge-order', at: 1, leastTenths: 180 });
});

test.each([
  [1, 250.4, [100, 250, 600, 900]],
  [1, 10, [100, 120, 600, 900]],
  [1, 990, [100, 580, 600, 900]],
  [0, -50, [20, 300, 600, 900]],
  [3, 5000, [100, 300, 600, 980]],
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
