/** The browser's own storage. Only this folder knows it. */
import { openDB, type DBSchema, type IDBPDatabase, type IDBPTransaction, type StoreNames } from 'idb';
import type { DayBlock } from '@plain-trowel/core/records/series';

/** Kept as unknown: everything read back passes a schema before it is believed. */
type GardenRecord = { readonly id: string; readonly revision: number; readonly doc: unknown };

export type BlockRecord = DayBlock & { readonly gardenId: string };

interface Schema extends DBSchema {
  gardens: { key: string; value: GardenRecord };
  /** Undo and redo of each garden: { past, future } of whole documents. */
  histories: { key: string; value: { id: string; past: unknown; future: unknown } };
  blocks: { key: [string, string, number]; value: BlockRecord };
  events: {
    key: number;
    value: { gardenId: string; atMs: number; event: unknown };
    indexes: { 'by-garden-time': [string, number] };
  };
  /** What the stand-in boards of a garden remember, and which link was open last. */
  links: { key: string; value: { id: string; world: unknown; openAtStart: boolean; alerts?: unknown } };
}

export type Db = IDBPDatabase<Schema>;

const VERSION = 1;

export function openDb(name = 'plain-trowel'): Promise<Db> {
  return openDB<Schema>(name, VERSION, {
    upgrade(db, oldVersion) {
      if (oldVersion < 1) {
        db.createObjectStore('gardens', { keyPath: 'id' });
        db.createObjectStore('histories', { keyPath: 'id' });
        db.createObjectStore('blocks', { keyPath: ['gardenId', 'channelId', 'dayMs'] });
        db.createObjectStore('events', { autoIncrement: true }).createIndex('by-garden-time', [
          'gardenId',
          'atMs',
        ]);
        db.createObjectStore('links', { keyPath: 'id' });
      }
    },
    // Another tab wants a newer layout: step aside, or it would wait for ever.
    blocking: (_current, _blocked, event) => (event.target as IDBDatabase).close(),
  });
}

/** All the days of one channel. */
export const daysOfChannel = (gardenId: string, channelId: string, fromMs = -Infinity, toMs = Infinity) =>
  IDBKeyRange.bound([gardenId, channelId, fromMs], [gardenId, channelId, toMs]);

/** Runs the work of one transaction to its end; whatever goes wrong on the way, nothing of it stays. */
export async function allOrNothing<Names extends StoreNames<Schema>[]>(
  tx: IDBPTransaction<Schema, Names, 'readwrite'>,
  work: () => Promise<void>,
): Promise<void> {
  try {
    await work();
    await tx.done;
  } catch (error) {
    const ended = tx.done.catch(() => undefined);
    try {
      tx.abort();
    } catch {
      // It has ended by itself.
    }
    await ended;
    throw error;
  }
}
