import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { startBackup } from '../data/backupFile.ts';
import { useGarden } from '../data/gardenContext.ts';
import { keepingQuery } from '../data/queries.ts';
import { useLiveTools } from '../links/liveContext.ts';
import { showToast } from '../ui/toasts.ts';
import type { Job } from '../workers/files.ts';

/** Saves the whole garden as a file. `running` is the share done while a file is being written, else null. */
export function useBackup() {
  const { garden } = useGarden();
  const { session } = useLiveTools();
  const client = useQueryClient();
  const [running, setRunning] = useState<number | null>(null);
  const job = useRef<Job<unknown> | null>(null);
  const save = async () => {
    setRunning(0);
    await session.flush();
    const started = startBackup({ garden, waiting: session.waiting() }, Date.now(), setRunning);
    job.current = started;
    try {
      const done = await started.result;
      if (!done) return;
      const { readings, events, photos } = done.content;
      const held = `${formatNumber(readings)} ${readings === 1 ? 'reading' : 'readings'} and ${formatNumber(events)} ${events === 1 ? 'event' : 'events'}${photos > 0 ? ` and ${formatNumber(photos)} ${photos === 1 ? 'photo' : 'photos'}` : ''}`;
      showToast({
        tone: done.whole ? 'done' : 'problem',
        text: done.whole
          ? `The backup holds the garden with ${held}.`
          : `The browser’s storage could not be read: the file holds only what this page has, the garden with ${held}.`,
      });
      await client.invalidateQueries({ queryKey: keepingQuery(garden.id).queryKey });
    } catch {
      showToast({
        tone: 'problem',
        text: 'The backup could not be written. Nothing was changed; try again.',
      });
    } finally {
      setRunning(null);
    }
  };
  return { save, running, cancel: () => job.current?.cancel() };
}

/** When the garden last left this browser as a backup, and what the browser promises. */
export const useKeeping = () => useQuery(keepingQuery(useGarden().garden.id)).data ?? null;
