import { expect, test } from 'vitest';
import { basisText, noSuggestionText, roughText } from './suggestText.ts';

const scale = {
  percentKind: 'volumetric',
  dryCounts: 3000,
  wetCounts: 1000,
  dryPercent: 5,
  wetPercent: 24.5,
} as const;

test.each([
  [{ kind: 'none', why: 'soil', lacks: 'holds' } as const, /same % VWC is wet in sand and dry in peat/],
  [{ kind: 'none', why: 'soil', lacks: 'density' } as const, /bulk density/],
  [
    { kind: 'none', why: 'narrow', startPercent: 8.5, stopPercent: 9.2 } as const,
    /8\.5 % VWC and 9\.2 % VWC, closer together/,
  ],
  [
    { kind: 'none', why: 'curve', percent: 26.6, curveEnds: [5, 24.5] } as const,
    /26\.6 % VWC, and this calibration reads from 5\.0 to 24\.5 % VWC/,
  ],
])('%j', (none, words) => expect(noSuggestionText(none, scale)).toMatch(words));

test('rough says by how much', () => {
  expect(roughText({ start: [61, 78], stop: [85, 93] })).toMatch(
    /61 to 78 % of the available water.*85 to 93 %/,
  );
});

test('a suggestion names its plant and soil, or that the percent knows neither', () => {
  expect(basisText([], 'FAO', 'own')).toBe('Plant: FAO. Soil: own.');
  expect(basisText(['plant'], undefined, 'own')).toMatch(/taken to be thirsty/);
  expect(basisText(['percent'], 'FAO', 'own')).toMatch(/nothing about the soil/);
});
