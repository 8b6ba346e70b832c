/** What the stand-in boards of a garden remember between visits. */
import { z } from '@plain-trowel/core/quantity/schema';
import type { AlertStates } from '@plain-trowel/core/control/alerts';
import { bootEngine } from '@plain-trowel/core/control/engine/engine';
import { PROBE_FAULTS } from '@plain-trowel/standins/board/potProbe';
import { BOARD_FAULTS, type World } from '@plain-trowel/standins/board/world';
import type { Db } from './db.ts';

const pot = z.object({ surfaceMl: z.number(), rootMl: z.number(), drainedMl: z.number() });

const kept = z.object({ givenMl: z.number(), locked: z.boolean(), noRise: z.number() });
/** Every visit boots the boards anew: of what their engines held only what a board keeps is taken up again. */
const boardState = z.object({ memory: z.record(z.string(), kept) }).transform(({ memory }) => ({
  engine: bootEngine({ sensors: [], tanks: [], lines: [], atOnce: 1 }),
  made: '',
  lineIds: [],
  since: {},
  memory,
  callMs: Infinity,
}));

const worldSchema = z.object({
  timeMs: z.number(),
  bootMs: z.number(),
  nextLineMs: z.number(),
  seed: z.int(),
  pots: z.record(z.string(), pot),
  tanks: z.record(z.string(), z.number()),
  boards: z.record(z.string(), boardState),
  orders: z.array(z.unknown()).transform(() => []),
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

const alertStates = z.record(
  z.string(),
  z.object({
    sinceMs: z.number(),
    raisedMs: z.number().nullable(),
    toldMs: z.number().nullable(),
    acknowledged: z.boolean(),
    snoozedUntilMs: z.number().nullable(),
  }),
);

export type LinkMemory = {
  readonly world: World | null;
  readonly openAtStart: boolean;
  /** Alerts that were raised, seen or put off when the garden was left. */
  readonly alerts: AlertStates;
};

export async function loadLink(db: Db, gardenId: string): Promise<LinkMemory> {
  const record = await db.get('links', gardenId);
  const world = worldSchema.safeParse(record?.world);
  const alerts = alertStates.safeParse(record?.alerts);
  return {
    world: world.success ? world.data : null,
    openAtStart: record?.openAtStart ?? false,
    alerts: alerts.success ? alerts.data : {},
  };
}

export async function saveLink(db: Db, gardenId: string, memory: LinkMemory): Promise<void> {
  await db.put('links', { id: gardenId, ...memory });
}
