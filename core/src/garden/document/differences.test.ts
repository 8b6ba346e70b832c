import { describe, expect, test } from 'vitest';
import { firstLine, onePlot } from '../edits/gardenForTests.ts';
import { setWaterLine } from '../edits/plots.ts';
import { differences } from './differences.ts';

const garden = onePlot({ pump: { flowMlPerS: 9 } });
const line = firstLine(garden);

describe('two states of a garden', () => {
  test('that say the same differ in nothing', () => {
    expect(differences(garden, structuredClone(garden))).toEqual([]);
  });
  test('are told apart by the thing and its field, with both values', () => {
    const there = setWaterLine(garden, line.id, { dailyMaxMl: line.dailyMaxMl + 100 });
    expect(differences(garden, there)).toEqual([
      {
        path: ['waterLines', 'dailyMaxMl'],
        of: line.name,
        here: line.dailyMaxMl,
        there: line.dailyMaxMl + 100,
      },
    ]);
  });
  test('go by names and not by places: what stands elsewhere in its list is no difference of its own', () => {
    const [plot] = garden.plots;
    if (!plot) throw new Error('no plot');
    const other = { ...plot, id: 'other', name: 'Sage' };
    const here = { ...garden, plots: [plot] };
    const there = { ...garden, plots: [other, plot] };
    expect(differences(here, there)).toEqual([
      { path: ['plots'], of: 'Sage', here: undefined, there: other },
    ]);
    expect(differences(there, here)).toEqual([
      { path: ['plots'], of: 'Sage', here: other, there: undefined },
    ]);
  });
  test('tell the alert that differs by its kind', () => {
    const alerts = garden.alerts.map((one) => (one.kind === 'wet' ? { ...one, on: false } : one));
    expect(differences(garden, { ...garden, alerts })).toEqual([
      { path: ['alerts', 'on'], of: 'wet', here: true, there: false },
    ]);
  });
  test('tell what stands within a named thing by its name, and what has no name by none', () => {
    const trial = {
      id: 't1',
      runS: 8,
      volumeMl: 70,
      takenAt: '2026-05-01T10:00:00Z',
      simulated: false,
      used: true,
      note: '',
      rig: { tubeM: null, liftCm: null, tankPercent: null, supplyV: null },
    };
    const withTrial = (volumeMl: number) =>
      setWaterLine(garden, line.id, { trials: [{ ...trial, volumeMl }] });
    expect(differences(withTrial(70), withTrial(75))).toEqual([
      { path: ['waterLines', 'trials', 'volumeMl'], of: line.name, here: 70, there: 75 },
    ]);
  });
  test('tell a list of plain numbers as a whole', () => {
    const there = {
      ...garden,
      plots: garden.plots.map((plot) => ({
        ...plot,
        bandEdges: [100, 300, 600, 800] as typeof plot.bandEdges,
      })),
    };
    const [one] = differences(garden, there);
    expect(one).toMatchObject({ path: ['plots', 'bandEdges'], there: [100, 300, 600, 800] });
  });
});
