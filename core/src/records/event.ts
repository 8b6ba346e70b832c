/** What happened in a garden, append-only. Words are made when shown; here are the facts. */
import { EARLIEST_MS, LATEST_MS } from '../quantity/moment.ts';
import { z } from '../quantity/schema.ts';
import { PERCENT_KIND_IDS } from '../quantity/percentKind.ts';
import { ALERT_KINDS } from '../control/alerts.ts';
import { REASONS } from '../control/engine/reasons.ts';

/** Not said: span percent, as in the first versions. */
const kind = z.enum(PERCENT_KIND_IDS).optional();
const words = z.string().max(400);
const common = {
  atMs: z.number().min(EARLIEST_MS).lt(LATEST_MS),
  plotId: words.nullable(),
  simulated: z.boolean(),
};

export const eventSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    ...common,
    kind: z.literal('pump-started'),
    reason: z.enum(REASONS),
    /** Null where no probe had a part in it. */
    tenths: z.int().nullable(),
    percentKind: kind,
  }),
  z.strictObject({
    ...common,
    kind: z.literal('pump-stopped'),
    reason: z.enum(REASONS),
    ranS: z.number(),
    volumeMl: z.number(),
  }),
  z.strictObject({ ...common, kind: z.literal('held'), reason: z.enum(REASONS) }),
  z.strictObject({ ...common, kind: z.literal('line-locked'), lineName: words }),
  z.strictObject({ ...common, kind: z.literal('line-unlocked'), lineName: words }),
  z.strictObject({ ...common, kind: z.literal('order-refused'), reason: z.enum(REASONS) }),
  z.strictObject({
    ...common,
    kind: z.literal('alert'),
    alert: z.enum(ALERT_KINDS),
    phase: z.enum(['raised', 'repeated', 'cleared', 'acknowledged', 'snoozed']),
    /** What it is about: a plot, a board, a reservoir or a line by its name. */
    subject: words,
  }),
  z.strictObject({ ...common, kind: z.literal('poured'), volumeMl: z.number() }),
  z.strictObject({ ...common, kind: z.literal('probe-moved'), to: z.enum(['soil', 'air', 'jar']) }),
  z.strictObject({
    ...common,
    kind: z.literal('reference'),
    /** Of a reference of an earlier version; since then the condition says all. */
    side: z.enum(['dry', 'wet']).optional(),
    condition: words,
    rawCounts: z.number(),
    spreadCounts: z.number(),
  }),
  z.strictObject({
    ...common,
    kind: z.literal('calibrated'),
    calibrationId: words,
    dryCounts: z.number(),
    wetCounts: z.number(),
    method: words.optional(),
    percentKind: kind,
  }),
  z.strictObject({
    ...common,
    kind: z.literal('imported'),
    what: words,
    /** Readings that were new, and those of them that stand beside recorded ones; earlier versions did not count the second. */
    readings: z.int().min(0),
    beside: z.int().min(0).optional(),
  }),
  z.strictObject({ ...common, kind: z.literal('note'), text: z.string().min(1).max(400) }),
]);

export type GardenEvent = z.infer<typeof eventSchema>;
