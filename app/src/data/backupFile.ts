import { isoOf } from '@plain-trowel/core/quantity/moment';
import { runJob, type Job } from '../workers/files.ts';
import { download, fileNameOf } from './download.ts';
import { writeInto } from './backupFolder.ts';
import { noteBackup } from './keeping.ts';
import { database } from './services.ts';
import type { PageState } from './wholeRecord.ts';
import type { BackupContent } from './writeBackup.ts';

/** "the-marigold-hare.2026-05-01.zip" */
const backupName = (name: string, nowMs: number) => `${fileNameOf(name)}.${isoOf(nowMs).slice(0, 10)}.zip`;

/** Writes a backup in a worker, into a folder or as a download. Without storage that can be read it holds what the page has. */
export function startBackup(
  page: PageState,
  nowMs: number,
  onProgress: (doneFrac: number) => void,
  folder: FileSystemDirectoryHandle | null = null,
): Job<{ readonly content: BackupContent; readonly whole: boolean; readonly name: string }> {
  const job = runJob(async (jobs, telling) => {
    const report = telling(onProgress);
    try {
      return { ...(await jobs.writeBackup(page, true, nowMs, report)), whole: true };
    } catch {
      return { ...(await jobs.writeBackup(page, false, nowMs, report)), whole: false };
    }
  });
  const result = job.result.then(async (done) => {
    if (!done) return null;
    const wanted = backupName(page.garden.name, nowMs);
    const name = folder ? await writeInto(folder, wanted, done.zip) : wanted;
    if (!folder) download(name, done.zip, 'application/zip');
    if (done.whole)
      await database()
        .then((db) => noteBackup(db, page.garden.id, nowMs))
        .catch(() => undefined);
    return { content: done.content, whole: done.whole, name };
  });
  return { result, cancel: job.cancel };
}
