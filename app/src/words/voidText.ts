/** What it means for a plot's water that its calibration is void. */
import type { Garden, WaterLine } from '@plain-trowel/core/garden/document/schema';
import { usesProbe } from '@plain-trowel/core/control/programs/programs';
import { formatVolume } from '@plain-trowel/core/quantity/format';

/** One sentence for each line that waters the plot by itself, and for each permit contact that goes by its probe. */
export const voidMeans = (garden: Garden, plotId: string): readonly string[] => [
  ...garden.waterLines.flatMap((line) => (line.plotId === plotId && line.automatic ? [meansFor(line)] : [])),
  ...garden.contacts.flatMap(({ name, plotId: of, automatic, rule }) =>
    of === plotId && automatic && rule.kind === 'permit'
      ? [
          rule.atRest === 'forbids'
            ? `${name} is at rest and forbids the other timer.`
            : `${name} is at rest and lets the other timer water.`,
        ]
      : [],
  ),
];

function meansFor({ name, program, fallbackMl }: WaterLine): string {
  if (program.kind === 'alert-only') return `${name} only alerts, and has nothing to go by until then.`;
  if (program.kind === 'follower') return `${name} follows another line, and goes on as long as that runs.`;
  if (!usesProbe(program.kind)) return `${name} goes by the clock and runs on.`;
  return fallbackMl > 0
    ? `${name} starts nothing by this probe until then; its fallback stands in, ${formatVolume(fallbackMl)} once a day.`
    : `${name} starts nothing until then.`;
}
