import fc from 'fast-check';
import { expect, test } from 'vitest';
import { bandAt, bandsOf, checkEdges, DEFAULT_EDGES, type BandEdges } from './bands.ts';

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
