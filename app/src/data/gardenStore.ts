/** Gardens in storage: the document, its undo history, and what belongs to a change, saved together or not at all. */
import { z } from '@plain-trowel/core/quantity/schema';
import { admitGarden } from '@plain-trowel/core/garden/admit';
import type { Fault } from '@plain-trowel/core/garden/faults';
import { readGarden, type GardenFileIssue } from '@plain-trowel/core/garden/gardenFile';
import { importsOf, newHistory, type Change, type History } from '@plain-trowel/core/garden/history';
import { gardenSchema, type Garden } from '@plain-trowel/core/garden/schema';
import { allOrNothing, ofGarden, writeTo, type Db, type StoreName, type WriteTx } from './db.ts';
import type { GardenEvent } from '@plain-trowel/core/records/event';
import { putEvents } from './recordStore.ts';
import { StorageError } from './storageProblem.ts';

export type StoredGarden = { readonly history: History<Garden>; readonly revision: number };

/** A document saved earlier that still opens. */
type GoodCopy = { readonly garden: Garden; readonly revision: number; readonly atMs: number };

export type LoadedGarden =
  | { readonly kind: 'found'; readonly stored: StoredGarden }
  | { readonly kind: 'missing' }
  | {
      readonly kind: 'damaged';
      readonly issue: GardenFileIssue;
      readonly doc: unknown;
      readonly revision: number;
      readonly lastGood: GoodCopy | null;
    };

const changesSchema = z.array(
  z.object({ label: z.string(), before: gardenSchema, imported: z.string().exactOptional() }),
);

export async function loadGarden(db: Db, id: string): Promise<LoadedGarden> {
  const tx = db.transaction(['gardens', 'histories', 'copies']);
  const [record, steps, copies] = await Promise.all([
    tx.objectStore('gardens').get(id),
    tx.objectStore('histories').get(id),
    tx.objectStore('copies').getAll(ofGarden(id)),
  ]);
  await tx.done;
  if (!record) return { kind: 'missing' };
  const read = readGarden(record.doc);
  const revision = Number.isInteger(record.revision) ? record.revision : 0;
  if (!read.ok)
    return {
      kind: 'damaged',
      issue: read.issue,
      doc: record.doc,
      revision,
      lastGood: lastGood(id, copies, steps?.past),
    };
  return {
    kind: 'found',
    stored: {
      revision,
      history: {
        ...newHistory(read.value),
        past: readChanges(steps?.past),
        future: readChanges(steps?.future),
      },
    },
  };
}

/** The newest document saved before that can still be read: from the copies, else from the undo steps. */
function lastGood(
  id: string,
  copies: readonly { readonly revision: number; readonly atMs: number; readonly doc: unknown }[],
  past: unknown,
): GoodCopy | null {
  for (const { doc, revision, atMs } of [...copies].sort((a, b) => b.revision - a.revision)) {
    const read = readGarden(doc);
    if (read.ok && read.value.id === id) return { garden: read.value, revision, atMs };
  }
  const steps = Array.isArray(past) ? (past as unknown[]).toReversed() : [];
  for (const step of steps) {
    const before = typeof step === 'object' && step !== null && 'before' in step ? step.before : null;
    const read = readGarden(before);
    if (read.ok && read.value.id === id) return { garden: read.value, revision: 0, atMs: 0 };
  }
  return null;
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

/** Thrown for a document that could not be opened again: nothing of it was written. */
export class RefusedError extends Error {
  override readonly name = 'RefusedError';
  constructor(readonly faults: readonly Fault[]) {
    super(faults[0]?.field);
  }
}

/** The gate before every write of a document. @throws RefusedError */
export function admitted(garden: Garden): Garden {
  const read = admitGarden(garden);
  if (!read.ok) throw new RefusedError(read.issue);
  return garden;
}

/** The documents of the last saves that are kept beside the garden. */
const COPIES = 3;

/** What writing a garden needs. */
export const GARDEN_STORES = ['gardens', 'histories', 'copies', 'imports', 'events'] as const;

/** Writes a document that has passed the gate, its steps and a copy, inside a running transaction. */
export async function putGarden(tx: WriteTx, history: History<Garden>, revision: number): Promise<void> {
  const { id } = history.present;
  await tx.objectStore('gardens').put({ id, revision, doc: history.present });
  await tx.objectStore('histories').put({ id, past: history.past, future: history.future });
  await tx
    .objectStore('copies')
    .put({ gardenId: id, slot: revision % COPIES, revision, atMs: Date.now(), doc: history.present });
  await dropForgottenImports(tx, id, importsOf(history));
}

/** What was imported by steps that can no longer be undone needs no second copy. */
async function dropForgottenImports(tx: WriteTx, id: string, remembered: ReadonlySet<string>): Promise<void> {
  for (const key of await tx.objectStore('imports').getAllKeys(ofGarden(id)))
    if (!remembered.has(key[1])) await tx.objectStore('imports').delete(key);
}

/**
 * Saves a garden with its history and the events of the change, in one transaction that is on disk before it reports back.
 * @param revision the revision this change was made from; null for a garden not stored before
 * @throws RefusedError when the document could not be opened again, ConflictError when another tab was faster, StorageError "gone" when the garden is not
 *   in storage any more
 */
export async function saveGarden(
  db: Db,
  history: History<Garden>,
  revision: number | null,
  events: readonly GardenEvent[] = [],
): Promise<StoredGarden> {
  return saveGardenWith(db, history, revision, [], async (tx) => {
    await putEvents(tx, history.present.id, events);
  });
}

/** The same with more work in the one transaction. @param stores what that work needs beside the garden's own */
export async function saveGardenWith(
  db: Db,
  history: History<Garden>,
  revision: number | null,
  stores: readonly StoreName[],
  work: (tx: WriteTx) => Promise<unknown>,
): Promise<StoredGarden> {
  const { id } = admitted(history.present);
  const tx = writeTo(db, ...GARDEN_STORES, ...stores);
  const next = (revision ?? 0) + 1;
  await allOrNothing(tx, async () => {
    const stored = await tx.objectStore('gardens').get(id);
    if (!stored && revision !== null) throw new StorageError('gone');
    if ((stored?.revision ?? null) !== revision) throw new ConflictError(id);
    await putGarden(tx, history, next);
    await work(tx);
  });
  return { history, revision: next };
}

/** Removes a garden with everything that belongs to it. */
export async function deleteGarden(db: Db, id: string): Promise<void> {
  const tx = writeTo(db, ...GARDEN_STORES, 'blocks', 'links', 'aside', 'keeping');
  await allOrNothing(tx, async () => {
    for (const store of ['gardens', 'histories', 'links', 'keeping'] as const)
      await tx.objectStore(store).delete(id);
    for (const store of ['copies', 'blocks', 'imports'] as const)
      await tx.objectStore(store).delete(ofGarden(id));
    for (const key of await tx.objectStore('events').index('by-garden-time').getAllKeys(ofGarden(id)))
      await tx.objectStore('events').delete(key);
    for (const key of await tx.objectStore('aside').index('by-garden').getAllKeys(id))
      await tx.objectStore('aside').delete(key);
  });
}
