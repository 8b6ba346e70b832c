import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { startBackup } from '../data/backupFile.ts';
import { mayWrite } from '../data/backupFolder.ts';
import { useGarden } from '../data/gardenContext.ts';
import { keepingQuery } from '../data/queries.ts';
import { useLiveTools } from '../links/liveContext.ts';
import { showToast } from '../ui/toasts.ts';
import { countedText } from '../words/countedText.ts';
import { leftOutText } from '../words/storageText.ts';
import type { Job } from '../workers/files.ts';

/** Saves the whole garden as a file. `running` is the share done while a file is being written, else null. */
export function useBackup() {
  const { garden } = useGarden();
  const { session } = useLiveTools();
  const client = useQueryClient();
  const [running, setRunning] = useState<number | null>(null);
  const job = useRef<Job<unknown> | null>(null);
  /** @param folder where it goes; null: it is downloaded */
  const save = async (folder: FileSystemDirectoryHandle | null = null) => {
    if (folder && !(await mayWrite(folder).catch(() => false))) {
      showToast({
        tone: 'problem',
        text: `The browser may not write into “${folder.name}”. Allow it, choose another folder, or save the backup as a download.`,
      });
      return;
    }
    setRunning(0);
    await session.flush();
    const page = { garden, waiting: session.waiting() };
    const started = startBackup(page, Date.now(), setRunning, folder);
    job.current = started;
    try {
      const done = await started.result;
      if (!done) return;
      const held = countedText(done.content);
      const all = held === '' ? 'the garden' : `the garden with ${held}`;
      const leftOut = leftOutText(done.content.leftOut);
      const saved = done.whole
        ? `${folder ? `${done.name} was written into “${folder.name}”. It` : 'The backup'} holds ${all}`
        : `The browser’s storage could not be read: the file holds only what this page has, ${all}`;
      showToast({
        tone: done.whole && leftOut === null ? 'done' : 'problem',
        text: leftOut === null ? `${saved}.` : `${saved}, but ${leftOut}`,
      });
      await client.invalidateQueries({ queryKey: keepingQuery(garden.id).queryKey });
    } catch {
      showToast({
        tone: 'problem',
        text: folder
          ? `The backup could not be written into “${folder.name}”: it may be gone, or full. Nothing was changed; choose another folder, or save it as a download.`
          : 'The backup could not be written. Nothing was changed; try again.',
      });
    } finally {
      setRunning(null);
    }
  };
  return { save, running, cancel: () => job.current?.cancel() };
}

/** When the garden last left this browser as a backup, and what the browser promises. */
export const useKeeping = () => useQuery(keepingQuery(useGarden().garden.id)).data ?? null;
