/** Thins out old days for good, so that there is room again: what goes cannot be put back, and what it would leave is told before. */
import { readDay } from '@plain-trowel/core/records/packDay';
import { identified } from '@plain-trowel/core/records/event';
import { DAY_MS } from '@plain-trowel/core/records/series';
import { NO_THINNING, thinnedOut, withDay, type ThinningSum } from '@plain-trowel/core/records/thinOut';
import { DAY_STORES, putDay } from './days.ts';
import { daysOfChannel, ofGarden, writeTo, type Db } from './db.ts';
import { freshName } from './eventIds.ts';
import { StorageError } from './storageProblem.ts';

/** Days of all channels that end by a moment. */
async function daysUpTo(
  db: Db,
  gardenId: string,
  toMs: number,
): Promise<readonly (readonly [string, number])[]> {
  const keys = await db.getAllKeys('blocks', ofGarden(gardenId));
  return keys.flatMap(([, channelId, dayMs]) =>
    dayMs + DAY_MS <= toMs ? [[channelId, dayMs] as const] : [],
  );
}

/** What thinning out all days that end by a moment would leave; read a channel at a time. */
export async function thinningOf(db: Db, gardenId: string, toMs: number): Promise<ThinningSum> {
  let sum = NO_THINNING;
  const channels = new Set((await daysUpTo(db, gardenId, toMs)).map(([channelId]) => channelId));
  for (const channelId of channels)
    for (const stored of await db.getAll('blocks', daysOfChannel(gardenId, channelId, 0, toMs - DAY_MS))) {
      const block = readDay(stored);
      if (block) sum = withDay(sum, block);
    }
  return sum;
}

const DAYS_AT_ONCE = 31;

/**
 * Thins out all days that end by a moment, a month in a transaction, and writes down in each what was done so far: whatever ends it half way, the log tells the truth. A day that cannot be read stays.
 * @param what the days in words, for the log
 * @param onProgress days done and days in all
 * @returns readings that went
 * @throws StorageError "gone" when the garden is not in storage any more
 */
export async function thinOut(
  db: Db,
  gardenId: string,
  { toMs, what, nowMs }: { readonly toMs: number; readonly what: string; readonly nowMs: number },
  onProgress: (done: number, all: number) => void = () => undefined,
): Promise<number> {
  const days = await daysUpTo(db, gardenId, toMs);
  const id = `${freshName()} 0`;
  let removed = 0;
  for (let at = 0; at < days.length; at += DAYS_AT_ONCE) {
    const tx = writeTo(db, 'gardens', ...DAY_STORES, 'events');
    if ((await tx.objectStore('gardens').getKey(gardenId)) === undefined) throw new StorageError('gone');
    for (const [channelId, dayMs] of days.slice(at, at + DAYS_AT_ONCE)) {
      const block = readDay(await tx.objectStore('blocks').get([gardenId, channelId, dayMs]));
      const thin = block && thinnedOut(block);
      if (!block || !thin) continue;
      removed += block.raw.length - thin.raw.length;
      await putDay(tx, gardenId, thin);
    }
    if (removed > 0) {
      const told = identified(
        {
          kind: 'removed',
          atMs: nowMs,
          plotId: null,
          simulated: false,
          what: what.slice(0, 200),
          readings: removed,
        },
        id,
        'person',
      );
      await tx.objectStore('events').put({ gardenId, atMs: nowMs, event: told }, `${gardenId} ${id}`);
    }
    await tx.done;
    onProgress(Math.min(days.length, at + DAYS_AT_ONCE), days.length);
  }
  return removed;
}
