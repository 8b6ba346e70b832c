/** The embedded store that the mailbox lies in: one file that survives a crash at any moment, and its named tables. */
import { randomUUID } from 'node:crypto';
import { mkdirSync, statfsSync } from 'node:fs';
import { open, type Database, type RootDatabase } from 'lmdb';
import { Commits } from './commits.ts';
import type { BootState } from './replay.ts';

/** A number for each garden: what the next entry gets, and how much room all of them take. */
export type GardenState = {
  readonly next: number;
  readonly bytes: number;
  /** Since when it has been said that entries nobody has fetched will go; null: none will. */
  readonly warnedMs: number | null;
  /** Numbers known to be missing: what could not be read of a damaged store that this one was made from. */
  readonly gaps: number;
};

export const NEW_GARDEN: GardenState = { next: 1, bytes: 0, warnedMs: null, gaps: 0 };

/** How far an app has fetched a garden's entries. */
export type Cursor = { readonly n: number; readonly name: string; readonly seenMs: number };

export type Store = {
  readonly folder: string;
  /** Another for every store, so that nobody takes the numbers of one for those of another. */
  readonly id: string;
  readonly root: RootDatabase;
  readonly commits: Commits;
  /** Garden and number → record. */
  readonly log: Database<string, [string, number]>;
  /** Garden, board, boot, run and the board's own number → number of the entry. */
  readonly had: Database<number, [string, string, number, number, number]>;
  readonly boots: Database<BootState, [string, string, number]>;
  readonly gardens: Database<GardenState, string>;
  readonly cursors: Database<Cursor, [string, string]>;
  /** Everything else that the gateway keeps, as text by kind and name. */
  readonly kept: Database<string, [string, string]>;
};

const ID: [string, string] = ['store', 'id'];

/** Opens the store, and makes it where there is none. @throws what the store throws when its file is none */
export function openStore(folder: string): Store {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const root = open({ path: folder, noSubdir: false, maxDbs: 8, overlappingSync: false, encoding: 'json' });
  const kept = root.openDB<string, [string, string]>({ name: 'kept', encoding: 'string' });
  const id = kept.get(ID) ?? randomUUID();
  if (kept.get(ID) === undefined) kept.putSync(ID, id);
  return {
    folder,
    id,
    root,
    commits: new Commits((actions) => root.transactionSync(actions)),
    log: root.openDB({ name: 'log', encoding: 'string' }),
    had: root.openDB({ name: 'had', encoding: 'json' }),
    boots: root.openDB({ name: 'boots', encoding: 'json' }),
    gardens: root.openDB({ name: 'gardens', encoding: 'json' }),
    cursors: root.openDB({ name: 'cursors', encoding: 'json' }),
    kept,
  };
}

/** Numbers of the operating system for a disk, a quota or a file that is full. */
const FULL: ReadonlySet<unknown> = new Set([28, 122, 27]);
/** With less than this a write that came out too short was one for which there was no room, bytes. */
const NEXT_TO_NOTHING = 4_000_000;

/** Whether a commit failed for want of room. */
export function isNoRoom(error: unknown, folder: string): boolean {
  const { code, message } = error as { readonly code?: unknown; readonly message?: unknown };
  if (FULL.has(code) || /MAP_FULL/.test(String(message))) return true;
  return code === TOO_SHORT && freeBytes(folder) < NEXT_TO_NOTHING;
}
const TOO_SHORT = 5;

/** Room that is left on the disk that a folder lies on, bytes. */
export function freeBytes(folder: string): number {
  const { bavail, bsize } = statfsSync(folder);
  return bavail * bsize;
}
