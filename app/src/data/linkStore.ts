/** What the stand-in boards of a garden remember between visits. */
import { parseJson } from '@plain-trowel/core/quantity/parseJson';
import { z } from '@plain-trowel/core/quantity/schema';
import type { AlertStates } from '@plain-trowel/core/control/alerts';
import type { BoardEngine } from '@plain-trowel/core/control/host/boardEngine';
import { switchOn } from '@plain-trowel/core/control/host/engineHost';
import { PROBE_FAULTS } from '@plain-trowel/standins/board/potProbe';
import { BOARD_FAULTS, type World } from '@plain-trowel/standins/board/world';
import { allOrNothing, writeTo, type Db } from './db.ts';
import { putAside as putAsideIn } from './aside.ts';

const pot = z.object({ surfaceMl: z.number(), rootMl: z.number(), drainedMl: z.number() });

const line = z.object({
  hoursMl: z.array(z.int().min(0)).max(25),
  locked: z.boolean(),
  noRise: z.int().min(0),
  pulses: z.int().min(0),
  watchTenths: z.int().nullable(),
});
/** As boards kept it at first: the day's volume without its age, which counts as given just now. */
const lineOfOld = z
  .object({ givenMl: z.int().min(0), locked: z.boolean(), noRise: z.int().min(0) })
  .transform(({ givenMl, ...rest }) => ({ ...rest, hoursMl: [givenMl], pulses: 0, watchTenths: null }));
const kept = z.union([line, lineOfOld]);
const NO_ENGINE: BoardEngine = {
  boardId: '',
  config: { sensors: [], tanks: [], lines: [], atOnce: 1 },
  lineIds: [],
  sensors: [],
  tankIds: [],
  tankChannelIds: [],
  around: [],
  batteryId: null,
  contacts: [],
  contactIds: [],
  contactsAround: [],
};
/** Every visit boots the boards again: of what their engines held only what a board keeps is taken up again. */
const hosted = z
  .object({
    memory: z.record(z.string(), kept),
    contactMemory: z.record(z.string(), z.array(z.int().min(0)).max(25)).optional(),
    /** Until when lines are skipped, ms since 1970. */
    skips: z.record(z.string(), z.number()).optional(),
  })
  .transform(({ memory, contactMemory = {}, skips = {} }) =>
    switchOn(NO_ENGINE, { memory, contactMemory, skips }, 0),
  );

const worldSchema = z.object({
  timeMs: z.number(),
  nextLineMs: z.number(),
  seed: z.int(),
  pots: z.record(z.string(), pot),
  tanks: z.record(z.string(), z.number()),
  boards: z.record(z.string(), hosted),
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
  switches: z.record(z.string(), z.boolean()).default({}),
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

const gatewayMemory = z.object({ app: z.string().min(1).max(60), openAtStart: z.boolean() });

export type LinkMemory = {
  readonly world: World | null;
  readonly openAtStart: boolean;
  /** Alerts that were raised, seen or snoozed when the garden was left. */
  readonly alerts: AlertStates;
  /** By which name this browser is known to the gateway, and whether it listens to it; absent: it never did. */
  readonly gateway?: { readonly app: string; readonly openAtStart: boolean } | undefined;
};

/** What was remembered, and what of it could not be read and was put aside just now. */
export type LoadedLink = LinkMemory & { readonly putAside: readonly ('stand-in' | 'alerts')[] };

/** Reads what is remembered; what cannot be read is kept aside before anything else could be written in its place. */
export async function loadLink(db: Db, gardenId: string): Promise<LoadedLink> {
  const record = (await db.get('links', gardenId)) as Partial<Record<string, unknown>> | undefined;
  const world = worldSchema.nullish().safeParse(record?.world);
  const alerts = alertStates.optional().safeParse(record?.alerts);
  const gateway = gatewayMemory.safeParse(record?.gateway);
  const memory: LinkMemory = {
    world: world.success ? (world.data ?? null) : null,
    openAtStart: record?.openAtStart === true,
    alerts: alerts.success ? (alerts.data ?? {}) : {},
    ...(gateway.success ? { gateway: gateway.data } : {}),
  };
  const putAside = [
    ...(world.success ? [] : (['stand-in'] as const)),
    ...(alerts.success ? [] : (['alerts'] as const)),
  ];
  if (putAside.length > 0) {
    const tx = writeTo(db, 'links', 'aside');
    await allOrNothing(tx, async () => {
      for (const what of putAside)
        await putAsideIn(tx, {
          gardenId,
          what,
          name: '',
          record: what === 'stand-in' ? record?.world : record?.alerts,
        });
      await tx.objectStore('links').put({ id: gardenId, ...memory });
    });
  }
  return { ...memory, putAside };
}

export async function saveLink(db: Db, gardenId: string, memory: LinkMemory): Promise<void> {
  const { world, openAtStart, alerts, gateway } = memory;
  await db.put('links', { id: gardenId, world, openAtStart, alerts, ...(gateway ? { gateway } : {}) });
}

/** What the stand-in boards and the alerts remember, as a file's text holds it; what cannot be read is nothing. */
export function readLinkFile(text: string): Pick<LinkMemory, 'world' | 'alerts'> {
  const parsed = parseJson(text);
  const of = typeof parsed === 'object' && parsed !== null ? (parsed as Record<string, unknown>) : {};
  const world = worldSchema.safeParse(of.world);
  const alerts = alertStates.safeParse(of.alerts);
  return { world: world.success ? world.data : null, alerts: alerts.success ? alerts.data : {} };
}
