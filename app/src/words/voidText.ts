/** What it means for a plot's water that its calibration is void. */
import type { Garden, WaterLine } from '@plain-trowel/core/garden/document/schema';
import { usesProbe } from '@plain-trowel/core/control/programs/programs';
import { formatVolume } from '@plain-trowel/core/quantity/format';

/** One sentence for each line that waters the plot by itself. */
export const voidMeans = (garden: Garden, plotId: string): readonly string[] =>
  garden.waterLines.flatMap((line) => (line.plotId === plotId && line.automatic ? [meansFor(line)] : []));

function meansFor({ name, program, fallbackMl }: WaterLine): string {
  if (program.kind === 'alert-only') return `${name} only alerts, and has nothing to go by until then.`;
  if (program.kind === 'follower') return `${name} follows another line, and goes on as long as that runs.`;
  if (!usesProbe(program.kind)) return `${name} goes by the clock and runs on.`;
  return fallbackMl > 0
    ? `${name} starts nothing by this probe until then; its fallback stands in, ${formatVolume(fallbackMl)} once a day.`
    : `${name} starts nothing until then.`;
}
