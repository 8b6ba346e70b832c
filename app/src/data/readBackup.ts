import { strFromU8, unzipSync } from 'fflate';
import {
  BACKUP_FILES,
  BACKUP_VERSION,
  backupVersion,
  channelOfFile,
  isBackupFile,
  photoOfFile,
} from '@plain-trowel/core/garden/document/backup';
import {
  parseGardenText,
  readGarden,
  type GardenFileIssue,
} from '@plain-trowel/core/garden/document/gardenFile';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { fail, ok, type Result } from '@plain-trowel/core/quantity/result';
import type { GardenEvent } from '@plain-trowel/core/records/event';
import { readEventsFile } from '@plain-trowel/core/records/eventsFile';
import { readReadingsCsv, type CsvIssue } from '@plain-trowel/core/records/readingsCsv';
import { isPhoto } from '@plain-trowel/core/records/photo';
import type { Photos } from './photos.ts';
import type { DayBlock } from '@plain-trowel/core/records/series';

export type Backup = {
  readonly garden: Garden;
  readonly readings: readonly DayBlock[];
  readonly events: readonly GardenEvent[];
  readonly photos: Photos;
  /** Pictures that are none. */
  readonly skippedPhotos: number;
  /** Lines of the events that could not be read. */
  readonly skippedEvents: number;
  /** The text of what the boards remember; null when it is not in it. */
  readonly boards: string | null;
};

export type BackupIssue =
  | { readonly kind: 'not-a-zip' }
  | { readonly kind: 'not-a-backup' }
  | { readonly kind: 'newer'; readonly version: number }
  | { readonly kind: 'too-large' }
  | { readonly kind: 'garden'; readonly issue: GardenFileIssue; readonly doc: unknown }
  | { readonly kind: 'readings'; readonly file: string; readonly issue: CsvIssue };

/** Unpacked, a backup holds at most this; a zip that claims more is not unpacked at all. */
const MOST_BYTES = 2e9;

/** Reads a backup: all of it, or what is wrong with it. Cannot throw. @param onProgress called with the share done, 0..1 */
export function readBackup(
  bytes: Uint8Array,
  onProgress?: (doneFrac: number) => void,
): Result<Backup, BackupIssue> {
  const sizes = new Map<string, number>();
  const unpack = (wanted: (name: string) => boolean): Record<string, Uint8Array> =>
    unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        if (isBackupFile(name)) sizes.set(name, originalSize);
        return wanted(name);
      },
    });
  try {
    unpack(() => false);
  } catch {
    return fail({ kind: 'not-a-zip' });
  }
  const total = [...sizes.values()].reduce((sum, one) => sum + one, 0);
  if (total > MOST_BYTES) return fail({ kind: 'too-large' });
  const bytesOf = (file: string): Uint8Array | null => {
    if (!sizes.has(file)) return null;
    try {
      return unpack((name) => name === file)[file] ?? null;
    } catch {
      return null;
    }
  };
  const textOf = (file: string): string | null => {
    const held = bytesOf(file);
    return held && strFromU8(held);
  };
  const version = backupVersion(textOf(BACKUP_FILES.about) ?? '');
  if (version === null) return fail({ kind: 'not-a-backup' });
  if (version > BACKUP_VERSION) return fail({ kind: 'newer', version });
  const parsed = parseGardenText(textOf(BACKUP_FILES.garden) ?? '');
  const garden = parsed.ok ? readGarden(parsed.value) : parsed;
  if (!garden.ok) return fail({ kind: 'garden', issue: garden.issue, doc: parsed.ok ? parsed.value : null });
  const readings: DayBlock[] = [];
  const files = [...sizes.keys()].filter((name) => channelOfFile(name) !== null);
  for (const [at, name] of files.entries()) {
    onProgress?.(at / files.length);
    const channelId = channelOfFile(name) ?? '';
    const text = textOf(name);
    if (text === null) return fail({ kind: 'readings', file: name, issue: { kind: 'binary' } });
    // No flag is added: a backup brings back the record itself, and only what was taken from a file before says so.
    const read = readReadingsCsv(text, [{ id: channelId, plot: '', probe: '' }], undefined, 0);
    if (read.ok) for (const day of read.value) readings.push(day);
    else if (read.issue.kind !== 'no-rows') return fail({ kind: 'readings', file: name, issue: read.issue });
  }
  const photos = new Map<string, Uint8Array<ArrayBuffer>>();
  let skippedPhotos = 0;
  for (const name of sizes.keys()) {
    const id = photoOfFile(name);
    if (id === null) continue;
    const held = bytesOf(name);
    const bytes = held && new Uint8Array(held);
    if (isPhoto(bytes)) photos.set(id, bytes);
    else skippedPhotos += 1;
  }
  const { events, skipped } = readEventsFile(textOf(BACKUP_FILES.events) ?? '');
  onProgress?.(1);
  return ok({
    garden: garden.value,
    readings,
    events,
    photos,
    skippedPhotos,
    skippedEvents: skipped,
    boards: textOf(BACKUP_FILES.boards),
  });
}

/** Whether a file's first bytes are those of a zip. */
export const isZip = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b;
