import { broughtIn, type LineContradiction } from '../bind/contradictions.ts';
import { setWaterLine } from './plots.ts';
import type { Garden, WaterLine } from '../document/schema.ts';

/** What a change of one line would bring in. */
export const newContradictions = (
  garden: Garden,
  lineId: string,
  change: Partial<Omit<WaterLine, 'id'>>,
): readonly LineContradiction[] => broughtIn(garden, setWaterLine(garden, lineId, change));
