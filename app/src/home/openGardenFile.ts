import type { QueryClient } from '@tanstack/react-query';
import { readGardenFile } from '@plain-trowel/core/garden/gardenFile';
import { importGarden } from '../data/importGarden.ts';
import { gardenQuery, gardensQuery } from '../data/queries.ts';
import { database } from '../data/services.ts';
import { sheetPath } from '../frame/stations.ts';
import { showToast } from '../ui/toasts.ts';
import { gardenFileText } from '../words/issueText.ts';

const MOST_BYTES = 50e6;

/** Opens a garden file: all of it, or a sentence that names what is wrong. @param goTo opens an address of the app */
export async function openGardenFile(
  file: File,
  client: QueryClient,
  goTo: (path: string) => Promise<void>,
): Promise<void> {
  const problem = (text: string) => showToast({ tone: 'problem', text });
  if (file.size > MOST_BYTES) {
    problem(
      `${file.name} is ${(file.size / 1e6).toFixed(0)} MB; a garden is far smaller. The garden is as it was. Choose a garden.json that was exported here.`,
    );
    return;
  }
  const read = readGardenFile(await file.text());
  if (!read.ok) {
    problem(`${file.name}: ${gardenFileText(read.issue)}`);
    return;
  }
  try {
    const outcome = await importGarden(await database(), read.value);
    await client.invalidateQueries({ queryKey: gardenQuery(read.value.id).queryKey });
    void client.invalidateQueries({ queryKey: gardensQuery().queryKey });
    await goTo(sheetPath(read.value.id, 'bench', 'readout', null));
    showToast({
      tone: 'done',
      text:
        outcome === 'new'
          ? `${read.value.name} was opened.`
          : `${read.value.name} now stands as in the file. Undo brings back what was there.`,
    });
  } catch {
    problem(
      'The browser could not save the garden, so nothing was changed. Free some disk space and open the file again.',
    );
  }
}
