/** What this page reads of a garden's record, and how everyone hears that some of it was written: this page's queries, its reader, other tabs. */
import type { QueryClient } from '@tanstack/react-query';
import { z } from '@plain-trowel/core/quantity/schema';
import { DAY_MS } from '@plain-trowel/core/records/series';
import { SeriesReader } from '@plain-trowel/core/records/seriesReader';
import { dayStore } from './recordStore.ts';
import { database } from './services.ts';

/** Which part of a record a query shows: the third word of its key. */
type RecordsPart =
  | { readonly of: 'latest'; readonly channelIds: readonly string[] }
  | { readonly of: 'extent'; readonly channelId: string }
  | {
      readonly of: 'series' | 'shown';
      readonly channelId: string;
      readonly fromMs: number;
      readonly toMs: number;
      readonly withBeside?: boolean;
    }
  | {
      readonly of: 'season';
      readonly channelIds: readonly string[];
      readonly fromMs: number;
      readonly toMs: number;
    }
  | { readonly of: 'events' | 'water'; readonly fromMs: number; readonly toMs: number }
  /** How much there is of it. */
  | { readonly of: 'use' }
  | { readonly of: 'aside' };

export const recordsPart = (gardenId: string, part: RecordsPart) => ['records', gardenId, part] as const;

const CHANNEL = 'plain-trowel-records-written';

/** Readings that stay in memory, some 13 bytes each: eleven channels for two weeks at two a minute. */
const MOST_ROWS = 450_000;

const writtenSchema = z.object({
  /** Days by channel, midnights UTC, ms. */
  days: z.map(z.string(), z.array(z.number())),
  events: z.boolean(),
});

/** What was written to a record; null where it may be anything. */
export type Written = z.infer<typeof writtenSchema> | null;

const messageSchema = z.object({ gardenId: z.string(), written: writtenSchema.nullable() });

/** Where tabs cannot tell each other what they write, nothing may stay in memory. */
const tabs = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel(CHANNEL);

let open: { readonly gardenId: string; readonly reader: SeriesReader } | null = null;

/** The reader of a garden; the one of the garden asked for last stays. */
export function readerOf(gardenId: string): SeriesReader {
  if (open?.gardenId !== gardenId)
    open = { gardenId, reader: new SeriesReader(dayStore(database, gardenId), tabs ? MOST_ROWS : 0) };
  return open.reader;
}

/** Tells this page and the other tabs that a garden's record was written. */
export function recordsWritten(client: QueryClient, gardenId: string, written: Written): void {
  takeNote(client, gardenId, written);
  tabs?.postMessage({ gardenId, written });
}

/** Hears what other tabs write, from now on: what stayed in memory from before is not believed any more. @returns how to stop */
export function hearOtherTabs(client: QueryClient): () => void {
  open?.reader.forget();
  const hear = ({ data }: MessageEvent<unknown>) => {
    const read = messageSchema.safeParse(data);
    if (read.success) takeNote(client, read.data.gardenId, read.data.written);
  };
  tabs?.addEventListener('message', hear);
  return () => tabs?.removeEventListener('message', hear);
}

function takeNote(client: QueryClient, gardenId: string, written: Written): void {
  if (open?.gardenId === gardenId) {
    if (written) for (const [channelId, days] of written.days) open.reader.written(channelId, days);
    else open.reader.forget();
  }
  void client.invalidateQueries({
    queryKey: ['records', gardenId],
    predicate: ({ queryKey }) => written === null || touches(written, queryKey[2] as RecordsPart),
  });
}

/** Whether what was written can show in a part of the record. */
function touches({ days, events }: NonNullable<Written>, part: RecordsPart): boolean {
  switch (part.of) {
    case 'events':
    case 'water':
      return events;
    case 'use':
    case 'latest':
      return days.size > 0;
    case 'extent':
      return days.has(part.channelId);
    case 'series':
    case 'shown':
      return isWithin(days.get(part.channelId), part);
    case 'season':
      return part.channelIds.some((id) => isWithin(days.get(id), part));
    case 'aside':
      return true;
  }
}

/** Whether one of some days has something of a span. */
const isWithin = (
  days: readonly number[] | undefined,
  { fromMs, toMs }: { readonly fromMs: number; readonly toMs: number },
): boolean => (days ?? []).some((dayMs) => dayMs <= toMs && dayMs + DAY_MS > fromMs);
