import { newContradictions } from '@plain-trowel/core/garden/edits/lineChange';
import { setWaterLine } from '@plain-trowel/core/garden/edits/plots';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { useGarden } from '../../../../data/gardenContext.ts';
import { contradictionText } from '../../../../words/contradictionText.ts';

export type LineChange = Partial<Omit<WaterLine, 'id'>>;

/** Changes to a water line. What would contradict something that stands is not kept; `check` says what, and how to resolve it. */
export function useLine(line: WaterLine) {
  const { garden, commit } = useGarden();
  const check = (change: LineChange): string | null => {
    const [first] = newContradictions(garden, line.id, change);
    return first ? contradictionText(first) : null;
  };
  const keep = (label: string, change: LineChange) =>
    void commit(`${label} of ${line.name}`, (before) => ({ garden: setWaterLine(before, line.id, change) }));
  return { check, keep };
}
