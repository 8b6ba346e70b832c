import type { QueryClient } from '@tanstack/react-query';
import { parseGardenText, readGarden } from '@plain-trowel/core/garden/document/gardenFile';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { loadGarden } from '../data/gardenStore.ts';
import { importGarden } from '../data/importGarden.ts';
import { readLinkFile } from '../data/linkStore.ts';
import { storeNewGarden } from '../data/newGarden.ts';
import { gardenQuery, gardensQuery, linkQuery } from '../data/queries.ts';
import { recordsWritten } from '../data/records.ts';
import { isZip, type Backup } from '../data/readBackup.ts';
import { importRecords, previewImport } from '../data/recordsImport.ts';
import { database } from '../data/services.ts';
import { problemOf } from '../data/storageProblem.ts';
import { sheetPath } from '../frame/stations.ts';
import { showToast } from '../ui/toasts.ts';
import { backupText, gardenFileText } from '../words/issueText.ts';
import { storageText } from '../words/storageText.ts';
import { decodeText } from '../workers/decodeText.ts';
import { runJob } from '../workers/files.ts';
import { setOpening } from './openingState.ts';

const MOST_JSON_BYTES = 50e6;
const MOST_ZIP_BYTES = 500e6;

/** What opening needs of the page: its caches, and a way to go somewhere. */
export type OpenTools = { readonly client: QueryClient; readonly goTo: (path: string) => Promise<void> };

const problem = (text: string) => showToast({ tone: 'problem', text });
const tooLarge = (file: File, most: number) =>
  problem(
    `${file.name} is ${formatNumber(file.size / 1e6)} MB; up to ${formatNumber(most / 1e6)} MB can be opened. The garden is as it was.`,
  );

/** Opens a garden.json or a backup: all of it, or a sentence that names what is wrong, and where it can be mended. */
export async function openFile(file: File, tools: OpenTools): Promise<void> {
  const start = new Uint8Array(await file.slice(0, 4).arrayBuffer());
  if (isZip(start)) await openBackup(file, tools);
  else await openGarden(file, tools);
}

async function openGarden(file: File, tools: OpenTools): Promise<void> {
  if (file.size > MOST_JSON_BYTES) {
    tooLarge(file, MOST_JSON_BYTES);
    return;
  }
  const parsed = parseGardenText(decodeText(new Uint8Array(await file.arrayBuffer())).text);
  const read = parsed.ok ? readGarden(parsed.value) : parsed;
  if (read.ok) await keepGarden(read.value, tools);
  else if (read.issue.kind === 'field' && parsed.ok) {
    setOpening({ kind: 'mend', doc: parsed.value, fileName: file.name });
    await tools.goTo('/mend');
  } else problem(`${file.name}: ${gardenFileText(read.issue)}`);
}

/** Takes a document in and shows it; true once it is on disk. */
export async function keepGarden(garden: Garden, tools: OpenTools): Promise<boolean> {
  try {
    const { outcome } = await importGarden(await database(), garden);
    await show(garden, tools);
    showToast({
      tone: 'done',
      text:
        outcome === 'new'
          ? `${garden.name} was opened.`
          : `${garden.name} is now as in the file. Undo brings back what was there.`,
    });
    return true;
  } catch (error) {
    problem(`The garden was not saved, so nothing was changed. ${storageText(problemOf(error))}`);
    return false;
  }
}

async function show({ id }: Garden, { client, goTo }: OpenTools): Promise<void> {
  await client.invalidateQueries({ queryKey: gardenQuery(id).queryKey });
  client.removeQueries({ queryKey: linkQuery(id).queryKey });
  recordsWritten(client, id, null);
  void client.invalidateQueries({ queryKey: gardensQuery().queryKey });
  await goTo(sheetPath(id, 'bench', 'readout', null));
}

async function openBackup(file: File, tools: OpenTools): Promise<void> {
  if (file.size > MOST_ZIP_BYTES) {
    tooLarge(file, MOST_ZIP_BYTES);
    return;
  }
  setOpening({ kind: 'reading', fileName: file.name, done: 0 });
  await tools.goTo('/open');
  const job = runJob(
    async (jobs, telling) =>
      await jobs.readBackup(
        file,
        telling((done) => setOpening({ kind: 'reading', fileName: file.name, done, cancel: job.cancel })),
      ),
  );
  try {
    const read = await job.result;
    if (!read) {
      setOpening({ kind: 'none' });
      await tools.goTo('/');
    } else if (read.ok) await keepBackup(read.value, file.name, tools);
    else if (read.issue.kind === 'garden' && read.issue.issue.kind === 'field') {
      setOpening({ kind: 'mend', doc: read.issue.doc, fileName: file.name });
      await tools.goTo('/mend');
    } else await failed(`${file.name}: ${backupText(read.issue)}`, tools);
  } catch (error) {
    await failed(
      `${file.name} was not imported; nothing of it was kept. ${storageText(problemOf(error))}`,
      tools,
    );
  }
}

async function failed(text: string, tools: OpenTools): Promise<void> {
  setOpening({ kind: 'none' });
  await tools.goTo('/');
  problem(text);
}

/** A backup of a garden that is not here comes in as it is; of one that is here it is first shown what it would change. */
async function keepBackup(backup: Backup, fileName: string, tools: OpenTools): Promise<void> {
  const db = await database();
  const { garden, readings, events } = backup;
  const present = await loadGarden(db, garden.id);
  if (present.kind === 'missing') {
    const link = backup.boards === null ? { world: null, alerts: {} } : readLinkFile(backup.boards);
    await storeNewGarden(db, garden, {
      readings,
      events,
      photos: backup.photos,
      link: { ...link, openAtStart: false },
    });
    setOpening({ kind: 'none' });
    await show(garden, tools);
    const count = readings.reduce((sum, day) => sum + day.raw.length, 0);
    showToast({
      tone: 'done',
      text: `${garden.name} was opened from the backup, with ${formatNumber(count)} readings and ${formatNumber(events.length)} events.${skippedText(backup)}`,
    });
    return;
  }
  const preview = await previewImport(db, garden.id, readings, events);
  const isSame =
    present.kind === 'found' && JSON.stringify(present.stored.history.present) === JSON.stringify(garden);
  setOpening({ kind: 'compare', backup, fileName, preview, isSame, isDamaged: present.kind === 'damaged' });
}

const skippedText = ({ skippedEvents, skippedPhotos }: Backup): string =>
  [
    skippedEvents > 0 ? ` ${formatNumber(skippedEvents)} lines of its events could not be read.` : '',
    skippedPhotos > 0 ? ` ${formatNumber(skippedPhotos)} of its photos could not be read.` : '',
  ].join('');

/** Merges a backup into the garden that is here, as one step. @param takeDocument the document becomes that of the backup */
export async function mergeBackup(
  backup: Backup,
  of: {
    readonly onClash: 'keep' | 'beside';
    readonly takeDocument: boolean;
    readonly fileName: string;
    readonly freshEvents: Backup['events'];
  },
  tools: OpenTools,
): Promise<void> {
  try {
    const db = await database();
    const present = await loadGarden(db, backup.garden.id);
    const stored = present.kind === 'found' ? present.stored : (await importGarden(db, backup.garden)).stored;
    const { outcome } = await importRecords(db, stored, 'open a backup', {
      readings: backup.readings,
      events: of.freshEvents,
      photos: backup.photos,
      onClash: of.onClash,
      garden: of.takeDocument ? backup.garden : stored.history.present,
      what: of.fileName,
      nowMs: Date.now(),
    });
    setOpening({ kind: 'none' });
    await show(backup.garden, tools);
    showToast({
      tone: 'done',
      text: `${formatNumber(outcome.added)} readings and ${formatNumber(of.freshEvents.length)} events were new.${skippedText(backup)} Undo takes them out again.`,
    });
  } catch (error) {
    await failed(
      `The backup was not imported; nothing of it was kept. ${storageText(problemOf(error))}`,
      tools,
    );
  }
}
