/** What happened in a garden, append-only. Words are made when shown; here are the facts. */
import { EARLIEST_MS, LATEST_MS } from '../quantity/moment.ts';
import { z } from '../quantity/schema.ts';
import { PERCENT_KIND_IDS } from '../quantity/percentKind.ts';
import { ALERT_KINDS } from '../control/alerts.ts';
import { REASONS } from '../control/contract/reasons.ts';

export const ENTRY_KINDS = [
  'fed',
  'rain',
  'flower',
  'yellow leaf',
  'repotted',
  'mulched',
  'moved',
  'probe changed',
  'dial',
  'photo',
] as const;

/** Not said: span percent, as in the first versions. */
const kind = z.enum(PERCENT_KIND_IDS).optional();
const words = z.string().max(400);
const id = z.string().min(1).max(160);
/** Names the picture in this browser's storage, and in a backup. */
export const photoId = z.string().regex(/^[a-z0-9]{8,40}$/);
const common = {
  /** Given once, by whoever saw it happen: the same event twice is kept once. */
  id,
  atMs: z.number().min(EARLIEST_MS).lt(LATEST_MS),
  plotId: words.nullable(),
  /** Whose it is, where it is somebody's. */
  boardId: words.nullable(),
  lineId: words.nullable(),
  channelId: words.nullable(),
  /** Its number among the events of its board; null for what no board has told. */
  seq: z.int().min(0).nullable(),
  author: z.enum(['board', 'page', 'person']),
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
    /** The same as raw counts, where those decide alone. */
    rawCounts: z.number().optional(),
  }),
  z.strictObject({
    ...common,
    kind: z.literal('pump-stopped'),
    reason: z.enum(REASONS),
    ranS: z.number(),
    volumeMl: z.number(),
  }),
  z.strictObject({
    ...common,
    kind: z.literal('contact-on'),
    contactName: words,
    use: z.enum(['permit', 'light']),
    reason: z.enum(REASONS),
  }),
  z.strictObject({
    ...common,
    kind: z.literal('contact-off'),
    contactName: words,
    use: z.enum(['permit', 'light']),
    reason: z.enum(REASONS),
    onS: z.number(),
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
  z.strictObject({ ...common, kind: z.literal('poured'), volumeMl: z.number(), text: words.optional() }),
  /** What a person saw or did, with how much where that is counted. */
  z.strictObject({
    ...common,
    kind: z.literal('entry'),
    what: z.enum(ENTRY_KINDS),
    amount: z.number().optional(),
    photo: photoId.optional(),
    text: words,
  }),
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
  /** Readings that a person took out of the record, of channels and days in words. */
  z.strictObject({
    ...common,
    kind: z.literal('removed'),
    what: words,
    readings: z.int().min(0),
  }),
  z.strictObject({ ...common, kind: z.literal('note'), text: z.string().min(1).max(400) }),
]);

export type GardenEvent = z.infer<typeof eventSchema>;

type Identity = Pick<GardenEvent, 'id' | 'boardId' | 'lineId' | 'channelId' | 'seq' | 'author'>;
type Draft<Event> = Event extends GardenEvent ? Omit<Event, keyof Identity> & Partial<Identity> : never;
/** An event as whoever sees it tells it: what it does not say is filled in. */
export type EventDraft = Draft<GardenEvent>;

/** @param id for an event that has none yet */
export const identified = (draft: EventDraft, id: string, author: Identity['author']): GardenEvent => ({
  boardId: null,
  lineId: null,
  channelId: null,
  seq: null,
  author,
  ...draft,
  id: draft.id ?? id,
});

/** What only a person does, and what only a board tells; the rest came from the page. For events of the first versions, which did not say. */
const PERSONS = ['note', 'entry', 'poured', 'probe-moved', 'reference', 'calibrated', 'imported', 'removed'];
const PAGES = ['alert'];

/** An event as a file or the storage holds it; one of the first versions gets what it lacks. @param id for one without; @returns null for what is no event */
export function readEvent(value: unknown, id: string): GardenEvent | null {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return null;
  const isOld = !('id' in value);
  const { kind } = value as { readonly kind?: unknown };
  const author = PERSONS.includes(String(kind)) ? 'person' : PAGES.includes(String(kind)) ? 'page' : 'board';
  const read = eventSchema.safeParse(isOld ? identified(value as EventDraft, id, author) : value);
  return read.success ? read.data : null;
}

/** Everything that an event says besides who it is: two with the same are the same, as far as anybody can tell. */
export function contentOf(event: GardenEvent): string {
  const {
    id: _id,
    boardId: _board,
    lineId: _line,
    channelId: _channel,
    seq: _seq,
    author: _author,
    ...content
  } = event;
  // A draft has its fields in another order than one that was read.
  return JSON.stringify(Object.entries(content).sort(([a], [b]) => (a < b ? -1 : 1)));
}
