/** Readings and events in storage. Blocks are merged inside one transaction, so a killed tab leaves whole days or nothing. */
import { contentOf, readEvent, type GardenEvent } from '@plain-trowel/core/records/event';
import { WaterDays, WaterSums } from '@plain-trowel/core/records/waterGiven';
import { zoneClock } from '@plain-trowel/core/records/zoneClock';
import { OLD_ID } from '@plain-trowel/core/records/eventsFile';
import { DAY_MS, FLAGS, type DayBlock, type Reading } from '@plain-trowel/core/records/series';
import { allOrNothing, daysOfChannel, type Db, type WriteTx, writeTo } from './db.ts';
import type { Stretch } from '@plain-trowel/core/records/stretch';
import type { DayStore } from '@plain-trowel/core/records/seriesReader';
import { DAY_STORES, storedThins } from './days.ts';
import { readDay } from '@plain-trowel/core/records/packDay';
import { putReadings, type PutOutcome, type ReadingsByChannel } from './putReadings.ts';
import { StorageError } from './storageProblem.ts';

/**
 * Keeps readings and events of an open garden, all or nothing; on disk when it reports back. What is recorded stays: a reading with another value stands
 * beside it with a flag. The same call twice keeps everything once.
 * @throws StorageError "gone" when the garden is not in storage any more
 */
export async function addRecords(
  db: Db,
  gardenId: string,
  readings: ReadingsByChannel,
  events: readonly GardenEvent[] = [],
): Promise<PutOutcome> {
  const tx = writeTo(db, 'gardens', ...DAY_STORES, 'events', 'aside');
  return allOrNothing(tx, async () => {
    if ((await tx.objectStore('gardens').getKey(gardenId)) === undefined) throw new StorageError('gone');
    const outcome = await putReadings(tx, gardenId, readings, 'beside');
    await putEvents(tx, gardenId, events);
    return outcome;
  });
}

/**
 * Keeps events under their names within the garden, each once. Another event under a name that is taken gets a name beside it: nothing recorded is written
 * over. @param importId of the file that they came with
 */
export async function putEvents(
  tx: WriteTx,
  gardenId: string,
  events: readonly GardenEvent[],
  importId?: string,
): Promise<void> {
  const store = tx.objectStore('events');
  for (const event of events) {
    for (let turn = 1; ; turn += 1) {
      const id = turn === 1 ? event.id : `${event.id} ${turn}`;
      const held = await store.get(`${gardenId} ${id}`);
      const isTaken = held !== undefined && held.undone !== true;
      const same = isTaken ? readEvent(held.event, id) : null;
      if (same && contentOf(same) === contentOf(event)) break;
      if (isTaken) continue;
      const record = { gardenId, atMs: event.atMs, event: { ...event, id } };
      await store.put(importId === undefined ? record : { ...record, importId }, `${gardenId} ${id}`);
      break;
    }
  }
}

/**
 * Puts another event in the place of one that a person wrote, or nothing; the one before stays in storage, put out of sight, so that this can be undone by calling it the
 * other way round.
 * @throws StorageError "gone" when the event is not there any more, as in another tab
 */
export async function changeEvent(
  db: Db,
  gardenId: string,
  before: GardenEvent | null,
  after: GardenEvent | null,
): Promise<void> {
  const tx = writeTo(db, 'gardens', 'events');
  await allOrNothing(tx, async () => {
    if ((await tx.objectStore('gardens').getKey(gardenId)) === undefined) throw new StorageError('gone');
    const store = tx.objectStore('events');
    if (before) {
      const key = `${gardenId} ${before.id}`;
      const held = await store.get(key);
      if (held === undefined || held.undone === true) throw new StorageError('gone');
      await store.put({ ...held, undone: true }, key);
    }
    if (after) await store.put({ gardenId, atMs: after.atMs, event: after }, `${gardenId} ${after.id}`);
  });
}

/** The name of a stored event of the first versions, which has none of its own. It says which record it is here and nothing elsewhere. */
export const oldId = (key: number | string): string => `${OLD_ID}${key}`;

/** The days of a garden in storage, for a `SeriesReader`. @param open gives the database, which may have been opened again meanwhile */
export const dayStore = (open: () => Promise<Db>, gardenId: string): DayStore => ({
  days: async (channelId, fromDayMs, toDayMs) => {
    const db = await open();
    const keys = await db.getAllKeys('blocks', daysOfChannel(gardenId, channelId, fromDayMs, toDayMs));
    return keys.map(([, , dayMs]) => dayMs);
  },
  read: async (channelId, daysMs) => {
    const { store } = (await open()).transaction('blocks');
    return Promise.all(daysMs.map((dayMs) => store.get([gardenId, channelId, dayMs])));
  },
  readThin: async (channelId, fromDayMs, toDayMs) =>
    storedThins(await open(), gardenId, channelId, fromDayMs, toDayMs),
});

/** The newest reading of each channel that has one; one that stands beside another does not count. */
export async function latestReadings(
  db: Db,
  gardenId: string,
  channelIds: readonly string[],
): Promise<Map<string, Reading>> {
  const latest = new Map<string, Reading>();
  const tx = db.transaction('blocks');
  for (const channelId of channelIds) {
    let cursor = await tx.store.openCursor(daysOfChannel(gardenId, channelId), 'prev');
    while (cursor && !latest.has(channelId)) {
      const day = readDay(cursor.value);
      const newest = day && newestOf(day);
      if (newest) latest.set(channelId, newest);
      else cursor = await cursor.continue();
    }
  }
  return latest;
}

/** From the first day of a channel that holds something to the newest: its days whole, for a damaged one says no more; null: nothing is held. */
export async function recordExtent(db: Db, gardenId: string, channelId: string): Promise<Stretch | null> {
  const range = daysOfChannel(gardenId, channelId);
  const [first] = await db.getAllKeys('blocks', range, 1);
  const last = await db.transaction('blocks').store.openKeyCursor(range, 'prev');
  return first && last ? { fromMs: first[2], toMs: last.key[2] + DAY_MS } : null;
}

function newestOf(block: DayBlock): Reading | null {
  for (let at = block.offsetsMs.length - 1; at >= 0; at -= 1) {
    const flags = block.flags[at] ?? 0;
    if ((flags & FLAGS.beside) === 0)
      return { timeMs: block.dayMs + (block.offsetsMs[at] ?? 0), raw: block.raw[at] ?? 0, flags };
  }
  return null;
}

export type StoredEvents = {
  readonly events: readonly GardenEvent[];
  /** Records that could not be read. */
  readonly unreadable: number;
};

const EVENTS_AT_ONCE = 2000;

/** Every event from `fromMs` to `toMs`, a piece at a time, oldest first. */
async function eachEvent(
  db: Db,
  gardenId: string,
  fromMs: number,
  toMs: number,
  take: (event: GardenEvent) => void,
): Promise<void> {
  const range = IDBKeyRange.bound([gardenId, fromMs], [gardenId, toMs]);
  const keys = await db.getAllKeysFromIndex('events', 'by-garden-time', range);
  for (let at = 0; at < keys.length; at += EVENTS_AT_ONCE) {
    const { store } = db.transaction('events');
    const records = await Promise.all(keys.slice(at, at + EVENTS_AT_ONCE).map((key) => store.get(key)));
    for (const record of records) {
      const event = record?.undone === true ? null : readEvent(record?.event, '-');
      if (event) take(event);
    }
  }
}

/** Water given from `fromMs` to `toMs`, over every event. */
export async function readWater(db: Db, gardenId: string, fromMs: number, toMs: number): Promise<WaterSums> {
  const sums = new WaterSums();
  await eachEvent(db, gardenId, fromMs, toMs, (event) => sums.add(event));
  return sums;
}

/** Water given from `fromMs` to `toMs`, by local day. */
export async function readWaterDays(
  db: Db,
  gardenId: string,
  fromMs: number,
  toMs: number,
  timeZone: string,
): Promise<WaterDays> {
  const days = new WaterDays(zoneClock(timeZone).dayAt);
  await eachEvent(db, gardenId, fromMs, toMs, (event) => days.add(event));
  return days;
}

/** Events that are read at one time, unless more are asked for. */
export const MOST_EVENTS = 500;

/** Events from `fromMs` to `toMs`, newest first, at most `most`; what could not be read is counted. */
export async function readEvents(
  db: Db,
  gardenId: string,
  fromMs: number,
  toMs: number,
  most = MOST_EVENTS,
): Promise<StoredEvents> {
  const events: GardenEvent[] = [];
  let unreadable = 0;
  const range = IDBKeyRange.bound([gardenId, fromMs], [gardenId, toMs]);
  let cursor = await db.transaction('events').store.index('by-garden-time').openCursor(range, 'prev');
  while (cursor && events.length < most) {
    if (cursor.value.undone !== true) {
      const event = readEvent(cursor.value.event, oldId(cursor.primaryKey));
      if (event) events.push(event);
      else unreadable += 1;
    }
    cursor = await cursor.continue();
  }
  return { events, unreadable };
}
