/** The whole record of a garden on its way out: into a CSV, SenML or a backup. */
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import type { GardenEvent } from '@plain-trowel/core/records/event';
import { dayOf, seriesOfReadings, type Series } from '@plain-trowel/core/records/series';
import { SeriesReader } from '@plain-trowel/core/records/seriesReader';
import { ofGarden, type Db } from './db.ts';
import type { ReadingsByChannel } from './putReadings.ts';
import { dayStore } from './recordStore.ts';

/** What a page holds that may not be on disk: the document, and what waits to be written. */
export type PageState = {
  readonly garden: Garden;
  readonly waiting: { readonly readings: ReadingsByChannel; readonly events: readonly GardenEvent[] };
};

/** What could not be read, and so is not in a file. */
export type LeftOut = { readonly days: number; readonly events: number; readonly photos: number };

/** Reads channels from their beginning to their end, a month at a time; says how far it is, and counts the days that cannot be read. */
export class WholeRecord {
  private readonly damaged = new Set<number>();
  private done = 0;
  private all: number | null = null;

  /** @param db null when storage cannot be read: then there is what the page has */
  constructor(
    private readonly db: Db | null,
    private readonly page: PageState,
    private readonly onProgress?: (doneFrac: number) => void,
  ) {}

  /** How many days so far hold something that cannot be read, of whichever channel. */
  get damagedDays(): number {
    return this.damaged.size;
  }

  /** The readings of a channel, what waits to be written last. @param withBeside also those that stand beside recorded ones */
  async *stretches(channelId: string, withBeside: boolean): AsyncGenerator<Series> {
    const waiting = this.page.waiting.readings.get(channelId) ?? [];
    // Some of it may be written while this reads: each reading is told once.
    const fromMs = waiting.reduce((least, { timeMs }) => Math.min(least, timeMs), Infinity);
    const told = new Set<string>();
    if (this.db)
      for await (const stretch of this.stored(this.db, channelId, withBeside)) {
        yield stretch;
        for (let at = stretch.raw.length - 1; (stretch.timesMs[at] ?? -Infinity) >= fromMs; at -= 1)
          told.add(nameOf(stretch.timesMs[at] ?? 0, stretch.raw[at] ?? 0));
      }
    const untold = waiting.filter(({ timeMs, raw }) => !told.has(nameOf(timeMs, raw)));
    if (untold.length > 0) yield seriesOfReadings(untold);
  }

  private async *stored(db: Db, channelId: string, withBeside: boolean): AsyncGenerator<Series> {
    const gardenId = this.page.garden.id;
    const all = (this.all ??= await db.count('blocks', ofGarden(gardenId)));
    const reader = new SeriesReader(dayStore(() => Promise.resolve(db), gardenId));
    for await (const month of reader.chunks({ channelId, fromMs: -Infinity, toMs: Infinity, withBeside })) {
      yield month;
      for (const dayMs of month.damagedDays) this.damaged.add(dayMs);
      this.done += daysIn(month) + month.damagedDays.length;
      this.onProgress?.(Math.min(1, this.done / Math.max(1, all)));
    }
  }
}

const nameOf = (timeMs: number, raw: number): string => `${timeMs} ${raw}`;

function daysIn({ timesMs }: Series): number {
  let [days, lastMs] = [0, Number.NaN];
  for (const ms of timesMs)
    if (dayOf(ms) !== lastMs) {
      days += 1;
      lastMs = dayOf(ms);
    }
  return days;
}
