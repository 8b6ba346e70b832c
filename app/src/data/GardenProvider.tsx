import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useRef, type ReactNode } from 'react';
import {
  change as changeHistory,
  redo as redoHistory,
  undo as undoHistory,
  type History,
} from '@plain-trowel/core/garden/history';
import type { Garden } from '@plain-trowel/core/garden/schema';
import type { GardenEvent } from '@plain-trowel/core/records/event';
import { showToast } from '../ui/toasts.ts';
import { GardenContext, type GardenChange, type GardenTools } from './gardenContext.ts';
import { ConflictError, saveGarden, type LoadedGarden, type StoredGarden } from './gardenStore.ts';
import { gardenQuery, gardensQuery, recordsKey } from './queries.ts';
import { database } from './services.ts';

const CHANNEL = 'plain-trowel-garden-saved';

/** Tells the other tabs of this browser about a save, and hears of theirs. */
function useOtherTabs(gardenId: string) {
  const client = useQueryClient();
  const channel = useRef<BroadcastChannel | null>(null);
  useEffect(() => {
    const opened = new BroadcastChannel(CHANNEL);
    channel.current = opened;
    opened.onmessage = (message) => {
      if (message.data === gardenId)
        void client.invalidateQueries({ queryKey: gardenQuery(gardenId).queryKey });
    };
    return () => opened.close();
  }, [client, gardenId]);
  return useCallback(() => channel.current?.postMessage(gardenId), [gardenId]);
}

/** Everything below it works on one garden; changes are saved one after the other before they are shown. */
export function GardenProvider({ stored, children }: { stored: StoredGarden; children: ReactNode }) {
  const client = useQueryClient();
  const { id } = stored.history.present;
  const tell = useOtherTabs(id);
  const latest = useRef(stored);
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  useEffect(() => {
    latest.current = stored;
  }, [stored]);

  const save = useCallback(
    (next: (history: History<Garden>) => History<Garden>, eventsOf: () => readonly GardenEvent[]) => {
      const work = queue.current.then(async () => {
        const history = next(latest.current.history);
        if (history === latest.current.history) return false;
        try {
          latest.current = await saveGarden(await database(), history, latest.current.revision, eventsOf());
          const found: LoadedGarden = { kind: 'found', stored: latest.current };
          client.setQueryData(gardenQuery(id).queryKey, found);
          void client.invalidateQueries({ queryKey: gardensQuery().queryKey });
          if (eventsOf().length > 0) void client.invalidateQueries({ queryKey: recordsKey(id) });
          tell();
          return true;
        } catch (error) {
          const isConflict = error instanceof ConflictError;
          if (isConflict) await client.refetchQueries({ queryKey: gardenQuery(id).queryKey });
          showToast({
            tone: 'problem',
            text: isConflict
              ? 'Another tab has changed this garden. What stands there now is shown here; make your change again.'
              : 'The browser could not save this change, so it was not made. Free some disk space and try again.',
          });
          return false;
        }
      });
      queue.current = work;
      return work;
    },
    [client, id, tell],
  );

  const tools = useMemo<GardenTools>(() => {
    const undo = () => save(undoHistory, () => []);
    const redo = () => save(redoHistory, () => []);
    const commit = async (label: string, change: GardenChange, toast?: string) => {
      let events: readonly GardenEvent[] = [];
      const saved = await save(
        (history) => {
          const changed = change(history.present);
          events = changed.events ?? [];
          return changeHistory(history, changed.garden, label);
        },
        () => events,
      );
      if (saved && toast !== undefined)
        showToast({ tone: 'done', text: toast, action: { label: 'Undo', run: () => void undo() } });
      return saved;
    };
    return { garden: stored.history.present, history: stored.history, commit, undo, redo };
  }, [save, stored]);

  return <GardenContext value={tools}>{children}</GardenContext>;
}
