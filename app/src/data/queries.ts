import { queryOptions } from '@tanstack/react-query';
import { readAside } from './aside.ts';
import { listGardens, loadGarden } from './gardenStore.ts';
import { readKeeping, readPersistence } from './keeping.ts';
import { loadLink } from './linkStore.ts';
import { readerOf, recordsPart } from './records.ts';
import type { SeasonChannel, SeasonRead } from './readSeason.ts';
import { latestReadings, readEvents, readWater, readWaterDays, recordExtent } from './recordStore.ts';
import { database } from './services.ts';
import { runJob } from '../workers/files.ts';
import { withoutBeside, type Series } from '@plain-trowel/core/records/series';
import type { Stretch } from '@plain-trowel/core/records/stretch';

export const gardensQuery = () =>
  queryOptions({ queryKey: ['gardens'], queryFn: async () => listGardens(await database()) });

export const gardenQuery = (id: string) =>
  queryOptions({ queryKey: ['garden', id], queryFn: async () => loadGarden(await database(), id) });

export const linkQuery = (id: string) =>
  queryOptions({ queryKey: ['link', id], queryFn: async () => loadLink(await database(), id), gcTime: 0 });

export const latestQuery = (gardenId: string, channelIds: readonly string[]) =>
  queryOptions({
    queryKey: recordsPart(gardenId, { of: 'latest', channelIds }),
    queryFn: async () => latestReadings(await database(), gardenId, channelIds),
  });

export const extentQuery = (gardenId: string, channelId: string) =>
  queryOptions({
    queryKey: recordsPart(gardenId, { of: 'extent', channelId }),
    queryFn: async () => recordExtent(await database(), gardenId, channelId),
  });

/** @param withBeside also the readings that stand beside recorded ones */
export const seriesQuery = (
  gardenId: string,
  channelId: string,
  fromMs: number,
  toMs: number,
  withBeside = false,
) =>
  queryOptions({
    queryKey: recordsPart(gardenId, { of: 'series', channelId, fromMs, toMs, withBeside }),
    queryFn: () => readerOf(gardenId).read({ channelId, fromMs, toMs, withBeside }),
    // Long columns of numbers are not compared one by one.
    structuralSharing: false,
    placeholderData: (previous) => previous,
    gcTime: 10_000,
  });

/** Longer spans are drawn from what each hour of them keeps. */
const LONG_MS = 35 * 86_400_000;

/** What a sheet shows of a span, however long it is. */
export type ShownRecord = {
  /** Without readings that stand beside others. */
  readonly series: Series;
  readonly readings: number;
  /** Null: told from the distances of the series itself. */
  readonly isGap: ((at: number) => boolean) | null;
  /** With every reading, also those beside others; null for a long span, of which single readings are not held. */
  readonly all: Series | null;
  readonly damagedDays: readonly number[];
};

export const shownQuery = (gardenId: string, channelId: string, fromMs: number, toMs: number) =>
  queryOptions({
    queryKey: recordsPart(gardenId, { of: 'shown', channelId, fromMs, toMs }),
    queryFn: async (): Promise<ShownRecord> => {
      if (toMs - fromMs > LONG_MS) {
        const { readings, isGap, damagedDays, ...series } = await readerOf(gardenId).thin({
          channelId,
          fromMs,
          toMs,
        });
        return { series, readings, isGap, all: null, damagedDays };
      }
      const { damagedDays, ...all } = await readerOf(gardenId).read({
        channelId,
        fromMs,
        toMs,
        withBeside: true,
      });
      const series = withoutBeside(all);
      return { series, readings: series.raw.length, isGap: null, all, damagedDays };
    },
    structuralSharing: false,
    placeholderData: (previous) => previous,
    gcTime: 10_000,
  });

/** Days of channels from all of their readings, made in a worker: years of them take seconds. */
export const seasonQuery = (
  gardenId: string,
  channels: readonly SeasonChannel[],
  { fromMs, toMs }: Stretch,
  timeZone: string,
) =>
  queryOptions({
    queryKey: [
      ...recordsPart(gardenId, {
        of: 'season',
        channelIds: channels.map((one) => one.channelId),
        fromMs,
        toMs,
      }),
      channels,
      timeZone,
    ],
    queryFn: ({ signal }): Promise<ReadonlyMap<string, SeasonRead>> => {
      const job = runJob((jobs) => jobs.readSeason(gardenId, channels, { fromMs, toMs }, timeZone));
      signal.addEventListener('abort', job.cancel);
      return job.result.then((read) => read ?? new Map<string, SeasonRead>());
    },
    // Maps are not compared field by field.
    structuralSharing: false,
    gcTime: 60_000,
  });

export const eventsQuery = (gardenId: string, fromMs: number, toMs: number) =>
  queryOptions({
    queryKey: recordsPart(gardenId, { of: 'events', fromMs, toMs }),
    queryFn: async () => readEvents(await database(), gardenId, fromMs, toMs),
    placeholderData: (previous) => previous,
    gcTime: 10_000,
  });

export const waterQuery = (gardenId: string, fromMs: number, toMs: number) =>
  queryOptions({
    queryKey: recordsPart(gardenId, { of: 'water', fromMs, toMs }),
    queryFn: async () => readWater(await database(), gardenId, fromMs, toMs),
    // A class with private maps is not compared field by field.
    structuralSharing: false,
    placeholderData: (previous) => previous,
    gcTime: 10_000,
  });

export const waterDaysQuery = (gardenId: string, fromMs: number, toMs: number, timeZone: string) =>
  queryOptions({
    queryKey: [...recordsPart(gardenId, { of: 'water', fromMs, toMs }), timeZone],
    queryFn: async () => readWaterDays(await database(), gardenId, fromMs, toMs, timeZone),
    structuralSharing: false,
    placeholderData: (previous) => previous,
    gcTime: 10_000,
  });

/** How safe a garden is in this browser. */
export const keepingQuery = (gardenId: string) =>
  queryOptions({
    queryKey: ['keeping', gardenId],
    queryFn: async () => ({
      ...(await readKeeping(await database(), gardenId)),
      persistence: await readPersistence(),
    }),
  });

/** What could not be read and was kept aside. */
export const asideQuery = (gardenId: string) =>
  queryOptions({
    queryKey: recordsPart(gardenId, { of: 'aside' }),
    queryFn: async () => readAside(await database(), gardenId),
  });
