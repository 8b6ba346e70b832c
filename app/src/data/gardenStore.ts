/** Gardens in storage: the document, its undo history, and the events that belong to a change, saved together or not at all. */
import { z } from '@plain-trowel/core/quantity/schema';
import { readGarden, type GardenFileIssue } from '@plain-trowel/core/garden/gardenFile';
import { newHistory, type Change, type History } from '@plain-trowel/core/garden/history';
import { gardenSchema, type Garden } from '@plain-trowel/core/garden/schema';
import type { GardenEvent } from '@plain-trowel/core/records/event';
import { allOrNothing, type Db } from './db.ts';

export type StoredGarden = { readonly history: History<Garden>; readonly revision: number };

export type LoadedGarden =
  | { readonly kind: 'found'; readonly stored: StoredGarden }
  | { readonly kind: 'missing' }
  | { readonly kind: 'damaged'; readonly issue: GardenFileIssue; readonly doc: unknown };

const changesSchema = z.array(z.object({ label: z.string(), before: gardenSchema }));

export async function loadGarden(db: Db, id: string): Promise<LoadedGarden> {
  const tx = db.transaction(['gardens', 'histories']);
  const [record, steps] = await Promise.all([
    tx.objectStore('gardens').get(id),
    tx.objectStore('histories').get(id),
  ]);
  await tx.done;
  if (!record) return { kind: 'missing' };
  const read = readGarden(record.doc);
  if (!read.ok) return { kind: 'damaged', issue: read.issue, doc: record.doc };
  return {
    kind: 'found',
    stored: {
      revision: record.revision,
      history: {
        ...newHistory(read.value),
        past: readChanges(steps?.past),
        future: readChanges(steps?.future),
      },
    },
  };
}

/** Steps that no longer fit are forgotten: losing an undo step is better than losing the garden. */
function readChanges(stored: unknown): Change<Garden>[] {
  const read = changesSchema.safeParse(stored ?? []);
  return read.success ? read.data : [];
}

export type GardenSummary = {
  readonly id: string;
  readonly name: string;
  readonly note: string;
  readonly plots: number;
};

/** The gardens kept in this browser, by name; one that can no longer be read is listed under its id. */
export async function listGardens(db: Db): Promise<GardenSummary[]> {
  const records = await db.getAll('gardens');
  return records
    .map((record) => {
      const read = readGarden(record.doc);
      return read.ok
        ? { id: record.id, name: read.value.name, note: read.value.note, plots: read.value.plots.length }
        : { id: record.id, name: record.id, note: 'cannot be read', plots: 0 };
    })
    .sort((a, b) => a.name.localeCompare(b.name));
}

/** Thrown when another tab has saved the garden since it was loaded here. */
export class ConflictError extends Error {
  override readonly name = 'ConflictError';
}

/**
 * Saves a garden with its history and the events of the change, in one transaction that is on disk before it reports back.
 * @param revision the revision this change was made from; null for a garden not stored before
 */
export async function saveGarden(
  db: Db,
  history: History<Garden>,
  revision: number | null,
  events: readonly GardenEvent[] = [],
): Promise<StoredGarden> {
  const { id } = history.present;
  const tx = db.transaction(['gardens', 'histories', 'events'], 'readwrite', { durability: 'strict' });
  const next = (revision ?? 0) + 1;
  await allOrNothing(tx, async () => {
    const stored = await tx.objectStore('gardens').get(id);
    if ((stored?.revision ?? null) !== revision) throw new ConflictError(id);
    await tx.objectStore('gardens').put({ id, revision: next, doc: history.present });
    await tx.objectStore('histories').put({ id, past: history.past, future: history.future });
    for (const event of events) await tx.objectStore('events').add({ gardenId: id, atMs: event.atMs, event });
  });
  return { history, revision: next };
}

/** Removes a garden with everything that belongs to it. */
export async function deleteGarden(db: Db, id: string): Promise<void> {
  const tx = db.transaction(['gardens', 'histories', 'blocks', 'events', 'links'], 'readwrite');
  void tx.objectStore('gardens').delete(id);
  void tx.objectStore('histories').delete(id);
  void tx.objectStore('links').delete(id);
  void tx.objectStore('blocks').delete(IDBKeyRange.bound([id], [id, []]));
  const keys = await tx
    .objectStore('events')
    .index('by-garden-time')
    .getAllKeys(IDBKeyRange.bound([id], [id, []]));
  for (const key of keys) void tx.objectStore('events').delete(key);
  await tx.done;
}
