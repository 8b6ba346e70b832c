/** How safe a garden is in this browser: whether the browser has promised to keep it, and how old its last backup is. */
import type { Db } from './db.ts';

export type Keeping = {
  /** When the garden last left as a backup, ms since 1970; null: never. */
  readonly backupAtMs: number | null;
  /** When the first reading of a real probe was kept; null: none yet. */
  readonly firstRealAtMs: number | null;
  /** Where backups go, if a folder was chosen; null: they are downloaded. */
  readonly folder: FileSystemDirectoryHandle | null;
};

const isTime = (value: unknown): value is number => typeof value === 'number' && Number.isFinite(value);

const isFolder = (value: unknown): value is FileSystemDirectoryHandle =>
  typeof FileSystemDirectoryHandle !== 'undefined' && value instanceof FileSystemDirectoryHandle;

export async function readKeeping(db: Db, gardenId: string): Promise<Keeping> {
  const record = await db.get('keeping', gardenId);
  return {
    backupAtMs: isTime(record?.backupAtMs) ? record.backupAtMs : null,
    firstRealAtMs: isTime(record?.firstRealAtMs) ? record.firstRealAtMs : null,
    folder: isFolder(record?.folder) ? record.folder : null,
  };
}

async function change(db: Db, gardenId: string, to: Partial<Keeping>): Promise<void> {
  await db.put('keeping', { id: gardenId, ...(await readKeeping(db, gardenId)), ...to });
}

export const noteBackup = (db: Db, gardenId: string, atMs: number): Promise<void> =>
  change(db, gardenId, { backupAtMs: atMs });

export const noteFolder = (
  db: Db,
  gardenId: string,
  folder: FileSystemDirectoryHandle | null,
): Promise<void> => change(db, gardenId, { folder });

/** Notes the first reading of a real probe, once. @returns whether this was the first */
export async function noteFirstReal(db: Db, gardenId: string, atMs: number): Promise<boolean> {
  const { firstRealAtMs } = await readKeeping(db, gardenId);
  if (firstRealAtMs !== null) return false;
  await change(db, gardenId, { firstRealAtMs: atMs });
  return true;
}

/** What the browser says of this site's storage; unknown where it cannot be asked. */
export type Persistence = 'granted' | 'not-granted' | 'unknown';

export async function readPersistence(): Promise<Persistence> {
  if (!('storage' in navigator) || typeof navigator.storage.persisted !== 'function') return 'unknown';
  try {
    return (await navigator.storage.persisted()) ? 'granted' : 'not-granted';
  } catch {
    return 'unknown';
  }
}

/** Asks the browser to keep this site's data when the disk runs full. */
export async function askPersistence(): Promise<Persistence> {
  if (!('storage' in navigator) || typeof navigator.storage.persist !== 'function') return 'unknown';
  try {
    return (await navigator.storage.persist()) ? 'granted' : 'not-granted';
  } catch {
    return 'unknown';
  }
}

const DAY_MS = 86_400_000;
/** A garden with real readings wants a backup so often. */
const BACKUP_EVERY_DAYS = 14;

/** Whether it is time for a backup: real readings are there, and none of them, or none for two weeks, has left the browser. */
export function backupIsDue(
  { backupAtMs, firstRealAtMs }: Pick<Keeping, 'backupAtMs' | 'firstRealAtMs'>,
  nowMs: number,
): boolean {
  if (firstRealAtMs === null) return false;
  return nowMs - (backupAtMs ?? firstRealAtMs) >= BACKUP_EVERY_DAYS * DAY_MS;
}

/** Whole days that have passed since a time; null for never. */
export const daysSince = (atMs: number | null, nowMs: number): number | null =>
  atMs === null ? null : Math.max(0, Math.floor((nowMs - atMs) / DAY_MS));
