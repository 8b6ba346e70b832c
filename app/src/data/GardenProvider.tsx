import { broughtIn, tanksLost } from '@plain-trowel/core/garden/bind/contradictions';
import { broughtText } from '../words/contradictionText.ts';
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useMemo, useRef, type ReactNode } from 'react';
import { change as changeHistory } from '@plain-trowel/core/garden/document/history';
import { noteRefusal } from '../ui/refusals.ts';
import { showToast } from '../ui/toasts.ts';
import { refusedText } from '../words/gardenFaultText.ts';
import { storageText } from '../words/storageText.ts';
import { named } from './eventIds.ts';
import { keepSafe } from './firstReal.ts';
import { GardenContext, type GardenChange, type GardenTools } from './gardenContext.ts';
import {
  ConflictError,
  RefusedError,
  saveGarden,
  type LoadedGarden,
  type StoredGarden,
} from './gardenStore.ts';
import type { Db } from './db.ts';
import { gardenQuery, gardensQuery } from './queries.ts';
import { counted } from './pendingSaves.ts';
import { hearOtherTabs, recordsWritten, type Written } from './records.ts';
import { importRecords, removeRecords, stepBack, stepForward } from './recordsImport.ts';
import { database } from './services.ts';
import { reportStorage } from './storageHealth.ts';
import { problemOf } from './storageProblem.ts';

const CHANNEL = 'plain-trowel-garden-saved';

/** Tells the other tabs of this browser about a save, and hears of theirs, where the browser lets tabs speak to each other. */
function useOtherTabs(gardenId: string) {
  const client = useQueryClient();
  const channel = useRef<BroadcastChannel | null>(null);
  useEffect(() => {
    if (typeof BroadcastChannel === 'undefined') return;
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
  useEffect(() => hearOtherTabs(client), [client]);
  const latest = useRef(stored);
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  useEffect(() => {
    latest.current = stored;
  }, [stored]);

  /** Runs one save after those before it; null when it failed, which has been told then. */
  const save = useCallback(
    <T,>(
      work: (db: Db, now: StoredGarden) => Promise<{ readonly stored: StoredGarden; readonly result: T }>,
    ): Promise<T | null> => {
      const turn = queue.current.then(async () => {
        try {
          const { stored: next, result } = await work(await database(), latest.current);
          reportStorage({ problem: null });
          if (next === latest.current) return result;
          latest.current = next;
          const found: LoadedGarden = { kind: 'found', stored: next };
          client.setQueryData(gardenQuery(id).queryKey, found);
          void client.invalidateQueries({ queryKey: gardensQuery().queryKey });
          tell();
          return result;
        } catch (error) {
          if (error instanceof ConflictError)
            await client.refetchQueries({ queryKey: gardenQuery(id).queryKey });
          else if (!(error instanceof RefusedError)) reportStorage({ problem: problemOf(error) });
          noteRefusal();
          showToast({ tone: 'problem', text: failureText(error) });
          return null;
        }
      });
      queue.current = turn;
      return counted(turn);
    },
    [client, id, tell],
  );

  const tools = useMemo<GardenTools>(() => {
    const recordsChanged = (written: Written) => recordsWritten(client, id, written);
    const step = async (go: typeof stepBack) => {
      const moved = await save(async (db, now) => {
        const next = await go(db, now);
        return { stored: next, result: next !== now };
      });
      if (moved) recordsChanged(null);
      return moved ?? false;
    };
    const undo = () => step(stepBack);
    const redo = () => step(stepForward);
    const offerUndo = (text: string) =>
      showToast({ tone: 'done', text, action: { label: 'Undo', run: () => void undo() } });
    const commit = async (label: string, change: GardenChange, toast?: string) => {
      const saved = await save(async (db, now) => {
        const { garden, events = [] } = change(now.history.present);
        const before = now.history.present;
        const history = changeHistory(now.history, garden, label);
        if (history === now.history)
          return { stored: now, result: { saved: false, events: 0, brought: null } };
        const next = await saveGarden(db, history, now.revision, named(events, 'person'));
        const brought = broughtText(broughtIn(before, garden), tanksLost(before, garden));
        return { stored: next, result: { saved: true, events: events.length, brought } };
      });
      if (saved && saved.events > 0) recordsChanged({ days: new Map(), events: true });
      if (saved?.saved && toast !== undefined) offerUndo(toast);
      // Kept, so that nothing typed is lost; what it means for the water is told at once, on whatever sheet it was.
      if (saved?.brought != null) showToast({ tone: 'problem', text: saved.brought });
      return saved?.saved ?? false;
    };
    const takeIn: GardenTools['takeIn'] = async (label, of) => {
      const outcome = await save(async (db, now) => {
        const taken = await importRecords(db, now, label, { garden: now.history.present, ...of });
        return { stored: taken.stored, result: taken.outcome };
      });
      if (outcome) {
        recordsChanged(null);
        void keepSafe(client, id, of.readings);
      }
      return outcome;
    };
    const takeOut: GardenTools['takeOut'] = async (label, of) => {
      const removed = await save(async (db, now) => {
        const taken = await removeRecords(db, now, label, of);
        return { stored: taken.stored, result: taken.removed };
      });
      if (removed !== null) recordsChanged(null);
      return removed;
    };
    const putBack = async () =>
      (await save(async (db, now) => ({
        stored: await saveGarden(db, now.history, null),
        result: true,
      }))) ?? false;
    return {
      garden: stored.history.present,
      history: stored.history,
      commit,
      takeIn,
      takeOut,
      undo,
      redo,
      putBack,
    };
  }, [save, stored, client, id]);

  return <GardenContext value={tools}>{children}</GardenContext>;
}

function failureText(error: unknown): string {
  if (error instanceof ConflictError)
    return 'Another tab has changed this garden. Its version is shown here now; make your change again.';
  if (error instanceof RefusedError) return refusedText(error.faults);
  return `The change was not saved. ${storageText(problemOf(error))}`;
}
