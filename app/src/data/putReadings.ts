/** Putting readings into the days of a running transaction. */
import { isoOf } from '@plain-trowel/core/quantity/moment';
import { mergeDay, type Clash, type OnClash } from '@plain-trowel/core/records/mergeDay';
import { packDay, readDay, type PackedDay } from '@plain-trowel/core/records/packDay';
import { FLAGS, incomingDays, type Incoming, type Reading } from '@plain-trowel/core/records/series';
import { putDay } from './days.ts';
import { putAside } from './aside.ts';
import { daysOfChannel, type WriteTx } from './db.ts';

export type ReadingsByChannel = ReadonlyMap<string, readonly Reading[]>;

/** What became of readings that were put in. */
export type PutOutcome = {
  readonly added: number;
  /** Of those, the ones that stand beside recorded ones. */
  readonly beside: number;
  readonly same: number;
  readonly clashes: number;
  readonly firstClashes: readonly Clash[];
  /** Days that could not be read and were put aside. */
  readonly damagedDays: number;
  /** What was written: days by channel, midnights UTC, ms. */
  readonly writtenDays: ReadonlyMap<string, readonly number[]>;
};

const SHOWN_CLASHES = 8;

/**
 * Puts readings into the days of a running transaction; a day that cannot be read is put aside, never written over.
 * @param onAdded called with what a day got, for those who must be able to take it out again
 */
export async function putReadings(
  tx: WriteTx,
  gardenId: string,
  readings: Incoming,
  onClash: OnClash,
  onAdded?: (added: PackedDay) => Promise<unknown>,
): Promise<PutOutcome> {
  let [added, beside, same, clashes, damagedDays] = [0, 0, 0, 0, 0];
  const firstClashes: Clash[] = [];
  const writtenDays = new Map<string, number[]>();
  const storedDay = dayReader(tx, gardenId, readings);
  const writing = new Writing();
  for (const { channelId, dayMs, block, readings: day } of incomingDays(readings)) {
    const written = writtenDays.get(channelId) ?? [];
    written.push(dayMs);
    writtenDays.set(channelId, written);
    const stored = await storedDay(channelId, dayMs);
    if (stored === undefined && block) {
      const packed = packDay(block);
      await writing.add(Promise.all([putDay(tx, gardenId, block, packed), onAdded?.(packed)]));
      added += block.raw.length;
      for (const flags of block.flags) if ((flags & FLAGS.beside) !== 0) beside += 1;
      continue;
    }
    const sound = readDay(stored);
    if (stored !== undefined && !sound) {
      damagedDays += 1;
      await putAside(tx, { gardenId, what: 'day', name: dayName(channelId, dayMs), record: stored });
    }
    const merged = mergeDay(sound, channelId, dayMs, day(), onClash);
    if (merged.block !== sound) await putDay(tx, gardenId, merged.block);
    if (merged.added.length > 0)
      await onAdded?.(packDay(mergeDay(null, channelId, dayMs, merged.added, 'beside').block));
    added += merged.added.length;
    for (const one of merged.added) if ((one.flags & FLAGS.beside) !== 0) beside += 1;
    same += merged.same;
    clashes += merged.clashes.length;
    firstClashes.push(...merged.clashes.slice(0, SHOWN_CLASHES - firstClashes.length));
  }
  await writing.done();
  return { added, beside, same, clashes, firstClashes, damagedDays, writtenDays };
}

/** Asks for days as they are stored; undefined where there is none. Of a file of whole days, which may be years, only those are asked for that are there. */
function dayReader(
  tx: WriteTx,
  gardenId: string,
  readings: Incoming,
): (channelId: string, dayMs: number) => Promise<unknown> {
  const blocks = tx.objectStore('blocks');
  const ask = (channelId: string, dayMs: number) => blocks.get([gardenId, channelId, dayMs]);
  if (readings instanceof Map) return ask;
  const held = new Map<string, Set<number>>();
  return async (channelId, dayMs) => {
    const days =
      held.get(channelId) ??
      new Set((await blocks.getAllKeys(daysOfChannel(gardenId, channelId))).map(([, , day]) => day));
    held.set(channelId, days);
    if (days.has(dayMs)) return ask(channelId, dayMs);
    // It will be there from now on, should the file hold it twice.
    days.add(dayMs);
    return undefined;
  };
}

/** Writes that are under way: some at a time, so that the disk is never waited for one by one, and the page goes on. */
class Writing {
  private open: Promise<unknown>[] = [];

  async add(work: Promise<unknown>): Promise<void> {
    // Whatever goes wrong is told by `done`.
    work.catch(() => undefined);
    this.open.push(work);
    if (this.open.length >= DAYS_AT_ONCE) await this.done();
  }

  async done(): Promise<void> {
    await Promise.all(this.open.splice(0));
  }
}

const DAYS_AT_ONCE = 8;

const dayName = (channelId: string, dayMs: number) => `${channelId} ${isoOf(dayMs).slice(0, 10)}`;
