import { describe, expect, test } from 'vitest';
import { airAndWater, onePlot } from '../edits/gardenForTests.ts';
import { joinWords, setBandEdges, setLimit, setLimits } from '../edits/plots.ts';
import { setSoilFacts } from '../edits/calibrations.ts';
import { limitRange } from './limitRange.ts';
import { plotParts } from './plotParts.ts';
import { areWordsApart } from './words.ts';
import type { Garden } from '../document/schema.ts';

const spanned = airAndWater(onePlot(), 3000, 1000).garden;
const plotId = spanned.plots[0]?.id ?? '';
const plotOf = (garden: Garden) => {
  const [plot] = garden.plots;
  if (!plot) throw new Error('no plot');
  return plot;
};
const inKind = (garden: Garden, percentKind: 'volumetric' | 'gravimetric'): Garden => ({
  ...garden,
  calibrations: garden.calibrations.map((one) => ({ ...one, percentKind })),
});

describe('one vocabulary', () => {
  test('moving a limit takes the words along in the same step', () => {
    const moved = setLimit(spanned, plotId, 'start', 300);
    expect(plotOf(moved)).toMatchObject({
      limits: { startTenths: 300, stopTenths: 600 },
      bandEdges: [150, 300, 600, 800],
      limitsSet: true,
    });
    expect(areWordsApart(moved, plotOf(moved))).toBe(false);
  });
  test('words moved apart stay apart until they are put back', () => {
    const apart = setBandEdges(spanned, plotId, [200, 400, 700, 850]);
    expect(areWordsApart(apart, plotOf(apart))).toBe(true);
    const moved = setLimits(apart, plotId, { startTenths: 300, stopTenths: 500 });
    expect(plotOf(moved).bandEdges).toEqual([200, 400, 700, 850]);
    const joined = joinWords(moved, plotId);
    expect(plotOf(joined).bandEdges).toEqual([150, 300, 500, 750]);
    expect(areWordsApart(joined, plotOf(joined))).toBe(false);
  });
  test('where dry and flooded begin may be one’s own, and right still goes with the limits', () => {
    const own = setBandEdges(spanned, plotId, [60, 350, 600, 900]);
    expect(areWordsApart(own, plotOf(own))).toBe(false);
    expect(plotOf(setLimits(own, plotId, { startTenths: 400, stopTenths: 700 })).bandEdges).toEqual([
      60, 400, 700, 900,
    ]);
  });
  test('a soil chosen later moves where flooded begins', () => {
    const set = setLimits(inKind(spanned, 'volumetric'), plotId, { startTenths: 238, stopTenths: 266 });
    expect(plotOf(set).bandEdges).toEqual([119, 238, 266, 633]);
    expect(plotOf(setSoilFacts(set, plotId, { kindId: 'loam' })).bandEdges).toEqual([189, 238, 266, 280]);
  });
});

describe('where limits can lie', () => {
  const rangeOf = (garden: Garden) => {
    const parts = plotParts(garden, plotId);
    return parts?.fit ? limitRange(parts, parts.fit) : null;
  };
  test('within what the calibration reads', () => {
    expect(rangeOf(spanned)).toEqual({ leastTenths: 0, mostTenths: 1000, mostBy: 'curve' });
  });
  test('within the pores of the soil: loam is full at 46 % by volume, at 46 ÷ 1.43 by mass', () => {
    const loam = (kind: 'volumetric' | 'gravimetric') =>
      rangeOf(setSoilFacts(inKind(spanned, kind), plotId, { kindId: 'loam' }));
    expect(loam('volumetric')).toMatchObject({ mostTenths: 460, mostBy: 'pores' });
    expect(loam('gravimetric')).toMatchObject({ mostTenths: 322, mostBy: 'pores' });
  });
});
