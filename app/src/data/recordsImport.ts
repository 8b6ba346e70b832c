/** Readings and events from a file: first looked at, then taken in as one step that can be undone and redone. What is recorded never changes. */
import { change, redo, undo, type History } from '@plain-trowel/core/garden/document/history';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { OLD_ID } from '@plain-trowel/core/records/eventsFile';
import { contentOf, readEvent, type EventDraft, type GardenEvent } from '@plain-trowel/core/records/event';
import {
  mergeDay,
  splitDay,
  withoutReadings,
  type Clash,
  type OnClash,
} from '@plain-trowel/core/records/mergeDay';
import { dayOf, incomingDays, readingsOfDay, type Incoming } from '@plain-trowel/core/records/series';
import { packDay, readDay } from '@plain-trowel/core/records/packDay';
import { DAY_STORES, dropDay, putDay } from './days.ts';
import { daysOfChannel, type Db, type WriteTx } from './db.ts';
import { freshName, named } from './eventIds.ts';
import { saveGardenWith, type StoredGarden } from './gardenStore.ts';
import { putPhotos, type Photos } from './photos.ts';
import { putReadings, type PutOutcome } from './putReadings.ts';
import { oldId, putEvents } from './recordStore.ts';

/** What a file would bring, before anything is written. */
export type ImportPreview = {
  readonly fresh: number;
  readonly same: number;
  /** Readings that meet recorded ones with other values. */
  readonly clashes: number;
  readonly firstClashes: readonly Clash[];
  /** Readings that meet others of the same file with other values. */
  readonly inside: number;
  readonly firstInside: readonly Clash[];
  readonly freshEvents: readonly GardenEvent[];
  readonly sameEvents: number;
};

const SHOWN = 8;

/** Compares a file with the record. @param onProgress called with the share done, 0..1 */
export async function previewImport(
  db: Db,
  gardenId: string,
  readings: Incoming,
  events: readonly GardenEvent[] = [],
  onProgress?: (doneFrac: number) => void,
): Promise<ImportPreview> {
  let [fresh, same, clashes, inside] = [0, 0, 0, 0];
  const [firstClashes, firstInside]: [Clash[], Clash[]] = [[], []];
  const parts = readings instanceof Map ? readings.size : (readings as readonly unknown[]).length;
  let done = 0;
  let last: unknown = null;
  let channel = '';
  let held: ReadonlySet<number> = new Set();
  for (const { channelId, dayMs, block, readings: day } of incomingDays(readings)) {
    if (channelId !== channel) {
      channel = channelId;
      held = new Set(
        (await db.getAllKeys('blocks', daysOfChannel(gardenId, channelId))).map((key) => key[2]),
      );
    }
    const stored: unknown = held.has(dayMs)
      ? await db.get('blocks', [gardenId, channelId, dayMs])
      : undefined;
    if (stored === undefined && block) fresh += block.raw.length;
    else {
      // The file against itself first: only what it says once can be held against the record.
      const own = mergeDay(null, channelId, dayMs, day(), 'keep');
      inside += own.clashes.length;
      firstInside.push(...own.clashes.slice(0, SHOWN - firstInside.length));
      const sound = readDay(stored);
      const merged = mergeDay(sound, channelId, dayMs, readingsOfDay(own.block), 'keep');
      fresh += merged.added.length;
      same += merged.same + own.same;
      clashes += merged.clashes.length;
      firstClashes.push(...merged.clashes.slice(0, SHOWN - firstClashes.length));
    }
    const part = readings instanceof Map ? channelId : dayMs;
    if (part !== last) onProgress?.(Math.min(1, (done += 1) / parts));
    last = part;
  }
  const freshEvents = await unknownEvents(db, gardenId, events);
  return {
    fresh,
    same,
    clashes,
    firstClashes,
    inside,
    firstInside,
    freshEvents,
    sameEvents: events.length - freshEvents.length,
  };
}

/** The events that are not recorded yet. They are known by name and by all that they say; where a name is of the first versions or another's here, by what they say alone. */
async function unknownEvents(
  db: Db,
  gardenId: string,
  events: readonly GardenEvent[],
): Promise<readonly GardenEvent[]> {
  if (events.length === 0) return [];
  const byId = new Map<string, string>();
  const contents = new Map<string, number>();
  let cursor = await db
    .transaction('events')
    .store.index('by-garden-time')
    .openCursor(IDBKeyRange.bound([gardenId], [gardenId, []]));
  while (cursor) {
    const event =
      cursor.value.undone === true ? null : readEvent(cursor.value.event, oldId(cursor.primaryKey));
    if (event) {
      const content = contentOf(event);
      byId.set(event.id, content);
      contents.set(content, (contents.get(content) ?? 0) + 1);
    }
    cursor = await cursor.continue();
  }
  return events.filter((event) => {
    const content = contentOf(event);
    const isOld = event.id.startsWith(OLD_ID);
    const held = byId.get(event.id);
    if (!isOld && held === content) return false;
    if (!isOld && held === undefined) return true;
    const left = contents.get(content) ?? 0;
    if (left > 0) contents.set(content, left - 1);
    return left === 0;
  });
}

export type RecordsImport = {
  readonly readings: Incoming;
  /** Events to add; those that are recorded already are left out by the preview. */
  readonly events: readonly GardenEvent[];
  /** Pictures that the events name; they stay when the step is undone. */
  readonly photos?: Photos;
  readonly onClash: OnClash;
  /** The document as it is to stand afterwards; the garden's own when only records come in. */
  readonly garden: Garden;
  /** The file, for the log. */
  readonly what: string;
  readonly nowMs: number;
};

/** Takes a file in: one step of the history, all or nothing. */
export async function importRecords(
  db: Db,
  stored: StoredGarden,
  label: string,
  of: RecordsImport,
): Promise<{ readonly stored: StoredGarden; readonly outcome: PutOutcome }> {
  const importId = freshName();
  const gardenId = of.garden.id;
  const history = change(stored.history, of.garden, label, importId);
  const outcomes: PutOutcome[] = [];
  const stores = [...DAY_STORES, 'aside', 'photos'] as const;
  const saved = await saveGardenWith(db, history, stored.revision, stores, async (tx) => {
    await putPhotos(tx, gardenId, of.photos ?? new Map());
    const put = await putReadings(tx, gardenId, of.readings, of.onClash, (added) =>
      tx.objectStore('imports').put({ gardenId, importId, ...added }),
    );
    outcomes.push(put);
    const { added, beside } = put;
    const told: EventDraft = {
      kind: 'imported',
      atMs: of.nowMs,
      plotId: null,
      simulated: false,
      what: of.what.slice(0, 200),
      readings: added,
      beside,
    };
    await putEvents(tx, gardenId, [...of.events, ...named([told], 'person')], importId);
  });
  const [outcome] = outcomes;
  if (!outcome) throw new Error('importRecords: the transaction ended without its work');
  return { stored: saved, outcome };
}

/** Begins the name of a step that took readings out. */
const REMOVAL = 'removed ';

export type RecordsRemoval = {
  readonly channelIds: readonly string[];
  /** Both ends are included, ms since 1970. */
  readonly fromMs: number;
  readonly toMs: number;
  /** Whose and of when, for the log. */
  readonly what: string;
  readonly nowMs: number;
};

/** How many readings of channels lie in a span. */
export async function countReadings(
  db: Db,
  gardenId: string,
  { channelIds, fromMs, toMs }: Pick<RecordsRemoval, 'channelIds' | 'fromMs' | 'toMs'>,
): Promise<number> {
  let count = 0;
  for (const channelId of channelIds)
    for (const day of await db.getAll('blocks', daysOfChannel(gardenId, channelId, dayOf(fromMs), toMs))) {
      const block = readDay(day);
      count += block ? (splitDay(block, fromMs, toMs).inside?.raw.length ?? 0) : 0;
    }
  return count;
}

/** Takes a span of readings out of the record on purpose: one step of the history, which puts every one of them back when it is undone. A day that cannot be read stays. */
export async function removeRecords(
  db: Db,
  stored: StoredGarden,
  label: string,
  of: RecordsRemoval,
): Promise<{ readonly stored: StoredGarden; readonly removed: number }> {
  const importId = `${REMOVAL}${freshName()}`;
  const garden = stored.history.present;
  let removed = 0;
  const history = change(stored.history, garden, label, importId);
  const saved = await saveGardenWith(db, history, stored.revision, [...DAY_STORES, 'aside'], async (tx) => {
    for (const channelId of of.channelIds) {
      const range = daysOfChannel(garden.id, channelId, dayOf(of.fromMs), of.toMs);
      for (const day of await tx.objectStore('blocks').getAll(range)) {
        const block = readDay(day);
        const { inside, outside } = block ? splitDay(block, of.fromMs, of.toMs) : NOTHING;
        if (!inside) continue;
        removed += inside.raw.length;
        await tx.objectStore('imports').put({ gardenId: garden.id, importId, ...packDay(inside) });
        if (outside) await putDay(tx, garden.id, outside);
        else await dropDay(tx, garden.id, channelId, inside.dayMs);
      }
    }
    const told: EventDraft = {
      kind: 'removed',
      atMs: of.nowMs,
      plotId: null,
      simulated: false,
      what: of.what.slice(0, 200),
      readings: removed,
    };
    await putEvents(tx, garden.id, named([told], 'person'), importId);
  });
  return { stored: saved, removed };
}

const NOTHING = { inside: null, outside: null } as const;

/** One step back, or forward again; what was imported or deleted with it goes out of the record, or comes back. */
export async function stepBack(db: Db, stored: StoredGarden): Promise<StoredGarden> {
  const step = stored.history.past.at(-1);
  return step ? saveStep(db, undo(stored.history), stored.revision, step.imported, true) : stored;
}

export async function stepForward(db: Db, stored: StoredGarden): Promise<StoredGarden> {
  const step = stored.history.future.at(-1);
  return step ? saveStep(db, redo(stored.history), stored.revision, step.imported, false) : stored;
}

const saveStep = (
  db: Db,
  history: History<Garden>,
  revision: number,
  imported: string | undefined,
  isUndone: boolean,
): Promise<StoredGarden> =>
  saveGardenWith(db, history, revision, [...DAY_STORES, 'aside'], async (tx) => {
    if (imported === undefined) return;
    const gardenId = history.present.id;
    // To undo a removal is to put back, to undo an import is to take out.
    if (imported.startsWith(REMOVAL) === isUndone) await putBack(tx, gardenId, imported);
    else await takeOut(tx, gardenId, imported);
    await markEvents(tx, gardenId, imported, isUndone);
  });

const daysOfImport = (gardenId: string, importId: string) =>
  IDBKeyRange.bound([gardenId, importId], [gardenId, importId, []]);

async function takeOut(tx: WriteTx, gardenId: string, importId: string): Promise<void> {
  for (const day of await tx.objectStore('imports').getAll(daysOfImport(gardenId, importId))) {
    const given = readDay(day);
    const stored = readDay(await tx.objectStore('blocks').get([gardenId, day.channelId, day.dayMs]));
    if (!given || !stored) continue;
    const left = withoutReadings(stored, readingsOfDay(given));
    if (left) await putDay(tx, gardenId, left);
    else await dropDay(tx, gardenId, day.channelId, day.dayMs);
  }
}

async function putBack(tx: WriteTx, gardenId: string, importId: string): Promise<void> {
  const days = await tx.objectStore('imports').getAll(daysOfImport(gardenId, importId));
  await putReadings(
    tx,
    gardenId,
    days.flatMap((day) => readDay(day) ?? []),
    'beside',
  );
}

async function markEvents(tx: WriteTx, gardenId: string, importId: string, undone: boolean): Promise<void> {
  const index = tx.objectStore('events').index('by-import');
  let cursor = await index.openCursor(IDBKeyRange.bound([gardenId, importId], [gardenId, importId]));
  while (cursor) {
    await cursor.update({ ...cursor.value, undone });
    cursor = await cursor.continue();
  }
}
