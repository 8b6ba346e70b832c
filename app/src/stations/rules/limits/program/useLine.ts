import { contradictions } from '@plain-trowel/core/garden/bind/contradictions';
import { setWaterLine } from '@plain-trowel/core/garden/edits/plots';
import type { LineField } from '@plain-trowel/core/control/programs/contradiction';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { byId } from '@plain-trowel/core/quantity/byId';
import { useGarden } from '../../../../data/gardenContext.ts';
import { contradictionText, fieldName } from '../../../../words/contradictionText.ts';

export type LineChange = Partial<Omit<WaterLine, 'id'>>;

/**
 * Changes to a water line. What contradicts is kept, for two settings may have to change: `problem` says what stands at a field, and the line waters nothing by
 * itself meanwhile.
 */
export function useLine(line: WaterLine) {
  const { garden, commit } = useGarden();
  const standing = (change: LineChange) => {
    const after = setWaterLine(garden, line.id, change);
    const changed = byId(after.waterLines, line.id);
    return changed ? contradictions(after, changed) : [];
  };
  /** What is wrong with a field, as it stands or as it would stand after a change; null when nothing is. */
  const problem = (field: LineField, change: LineChange = {}): string | null => {
    const all = standing(change);
    const own = all.find((one) => one.at === field);
    if (own) return contradictionText(own);
    const other = all.find((one) => one.against === field);
    return other ? `Stands against ${fieldName(other.at)}.` : null;
  };
  const keep = (label: string, change: LineChange) =>
    void commit(`${label} of ${line.name}`, (before) => ({ garden: setWaterLine(before, line.id, change) }));
  return { problem, keep };
}
