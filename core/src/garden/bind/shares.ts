/** Which plot gets what of a line's water, by its cups. */
import type { WaterLine } from '../document/schema.ts';

/** What each plot gets of a line's water, percent, the largest first; outlets that lead to no plot under null. Null while nothing is measured. */
export function sharesByPlot(
  line: WaterLine,
): readonly { readonly plotId: string | null; readonly percent: number }[] | null {
  const measured = line.outlets.filter((one) => one.cupMl !== null);
  const total = measured.reduce((sum, one) => sum + (one.cupMl ?? 0), 0);
  if (!(total > 0)) return null;
  const byPlot = new Map<string | null, number>();
  for (const one of measured) byPlot.set(one.plotId, (byPlot.get(one.plotId) ?? 0) + (one.cupMl ?? 0));
  return [...byPlot]
    .map(([plotId, cupMl]) => ({ plotId, percent: (100 * cupMl) / total }))
    .sort((a, b) => b.percent - a.percent);
}

/** How much of a line's water reaches a plot, 0..1: by its cups; all of it while they were not measured, as long as the line is the plot's own. */
export function shareOfPlot(line: WaterLine, plotId: string): number {
  const shares = sharesByPlot(line);
  if (!shares) return 1;
  return (shares.find((one) => one.plotId === plotId)?.percent ?? 0) / 100;
}
