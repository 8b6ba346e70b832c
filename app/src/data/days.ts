/** Days of readings in storage: packed, and beside each that is over its thinned form, written and dropped in one transaction, so that a chart of a year never shows another past than the days. */
import { packDay, readDay, type PackedDay } from '@plain-trowel/core/records/packDay';
import { dayOf, type DayBlock } from '@plain-trowel/core/records/series';
import { StorageUse, type YearUse } from '@plain-trowel/core/records/storageUse';
import { packThin, thinDay } from '@plain-trowel/core/records/thinDay';
import { daysOfChannel, ofGarden, writeTo, type Db, type StoreName, type WriteTx } from './db.ts';

/** What a transaction that writes days must hold. */
export const DAY_STORES = ['blocks', 'thins'] as const satisfies readonly StoreName[];

/** Today is written every few seconds: it is thinned once it is over. */
const isOver = (dayMs: number): boolean => dayMs < dayOf(Date.now());

/** @param packed the same day, where it was packed already */
export async function putDay(
  tx: WriteTx,
  gardenId: string,
  block: DayBlock,
  packed: PackedDay = packDay(block),
): Promise<void> {
  const thins = tx.objectStore('thins');
  await Promise.all([
    tx.objectStore('blocks').put({ gardenId, ...packed }),
    isOver(block.dayMs)
      ? thins.put({ gardenId, ...packThin(thinDay(block)) })
      : thins.delete([gardenId, block.channelId, block.dayMs]),
  ]);
}

export async function dropDay(
  tx: WriteTx,
  gardenId: string,
  channelId: string,
  dayMs: number,
): Promise<void> {
  const key: [string, string, number] = [gardenId, channelId, dayMs];
  await Promise.all([tx.objectStore('blocks').delete(key), tx.objectStore('thins').delete(key)]);
}

/** The days of a garden that are over and not thinned yet: those of earlier versions, and yesterday. */
async function untidy(
  db: Db,
  gardenId: string,
): Promise<readonly (readonly [channelId: string, dayMs: number])[]> {
  const [days, thins] = await Promise.all([
    db.getAllKeys('blocks', ofGarden(gardenId)),
    db.getAllKeys('thins', ofGarden(gardenId)),
  ]);
  const done = new Set(thins.map(([, channelId, dayMs]) => `${dayMs} ${channelId}`));
  return days.flatMap(([, channelId, dayMs]) =>
    isOver(dayMs) && !done.has(`${dayMs} ${channelId}`) ? [[channelId, dayMs] as const] : [],
  );
}

const DAYS_AT_ONCE = 31;

/**
 * Packs and thins days that are over and were not yet, a month in a transaction; one that cannot be read stays as it is. Whatever ends it, nothing is lost, and the next time goes on.
 * @param onProgress days done and days in all
 */
export async function tidyDays(
  db: Db,
  gardenId: string,
  onProgress: (done: number, all: number) => void,
): Promise<number> {
  const days = await untidy(db, gardenId);
  let tidied = 0;
  for (let at = 0; at < days.length; at += DAYS_AT_ONCE) {
    const tx = writeTo(db, ...DAY_STORES);
    for (const [channelId, dayMs] of days.slice(at, at + DAYS_AT_ONCE)) {
      const block = readDay(await tx.objectStore('blocks').get([gardenId, channelId, dayMs]));
      if (!block) continue;
      await putDay(tx, gardenId, block);
      tidied += 1;
    }
    await tx.done;
    onProgress(Math.min(days.length, at + DAYS_AT_ONCE), days.length);
  }
  return tidied;
}

/** What the readings of a garden take, by year; read a channel at a time. */
export async function storageUse(db: Db, gardenId: string): Promise<readonly YearUse[]> {
  const use = new StorageUse();
  const keys = await db.getAllKeys('blocks', ofGarden(gardenId));
  for (const channelId of new Set(keys.map(([, one]) => one)))
    for (const day of await db.getAll('blocks', daysOfChannel(gardenId, channelId))) use.add(day);
  return use.byYear();
}

/** Thinned days of a channel, both ends included. */
export const storedThins = (
  db: Db,
  gardenId: string,
  channelId: string,
  fromDayMs: number,
  toDayMs: number,
) => db.getAll('thins', daysOfChannel(gardenId, channelId, fromDayMs, toDayMs));
