import { useState } from 'react';
import { freshName } from '../../../data/eventIds.ts';
import { useGarden } from '../../../data/gardenContext.ts';
import { dropPhoto, keepPhoto } from '../../../data/photos.ts';
import { database } from '../../../data/services.ts';
import { showToast } from '../../../ui/toasts.ts';
import { runJob } from '../../../workers/files.ts';

/** Makes a picture small in a worker and keeps it; null where it is none, which is told. */
export function usePhoto() {
  const { garden } = useGarden();
  const [busy, setBusy] = useState(false);
  const take = async (file: File): Promise<string | null> => {
    setBusy(true);
    try {
      const bytes = await runJob(async (jobs) => jobs.shrinkPhoto(file)).result;
      if (!bytes) {
        showToast({
          tone: 'problem',
          text: `${file.name} is no picture that this browser can read. Nothing was kept; choose a JPEG or PNG.`,
        });
        return null;
      }
      const id = freshName();
      await keepPhoto(await database(), garden.id, id, bytes);
      return id;
    } catch {
      showToast({
        tone: 'problem',
        text: 'The photo could not be kept: the browser’s storage may be full. Nothing else was changed.',
      });
      return null;
    } finally {
      setBusy(false);
    }
  };
  const drop = async (id: string) => {
    // What cannot be taken out now is in no backup either, for no entry names it.
    await dropPhoto(await database(), garden.id, id).catch(() => undefined);
  };
  return { busy, take, drop };
}
