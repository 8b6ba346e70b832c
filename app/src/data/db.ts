/** The browser's own storage. Only this folder knows it. */
import { openDB, type DBSchema, type IDBPDatabase, type IDBPTransaction, type StoreNames } from 'idb';
import type { PackedDay } from '@plain-trowel/core/records/packDay';
import type { DayBlock } from '@plain-trowel/core/records/series';
import type { StoredThin } from '@plain-trowel/core/records/thinDay';

/** Kept as unknown: everything read back passes a schema before it is believed. */
type GardenRecord = { readonly id: string; readonly revision: number; readonly doc: unknown };

/** One of the last documents that were saved, for the day on which the garden's own record cannot be read. */
type CopyRecord = {
  readonly gardenId: string;
  readonly slot: number;
  readonly revision: number;
  readonly atMs: number;
  readonly doc: unknown;
};

/** Packed, or in the full columns of the first versions: whoever reads it looks. */
type BlockRecord = (DayBlock | PackedDay) & { readonly gardenId: string };

/** What a chart of a season draws of a day. */
type ThinRecord = StoredThin & { readonly gardenId: string };

/** Readings that one import put in: what undoing it takes out again. */
type ImportRecord = BlockRecord & { readonly importId: string };

type EventRecord = {
  readonly gardenId: string;
  readonly atMs: number;
  readonly event: unknown;
  /** The import that it came in with. */
  readonly importId?: string;
  /** That import is undone. */
  readonly undone?: boolean;
};

/** What could not be read and was put out of the way, as it was found. */
export type AsideRecord = {
  readonly gardenId: string;
  readonly what: 'day' | 'stand-in' | 'alerts' | 'garden';
  /** Which one: the channel and day, or empty. */
  readonly name: string;
  readonly atMs: number;
  readonly record: unknown;
};

/** What is known of a garden's safety: when it last left this browser as a backup. */
type KeepingRecord = {
  readonly id: string;
  readonly backupAtMs: number | null;
  readonly firstRealAtMs: number | null;
  /** Where backups go; whoever reads it looks. */
  readonly folder?: unknown;
};

type SummaryRecord = {
  readonly id: string;
  readonly name: string;
  readonly note: string;
  readonly plots: number;
};

interface Schema extends DBSchema {
  gardens: { key: string; value: GardenRecord };
  /** What the list of gardens shows, so that it need not read whole documents. Written in the transaction that writes the document. */
  summaries: { key: string; value: SummaryRecord };
  /** Undo and redo of each garden, as `core/garden/storedHistory` writes them. */
  histories: { key: string; value: { id: string; version?: number; past: unknown; future: unknown } };
  copies: { key: [string, number]; value: CopyRecord };
  blocks: { key: [string, string, number]; value: BlockRecord };
  /** Pictures of the log, JPEG; whoever reads them looks. */
  photos: { key: [string, string]; value: { gardenId: string; id: string; bytes: unknown } };
  thins: { key: [string, string, number]; value: ThinRecord };
  imports: { key: [string, string, string, number]; value: ImportRecord };
  /** Keys are texts that whoever writes has made, so that writing the same event twice keeps one; older records have numbers. */
  events: {
    key: number | string;
    value: EventRecord;
    indexes: { 'by-garden-time': [string, number]; 'by-import': [string, string] };
  };
  /** What the stand-in boards of a garden remember, and which link was open last. */
  links: {
    key: string;
    value: { id: string; world: unknown; openAtStart: boolean; alerts?: unknown; gateway?: unknown };
  };
  aside: { key: number; value: AsideRecord; indexes: { 'by-garden': string } };
  keeping: { key: string; value: KeepingRecord };
}

export type StoreName = StoreNames<Schema>;
export type Db = IDBPDatabase<Schema>;
/** A transaction that writes. Which stores it holds is up to who begins it; the type allows any, so that parts of the work can be shared. */
export type WriteTx = IDBPTransaction<Schema, StoreName[], 'readwrite'>;

/** Begins a transaction that is on disk before it reports back. */
export const writeTo = (db: Db, ...stores: StoreName[]): WriteTx =>
  db.transaction(stores, 'readwrite', { durability: 'strict' });

const VERSION = 5;

/** @param onClosed called when the connection ends without this page's doing: stored data cleared, or a newer page took over */
export function openDb(name = 'plain-trowel', onClosed: () => void = () => undefined): Promise<Db> {
  return openDB<Schema>(name, VERSION, {
    upgrade(db, oldVersion, _newVersion, tx) {
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
      if (oldVersion < 2) {
        db.createObjectStore('copies', { keyPath: ['gardenId', 'slot'] });
        db.createObjectStore('imports', { keyPath: ['gardenId', 'importId', 'channelId', 'dayMs'] });
        db.createObjectStore('aside', { autoIncrement: true }).createIndex('by-garden', 'gardenId');
        db.createObjectStore('keeping', { keyPath: 'id' });
        tx.objectStore('events').createIndex('by-import', ['gardenId', 'importId']);
      }
      if (oldVersion < 3) db.createObjectStore('summaries', { keyPath: 'id' });
      if (oldVersion < 4) {
        db.createObjectStore('thins', { keyPath: ['gardenId', 'channelId', 'dayMs'] });
        db.createObjectStore('photos', { keyPath: ['gardenId', 'id'] });
      }
      // Thinned days of the fourth version mixed what probes and stand-ins read; they are made again from their days.
      if (oldVersion === 4) void tx.objectStore('thins').clear();
    },
    // Another tab wants a newer layout: step aside, or it would wait forever.
    blocking: (_current, _blocked, event) => {
      (event.target as IDBDatabase).close();
      onClosed();
    },
    terminated: onClosed,
  });
}

/** Every key that begins with this garden. */
export const ofGarden = (gardenId: string) => IDBKeyRange.bound([gardenId], [gardenId, []]);

/** All the days of one channel. */
export const daysOfChannel = (gardenId: string, channelId: string, fromMs = -Infinity, toMs = Infinity) =>
  IDBKeyRange.bound([gardenId, channelId, fromMs], [gardenId, channelId, toMs]);

/** Runs the work of one transaction to its end; whatever goes wrong on the way, nothing of it stays. */
export async function allOrNothing<T>(tx: WriteTx, work: () => Promise<T>): Promise<T> {
  try {
    const result = await work();
    await tx.done;
    return result;
  } catch (error) {
    const ended = tx.done.catch((reason: unknown) => reason);
    try {
      tx.abort();
    } catch {
      // It has ended by itself.
    }
    const reason = await ended;
    // A full disk shows only on the transaction; what failed inside it says "aborted" at most.
    throw reason instanceof DOMException && reason.name === 'QuotaExceededError' ? reason : error;
  }
}
