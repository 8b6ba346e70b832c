/** What a gateway tells the apps that watch a garden: reports of boards as it has kept them, with the ages that boards tell turned into times by its own clock. */
import { z } from '../quantity/schema.ts';

const count = z.int().min(0);
const atMs = z.number().min(0);
const name = z.string().min(1).max(60);

export const entrySchema = z.strictObject({
  /** Its number in the garden's mailbox, from 1 and rising by one: what a cursor counts by. */
  n: z.int().min(1),
  boardId: name,
  boot: count,
  /** Which of several starts of the board under one `boot` number, from 0. */
  run: count,
  seq: count,
  /** When it came, ms since 1970 by the gateway's clock. */
  receivedMs: atMs,
  upS: count,
  /** It is from a stand-in of a board. */
  simulated: z.boolean(),
  program: z.string().max(12).optional(),
  revision: count.optional(),
  readings: z.array(z.strictObject({ n: name, v: z.number(), atMs })).max(500),
  said: z.array(z.strictObject({ text: z.string().max(160), atMs })).max(100),
  orders: z
    .array(
      z.strictObject({ id: name, state: z.enum(['taken', 'refused', 'done']), why: z.string().optional() }),
    )
    .max(20),
});
export type Entry = z.infer<typeof entrySchema>;

/** Whose numbers these are, where they begin for this app, and the gateway's time. */
export const helloSchema = z.object({ store: z.string(), after: count, nowMs: atMs });

export const orderSchema = z.object({
  id: z.string(),
  boardId: z.string(),
  text: z.string(),
  madeMs: z.number(),
  untilMs: z.number(),
  /** `waiting` until the board has said something about it; `expired` when it never did. */
  state: z.enum(['waiting', 'taken', 'refused', 'done', 'expired']),
  why: z.string().optional(),
});

/** Settings that lie at the gateway for a board, and what has become of them. */
export const leftSettingsSchema = z.strictObject({
  revision: count,
  /** Of the program that they are for. */
  frame: z.string().max(12),
  /** Lines for its console, in order. */
  lines: z.array(z.string().max(160)).max(200),
  madeMs: atMs,
  state: z.enum(['waiting', 'taken', 'refused', 'withdrawn']),
  why: z.string().nullable(),
  /** The program that took them; null: none yet. One that cannot keep them, for they hold no `save`, is told them again after each of its starts. */
  takenBy: z.string().max(12).nullable().default(null),
});
export type LeftSettings = z.infer<typeof leftSettingsSchema>;

/** How a garden stands at the gateway. */
export const standingSchema = z.object({
  published: z
    .object({ revision: z.number(), hash: z.string(), atMs: z.number(), by: z.string() })
    .nullable(),
  boards: z.array(
    z.object({
      boardId: z.string(),
      madeMs: z.number(),
      standIn: z.boolean(),
      /** Its newest report; null: none yet. */
      heard: z.object({ atMs: z.number(), program: z.string().nullable() }).nullable(),
    }),
  ),
  /** The key of whoever reads along over MQTT; null: nobody may. */
  reader: z.object({ madeMs: z.number() }).nullable(),
  mailbox: z.object({
    newest: z.number(),
    oldest: z.number(),
    bytes: z.number(),
    fetchedTo: z.number(),
    warnedMs: z.number().nullable(),
    apps: z.array(z.object({ id: z.string(), name: z.string(), n: z.number(), seenMs: z.number() })),
  }),
  /** Where boards reach the gateway: over the network or from its own machine alone, and at which port over MQTT (0: not). */
  reach: z.object({ isOpen: z.boolean(), addresses: z.array(z.string()), mqttPort: z.number() }),
  limitBytes: z.number(),
  usedBytes: z.number(),
  rescues: z.array(z.object({ aside: z.string(), entries: z.number(), atMs: z.number() })),
  nowMs: z.number(),
});
export type Standing = z.infer<typeof standingSchema>;

/** By which a published garden is known: the same text has the same. */
export const PUBLISHED_LETTERS = 16;
