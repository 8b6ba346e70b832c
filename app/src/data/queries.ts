import { queryOptions } from '@tanstack/react-query';
import { listGardens, loadGarden } from './gardenStore.ts';
import { readKeeping, readPersistence } from './keeping.ts';
import { loadLink } from './linkStore.ts';
import { readerOf, recordsPart } from './records.ts';
import { latestReadings, readAside, readEvents, readWater } from './recordStore.ts';
import { database } from './services.ts';

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
