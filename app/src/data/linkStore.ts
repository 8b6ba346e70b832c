/** What the stand-in boards of a garden remember between visits. */
import { z } from '@plain-trowel/core/quantity/schema';
import { initialEngine } from '@plain-trowel/core/control/engine';
import { PROBE_FAULTS } from '@plain-trowel/standins/board/potProbe';
import { BOARD_FAULTS, type World } from '@plain-trowel/standins/board/world';
import type { Db } from './db.ts';

const plotWorld = z
  .object({
    pot: z.object({ surfaceMl: z.number(), rootMl: z.number(), drainedMl: z.number() }),
  })
  // Every visit boots the boards anew, so what the engines held is not taken up again.
  .transform((plot) => ({
    ...plot,
    engine: initialEngine,
    outputs: { pumpOn: false, lamp: 'off' as const },
  }));

const worldSchema = z.object({
  timeMs: z.number(),
  bootMs: z.number(),
  nextLineMs: z.number(),
  seed: z.int(),
  plots: z.record(z.string(), plotWorld),
  probes: z.record(
    z.string(),
    z.object({
      place: z.enum(['soil', 'air', 'jar', 'hand']),
      fault: z.enum(PROBE_FAULTS),
      fast: z.number(),
      slow: z.number(),
    }),
  ),
  boardFaults: z.record(z.string(), z.enum(BOARD_FAULTS)),
  cyclingSinceMs: z.number().nullable(),
});

export type LinkMemory = { readonly world: World | null; readonly openAtStart: boolean };

export async function loadLink(db: Db, gardenId: string): Promise<LinkMemory> {
  const record = await db.get('links', gardenId);
  const world = worldSchema.safeParse(record?.world);
  return { world: world.success ? world.data : null, openAtStart: record?.openAtStart ?? false };
}

export async function saveLink(db: Db, gardenId: string, memory: LinkMemory): Promise<void> {
  await db.put('links', { id: gardenId, ...memory });
}
