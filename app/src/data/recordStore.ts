/** Readings and events in storage. Blocks are merged inside one transaction, so a killed tab leaves whole days or nothing. */
import { eventSchema, type GardenEvent } from '@plain-trowel/core/records/event';
import {
  byDay,
  dayOf,
  mergeDay,
  seriesOf,
  type DayBlock,
  type Reading,
  type Series,
} from '@plain-trowel/core/records/series';
import { allOrNothing, daysOfChannel, type BlockRecord, type Db } from './db.ts';

export type ReadingsByChannel = ReadonlyMap<string, readonly Reading[]>;

/** Adds readings and events, all or nothing; on disk when it reports back. */
export async function addRecords(
  db: Db,
  gardenId: string,
  readings: ReadingsByChannel,
  events: readonly GardenEvent[] = [],
): Promise<void> {
  const tx = db.transaction(['blocks', 'events'], 'readwrite', { durability: 'strict' });
  const blocks = tx.objectStore('blocks');
  await allOrNothing(tx, async () => {
    for (const [channelId, list] of readings) {
      for (const [dayMs, day] of byDay(list)) {
        const stored = blockOf(await blocks.get([gardenId, channelId, dayMs]));
        await blocks.put({ gardenId, ...mergeDay(stored, channelId, dayMs, day) });
      }
    }
    for (const event of events) await tx.objectStore('events').add({ gardenId, atMs: event.atMs, event });
  });
}

/** A stored block if its columns fit together, else null: a damaged day must not take the rest along. */
function blockOf(record: BlockRecord | undefined): DayBlock | null {
  if (!record) return null;
  const { offsetsMs, raw, flags } = record;
  const sound =
    offsetsMs instanceof Uint32Array &&
    raw instanceof Float64Array &&
    flags instanceof Uint8Array &&
    offsetsMs.length === raw.length &&
    raw.length === flags.length;
  return sound ? record : null;
}

export async function readSeries(
  db: Db,
  gardenId: string,
  channelId: string,
  fromMs: number,
  toMs: number,
): Promise<Series> {
  const records = await db.getAll('blocks', daysOfChannel(gardenId, channelId, dayOf(fromMs), dayOf(toMs)));
  return seriesOf(
    records.flatMap((record) => blockOf(record) ?? []),
    fromMs,
    toMs,
  );
}

/** Everything ever kept of a channel, for an export. */
export async function readWholeSeries(db: Db, gardenId: string, channelId: string): Promise<Series> {
  const records = await db.getAll('blocks', daysOfChannel(gardenId, channelId));
  return seriesOf(
    records.flatMap((record) => blockOf(record) ?? []),
    -Infinity,
    Infinity,
  );
}

/** The newest reading of each channel that has one. */
export async function latestReadings(
  db: Db,
  gardenId: string,
  channelIds: readonly string[],
): Promise<Map<string, Reading>> {
  const latest = new Map<string, Reading>();
  const tx = db.transaction('blocks');
  for (const channelId of channelIds) {
    const cursor = await tx.store.openCursor(daysOfChannel(gardenId, channelId), 'prev');
    const block = blockOf(cursor?.value);
    const at = (block?.offsetsMs.length ?? 0) - 1;
    if (block && at >= 0)
      latest.set(channelId, {
        timeMs: block.dayMs + (block.offsetsMs[at] ?? 0),
        raw: block.raw[at] ?? 0,
        flags: block.flags[at] ?? 0,
      });
  }
  return latest;
}

/** Events from `fromMs` to `toMs`, newest first, at most `most`; records that no longer fit are left out. */
export async function readEvents(
  db: Db,
  gardenId: string,
  fromMs: number,
  toMs: number,
  most = 500,
): Promise<GardenEvent[]> {
  const events: GardenEvent[] = [];
  const range = IDBKeyRange.bound([gardenId, fromMs], [gardenId, toMs]);
  let cursor = await db.transaction('events').store.index('by-garden-time').openCursor(range, 'prev');
  while (cursor && events.length < most) {
    const read = eventSchema.safeParse(cursor.value.event);
    if (read.success) events.push(read.data);
    cursor = await cursor.continue();
  }
  return events;
}
