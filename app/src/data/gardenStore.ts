/** Gardens in storage: the document, its undo history, and what belongs to a change, saved together or not at all. */
import { admitGarden } from '@plain-trowel/core/garden/bind/admit';
import type { Fault } from '@plain-trowel/core/garden/document/faults';
import { readGarden, type GardenFileIssue } from '@plain-trowel/core/garden/document/gardenFile';
import { importsOf, type History } from '@plain-trowel/core/garden/document/history';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import {
  documentsBehind,
  readHistory,
  storedHistory,
} from '@plain-trowel/core/garden/document/storedHistory';
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
      lastGood: lastGood(id, copies, documentsBehind(steps, record.doc)),
    };
  return {
    kind: 'found',
    stored: {
      revision,
      history: { present: read.value, ...readHistory(steps, record.doc, read.value) },
    },
  };
}

/** The newest document saved before that can still be read: from the copies, else from the undo steps. */
function lastGood(
  id: string,
  copies: readonly { readonly revision: number; readonly atMs: number; readonly doc: unknown }[],
  behind: readonly unknown[],
): GoodCopy | null {
  for (const { doc, revision, atMs } of [...copies].sort((a, b) => b.revision - a.revision)) {
    const read = readGarden(doc);
    if (read.ok && read.value.id === id) return { garden: read.value, revision, atMs };
  }
  for (const before of behind) {
    const read = readGarden(before);
    if (read.ok && read.value.id === id) return { garden: read.value, revision: 0, atMs: 0 };
  }
  return null;
}

export type GardenSummary = {
  readonly id: string;
  readonly name: string;
  readonly note: string;
  readonly plots: number;
};

/** The gardens kept in this browser, by name; one that can no longer be read is listed under its id. Documents are read only where no summary of theirs is kept. */
export async function listGardens(db: Db): Promise<GardenSummary[]> {
  const tx = db.transaction(['gardens', 'summaries']);
  const [ids, kept] = await Promise.all([
    tx.objectStore('gardens').getAllKeys(),
    tx.objectStore('summaries').getAll(),
  ]);
  const byId = new Map(kept.map((one) => [one.id, one]));
  const all = await Promise.all(
    ids.map(async (id) => byId.get(id) ?? summaryOf(id, await db.get('gardens', id))),
  );
  return all.sort((a, b) => a.name.localeCompare(b.name));
}

function summaryOf(id: string, record: { readonly doc: unknown } | undefined): GardenSummary {
  const read = readGarden(record?.doc);
  return read.ok ? summed(read.value) : { id, name: id, note: 'cannot be read', plots: 0 };
}

const summed = ({ id, name, note, plots }: Garden): GardenSummary => ({
  id,
  name,
  note,
  plots: plots.length,
});

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
export const GARDEN_STORES = ['gardens', 'summaries', 'histories', 'copies', 'imports', 'events'] as const;

/** Writes a document that has passed the gate, its steps and a copy, inside a running transaction. */
export async function putGarden(tx: WriteTx, history: History<Garden>, revision: number): Promise<void> {
  const { id } = history.present;
  await tx.objectStore('gardens').put({ id, revision, doc: history.present });
  await tx.objectStore('summaries').put(summed(history.present));
  await tx.objectStore('histories').put({ id, ...storedHistory(history) });
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
  const tx = writeTo(db, ...GARDEN_STORES, 'blocks', 'thins', 'photos', 'links', 'aside', 'keeping');
  await allOrNothing(tx, async () => {
    for (const store of ['gardens', 'summaries', 'histories', 'links', 'keeping'] as const)
      await tx.objectStore(store).delete(id);
    for (const store of ['copies', 'blocks', 'thins', 'photos', 'imports'] as const)
      await tx.objectStore(store).delete(ofGarden(id));
    for (const key of await tx.objectStore('events').index('by-garden-time').getAllKeys(ofGarden(id)))
      await tx.objectStore('events').delete(key);
    for (const key of await tx.objectStore('aside').index('by-garden').getAllKeys(id))
      await tx.objectStore('aside').delete(key);
  });
}
