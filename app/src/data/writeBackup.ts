import { byId } from '@plain-trowel/core/quantity/byId';
import { Zip, ZipPassThrough } from 'fflate';
import {
  BACKUP_FILES,
  backupAbout,
  photoFileOf,
  readingsFileOf,
} from '@plain-trowel/core/garden/document/backup';
import { writeGardenFile } from '@plain-trowel/core/garden/document/gardenFile';
import type { Channel, Garden } from '@plain-trowel/core/garden/document/schema';
import { readEvent, type GardenEvent } from '@plain-trowel/core/records/event';
import { eventLine } from '@plain-trowel/core/records/eventsFile';
import { READINGS_HEADER } from '@plain-trowel/core/records/readingsCsvOut';
import { ofGarden, type Db } from './db.ts';
import { rowWriter } from './exportReadings.ts';
import { packedFile } from './packedEntry.ts';
import { packingHere, type Packing } from './packing.ts';
import { photosOf } from './photos.ts';
import { oldId } from './recordStore.ts';
import { WholeRecord, type LeftOut, type PageState } from './wholeRecord.ts';

export type BackupContent = {
  readonly readings: number;
  readonly events: number;
  readonly photos: number;
  readonly leftOut: LeftOut;
};

/** How many events one piece of the file holds: never all of a long season in memory. */
const EVENTS_AT_ONCE = 1000;

/**
 * Writes a backup of a garden as a zip. Readings of channels that the document no longer has are in it as well.
 * @param db null when storage cannot be read: then the backup holds what the page has
 * @param onProgress called with the share done, 0..1
 */
export async function writeBackup(
  db: Db | null,
  page: PageState,
  nowMs: number,
  onProgress?: (doneFrac: number) => void,
  packing: Packing = packingHere(),
): Promise<{ readonly zip: Blob; readonly content: BackupContent }> {
  const { garden, waiting } = page;
  const pieces: Uint8Array<ArrayBuffer>[] = [];
  const failed: Error[] = [];
  const zip = new Zip((error, piece) => {
    if (error) failed.push(error);
    else pieces.push(new Uint8Array(piece));
  });
  const file = (name: string) => packedFile(zip, packing, name, nowMs);
  const whole = async (name: string, text: string) => {
    const entry = await file(name);
    await entry.write(text);
    await entry.end();
  };
  await whole(BACKUP_FILES.about, backupAbout(nowMs));
  await whole(BACKUP_FILES.garden, writeGardenFile(garden));
  if (db) {
    const link = await db.get('links', garden.id);
    if (link)
      await whole(BACKUP_FILES.boards, `${JSON.stringify({ world: link.world, alerts: link.alerts })}\n`);
  }
  const eventsFile = await file(BACKUP_FILES.events);
  let events = 0;
  /** Pictures that events name: what an entry was never written about stays here. */
  const photoIds = new Set<string>();
  const look = (event: GardenEvent) => {
    if (event.kind === 'entry' && event.photo !== undefined) photoIds.add(event.photo);
  };
  let unreadable = 0;
  for await (const { lines, ...left } of eventLines(db, garden.id, waiting.events, look)) {
    await eventsFile.write(lines.join(''));
    events += lines.length;
    unreadable += left.unreadable;
  }
  await eventsFile.end();
  const channelIds = new Set([...(await channelsOf(db, garden)), ...waiting.readings.keys()]);
  let readings = 0;
  const record = new WholeRecord(db, page, onProgress);
  for (const channelId of channelIds) {
    const entry = await file(readingsFileOf(channelId));
    await entry.write(READINGS_HEADER);
    const rows = rowWriter(garden, byId(garden.channels, channelId) ?? strayChannel(channelId));
    for await (const stretch of record.stretches(channelId, true)) {
      readings += stretch.raw.length;
      await entry.write(rows(stretch));
    }
    await entry.end();
  }
  let photos = 0;
  if (db)
    for await (const [id, bytes] of photosOf(db, garden.id, photoIds)) {
      // A picture is packed already.
      const entry = new ZipPassThrough(photoFileOf(id));
      entry.mtime = nowMs;
      zip.add(entry);
      entry.push(bytes, true);
      photos += 1;
    }
  zip.end();
  const [error] = failed;
  if (error) throw error;
  const leftOut = { days: record.damagedDays, events: unreadable, photos: db ? photoIds.size - photos : 0 };
  return {
    zip: new Blob(pieces, { type: 'application/zip' }),
    content: { readings, events, photos, leftOut },
  };
}

/** A channel whose plot was removed: its readings are kept, its name is not known any more. */
const strayChannel = (id: string): Channel => ({
  id,
  probeId: null,
  boardId: '',
  quantity: 'other',
  label: id,
  pin: '',
  streamName: '',
  correction: { kind: 'none' },
  calibrationId: null,
});

async function channelsOf(db: Db | null, garden: Garden): Promise<string[]> {
  const own = garden.channels.map((one) => one.id);
  if (!db) return [];
  const stored = await db.getAllKeys('blocks', ofGarden(garden.id));
  const all = new Set(stored.map(([, channelId]) => channelId));
  // In the order of the document first, so that two backups of one garden compare well.
  return [...own.filter((id) => all.has(id)), ...[...all].filter((id) => !own.includes(id))];
}

async function* eventLines(
  db: Db | null,
  gardenId: string,
  waiting: readonly GardenEvent[],
  look: (event: GardenEvent) => void,
): AsyncGenerator<{ readonly lines: readonly string[]; readonly unreadable: number }> {
  let [lines, unreadable]: [string[], number] = [[], 0];
  if (db) {
    const keys = await db.getAllKeysFromIndex('events', 'by-garden-time', ofGarden(gardenId));
    for (const key of keys) {
      const record = await db.get('events', key);
      if (!record || record.undone === true) continue;
      const event = readEvent(record.event, oldId(key));
      if (event) {
        look(event);
        lines.push(eventLine(event));
      } else unreadable += 1;
      if (lines.length < EVENTS_AT_ONCE) continue;
      yield { lines, unreadable };
      [lines, unreadable] = [[], 0];
    }
  }
  waiting.forEach(look);
  yield { lines: [...lines, ...waiting.map(eventLine)], unreadable };
}
