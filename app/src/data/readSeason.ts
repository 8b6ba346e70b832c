import type { Curve } from '@plain-trowel/core/calibration/curve';
import type { BandEdges } from '@plain-trowel/core/quantity/bands';
import { addToSeason, noSeason, type Season } from '@plain-trowel/core/records/seasonDays';
import { SeriesReader } from '@plain-trowel/core/records/seriesReader';
import type { Stretch } from '@plain-trowel/core/records/stretch';
import { zoneClock } from '@plain-trowel/core/records/zoneClock';
import type { Db } from './db.ts';
import { dayStore } from './recordStore.ts';

/** Whose days are asked for, and by what its raw values are a percent. */
export type SeasonChannel = {
  readonly channelId: string;
  readonly curve: Curve;
  readonly edges: BandEdges;
};

/** What is known of the days of a channel; days of storage, UTC midnights, that cannot be read. */
export type SeasonRead = { readonly season: Season; readonly damagedDays: readonly number[] };

/** Every reading of some channels over a long span, a month in memory at a time: by channel. @param span its end is included */
export async function readSeason(
  db: Db,
  gardenId: string,
  channels: readonly SeasonChannel[],
  { fromMs, toMs }: Stretch,
  timeZone: string,
): Promise<ReadonlyMap<string, SeasonRead>> {
  const reader = new SeriesReader(dayStore(() => Promise.resolve(db), gardenId));
  const clock = zoneClock(timeZone);
  const read = new Map<string, SeasonRead>();
  for (const { channelId, curve, edges } of channels) {
    const season = noSeason();
    const damagedDays: number[] = [];
    for await (const month of reader.chunks({ channelId, fromMs, toMs })) {
      addToSeason(season, month, curve, edges, clock);
      damagedDays.push(...month.damagedDays);
    }
    read.set(channelId, { season, damagedDays });
  }
  return read;
}
