import { sharesByPlot } from '../bind/shares.ts';
import { describe, expect, test } from 'vitest';
import { setWaterLine } from './plots.ts';
import { dice, firstLine, onePlot } from './gardenForTests.ts';
import {
  addLevel,
  addOutlet,
  addReservoir,
  removeLevel,
  removeOutlet,
  removeReservoir,
  setOutlet,
  setReservoir,
} from './reservoirs.ts';
import { gardenSchema, type Garden } from '../document/schema.ts';

const random = dice();
const garden = onePlot({ pump: { flowMlPerS: 9 } });
const lineId = firstLine(garden).id;
const sound = (of: Garden) => expect(gardenSchema.safeParse(of).success).toBe(true);

describe('reservoirs', () => {
  const tanked = addReservoir(garden, 'Barrel', random);
  const id = tanked.reservoirs[0]?.id ?? '';
  test('a new one knows nothing; levels are kept by volume, one for each raw value', () => {
    expect(tanked.reservoirs[0]).toMatchObject({
      name: 'Barrel',
      kind: 'level',
      float: { highIs: 'water', threshold: 0.5 },
      levels: [],
      channelId: null,
    });
    const full = addLevel(tanked, id, { raw: 50, volumeMl: 20_000 });
    const both = addLevel(full, id, { raw: 400, volumeMl: 0 });
    expect(both.reservoirs[0]?.levels.map((one) => one.raw)).toEqual([400, 50]);
    const again = addLevel(both, id, { raw: 50, volumeMl: 18_000 });
    expect(again.reservoirs[0]?.levels.map((one) => one.volumeMl)).toEqual([0, 18_000]);
    expect(removeLevel(again, id, 400).reservoirs[0]?.levels).toEqual([{ raw: 50, volumeMl: 18_000 }]);
    sound(again);
  });
  test('taken away, its lines draw from nothing that is watched', () => {
    const drawn = setWaterLine(setReservoir(tanked, id, { minimumMl: 500 }), lineId, { tankId: id });
    sound(drawn);
    const gone = removeReservoir(drawn, id);
    expect(gone.reservoirs).toEqual([]);
    expect(firstLine(gone).tankId).toBeNull();
    sound(gone);
  });
  test('two have two ids', () => {
    const two = addReservoir(tanked, 'Can', random);
    expect(new Set(two.reservoirs.map((one) => one.id)).size).toBe(2);
  });
});

describe('outlets', () => {
  const plotId = garden.plots[0]?.id ?? '';
  const with2 = addOutlet(
    addOutlet(garden, lineId, { name: 'left', plotId, cupMl: 30 }, random),
    lineId,
    { name: 'right', plotId: null, cupMl: null },
    random,
  );
  const [left, right] = firstLine(with2).outlets;
  test('are added, changed and taken away', () => {
    expect(firstLine(with2).outlets.map((one) => one.name)).toEqual(['left', 'right']);
    const measured = setOutlet(with2, lineId, right?.id ?? '', { cupMl: 10 });
    expect(firstLine(measured).outlets[1]).toMatchObject({ name: 'right', cupMl: 10 });
    expect(firstLine(removeOutlet(measured, lineId, left?.id ?? '')).outlets).toHaveLength(1);
    sound(measured);
  });
  test('what each plot gets: by the cups, the largest first; what leads nowhere is told too', () => {
    const measured = setOutlet(with2, lineId, right?.id ?? '', { cupMl: 10 });
    expect(sharesByPlot(firstLine(measured))).toEqual([
      { plotId, percent: 75 },
      { plotId: null, percent: 25 },
    ]);
    // An outlet that nobody has measured does not count.
    expect(sharesByPlot(firstLine(with2))).toEqual([{ plotId, percent: 100 }]);
    expect(sharesByPlot(firstLine(garden))).toBeNull();
  });
});
