/**
 * A backup: the whole garden as one zip of open formats.
 *
 *     about.json            {"format":"plain-trowel-backup","version":1,"madeAt":"…","app":"Plain Trowel"}
 *     garden.json           the document
 *     events.ndjson         what happened, one event a line
 *     readings/<channel>.csv  the readings of a channel, as the readings CSV has them
 *     photos/<id>.jpg       pictures that events name; may be missing
 *     boards.json           what the stand-in boards remember, and which alerts are raised; may be missing
 *
 * Undo steps are not in it.
 */
import { isoOf } from '../../quantity/moment.ts';
import { z } from '../../quantity/schema.ts';

const FORMAT = 'plain-trowel-backup';
export const BACKUP_VERSION = 1;

export const BACKUP_FILES = {
  about: 'about.json',
  garden: 'garden.json',
  events: 'events.ndjson',
  boards: 'boards.json',
} as const;

const readingsName = /^readings\/([a-z0-9][a-z0-9-]{0,39})\.csv$/;
export const readingsFileOf = (channelId: string): string => `readings/${channelId}.csv`;
/** The channel that a file of a backup belongs to; null for every other name. */
export const channelOfFile = (name: string): string | null => readingsName.exec(name)?.[1] ?? null;

const photoName = /^photos\/([a-z0-9]{8,40})\.jpg$/;
export const photoFileOf = (photoId: string): string => `photos/${photoId}.jpg`;
/** The photo that a file of a backup is; null for every other name. */
export const photoOfFile = (name: string): string | null => photoName.exec(name)?.[1] ?? null;

/** Whether a name in a zip is one that a backup has; whatever else a zip holds is passed over. */
export const isBackupFile = (name: string): boolean =>
  (Object.values(BACKUP_FILES) as string[]).includes(name) ||
  channelOfFile(name) !== null ||
  photoOfFile(name) !== null;

const about = z.object({
  format: z.literal(FORMAT),
  version: z.int().min(1),
  madeAt: z.iso.datetime({ offset: true }),
});

export const backupAbout = (nowMs: number): string =>
  `${JSON.stringify(
    {
      format: FORMAT,
      version: BACKUP_VERSION,
      madeAt: isoOf(nowMs),
      app: 'Plain Trowel',
    },
    null,
    2,
  )}\n`;

/** The version that a backup says it has; null when it does not say that it is one. Cannot throw. */
export function backupVersion(aboutText: string): number | null {
  try {
    const read = about.safeParse(JSON.parse(aboutText));
    return read.success ? read.data.version : null;
  } catch {
    return null;
  }
}
