/** Changes to reservoirs, and to where a line's water goes. Each gives a new garden. */
import { byId } from '../../quantity/byId.ts';
import { setWaterLine } from './plots.ts';
import { USUAL_FLOAT } from '../document/migrations.ts';
import { makeId } from '../document/ids.ts';
import type { Garden, Reservoir, WaterLine } from '../document/schema.ts';

export type Outlet = WaterLine['outlets'][number];
export type LevelOf = Reservoir['levels'][number];

export const addReservoir = (garden: Garden, name: string, random: () => number): Garden => ({
  ...garden,
  reservoirs: [
    ...garden.reservoirs,
    {
      id: makeId('tank', new Set(garden.reservoirs.map((one) => one.id)), random),
      name,
      kind: 'level',
      float: { ...USUAL_FLOAT },
      channelId: null,
      levels: [],
      minimumMl: 0,
    },
  ],
});

export const setReservoir = (garden: Garden, id: string, change: Partial<Omit<Reservoir, 'id'>>): Garden => ({
  ...garden,
  reservoirs: garden.reservoirs.map((one) => (one.id === id ? { ...one, ...change } : one)),
});

/** Takes a reservoir away; lines that drew from it draw from nothing that is watched. */
export const removeReservoir = (garden: Garden, id: string): Garden => ({
  ...garden,
  reservoirs: garden.reservoirs.filter((one) => one.id !== id),
  waterLines: garden.waterLines.map((line) => (line.tankId === id ? { ...line, tankId: null } : line)),
});

/** Adds a known level; a level at the same raw value takes the place of the old one. Sorted by volume, emptiest first. */
export const addLevel = (garden: Garden, id: string, level: LevelOf): Garden => {
  const tank = byId(garden.reservoirs, id);
  const others = tank?.levels.filter((one) => one.raw !== level.raw) ?? [];
  return setReservoir(garden, id, { levels: [...others, level].sort((a, b) => a.volumeMl - b.volumeMl) });
};

export const removeLevel = (garden: Garden, id: string, raw: number): Garden => {
  const tank = byId(garden.reservoirs, id);
  return setReservoir(garden, id, { levels: tank?.levels.filter((one) => one.raw !== raw) ?? [] });
};

const outletsOf = (garden: Garden, lineId: string): readonly Outlet[] =>
  byId(garden.waterLines, lineId)?.outlets ?? [];

export const addOutlet = (
  garden: Garden,
  lineId: string,
  outlet: Omit<Outlet, 'id'>,
  random: () => number,
): Garden => {
  const outlets = outletsOf(garden, lineId);
  const id = makeId('outlet', new Set(outlets.map((one) => one.id)), random);
  return setWaterLine(garden, lineId, { outlets: [...outlets, { id, ...outlet }] });
};

export const setOutlet = (
  garden: Garden,
  lineId: string,
  outletId: string,
  change: Partial<Omit<Outlet, 'id'>>,
): Garden =>
  setWaterLine(garden, lineId, {
    outlets: outletsOf(garden, lineId).map((one) => (one.id === outletId ? { ...one, ...change } : one)),
  });

export const removeOutlet = (garden: Garden, lineId: string, outletId: string): Garden =>
  setWaterLine(garden, lineId, {
    outlets: outletsOf(garden, lineId).filter((one) => one.id !== outletId),
  });
