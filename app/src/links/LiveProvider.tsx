import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useEffectEvent, useMemo, useRef, useState, type ReactNode } from 'react';
import { FLAGS, type Reading } from '@plain-trowel/core/records/series';
import { useGarden } from '../data/gardenContext.ts';
import { saveLink, type LinkMemory } from '../data/linkStore.ts';
import { askPersistence, noteFirstReal } from '../data/keeping.ts';
import { keepingQuery, latestQuery, recordsKey } from '../data/queries.ts';
import { addRecords } from '../data/recordStore.ts';
import { database } from '../data/services.ts';
import { reportStorage } from '../data/storageHealth.ts';
import { showToast } from '../ui/toasts.ts';
import { firstRealText } from '../words/storageText.ts';
import { GardenLink } from './gardenLink.ts';
import { holdLink } from './linkLock.ts';
import { LiveContext, type LiveTools } from './liveContext.ts';

const clocks = { nowMs: () => Date.now(), tickMs: () => performance.now() };
const isReal = ({ flags }: Reading) => (flags & FLAGS.simulated) === 0;
const NONE: ReadonlyMap<string, Reading> = new Map();

/** Holds the garden's live link for as long as the garden is open. */
export function LiveProvider({ memory, children }: { memory: LinkMemory; children: ReactNode }) {
  const { garden } = useGarden();
  const client = useQueryClient();
  const [link, setLink] = useState<GardenLink | null>(null);
  const gardenId = garden.id;
  const channelIds = garden.channels.map((one) => one.id);
  const asked = useRef(false);
  const stored = useQuery(latestQuery(gardenId, channelIds)).data ?? NONE;

  /** With the first reading of a real probe the browser is asked to keep this site's data. */
  const keepSafe = useEffectEvent(async (hasReal: boolean) => {
    if (!hasReal || asked.current) return;
    asked.current = true;
    if (!(await noteFirstReal(await database(), gardenId, Date.now()))) return;
    const persistence = await askPersistence();
    void client.invalidateQueries({ queryKey: keepingQuery(gardenId).queryKey });
    showToast({ tone: 'done', text: firstRealText(persistence) });
  });

  // Opened once for a garden, with the document and the memory as they are then; later changes are handed on below.
  const open = useEffectEvent((exclusive: boolean) => {
    const opened = new GardenLink(
      garden,
      memory,
      exclusive,
      {
        addRecords: async (readings, events) => {
          const db = await database();
          const outcome = await addRecords(db, gardenId, readings, events);
          void client.invalidateQueries({ queryKey: recordsKey(gardenId) });
          void keepSafe([...readings.values()].flat().some(isReal));
          return outcome;
        },
        saveMemory: async (kept) => saveLink(await database(), gardenId, kept),
        onRecorder: ({ problem, waiting }) => reportStorage({ problem, waiting }),
      },
      clocks,
    );
    setLink(opened);
    return opened;
  });
  useEffect(() => {
    const hold = holdLink(gardenId);
    let opened: GardenLink | null = null;
    let left = false;
    void hold.held.then((exclusive) => {
      if (!left) opened = open(exclusive);
    });
    const leave = () => void opened?.leave();
    window.addEventListener('pagehide', leave);
    return () => {
      left = true;
      window.removeEventListener('pagehide', leave);
      void (opened?.dispose() ?? Promise.resolve()).then(hold.release);
    };
  }, [gardenId]);
  useEffect(() => link?.setGarden(garden), [garden, link]);

  const tools = useMemo<LiveTools | null>(
    () =>
      link && {
        session: link.session,
        bus: link.bus,
        stored,
        elsewhere: !link.exclusive,
        openStandIn: () => link.openStandIn(),
        close: () => link.disconnect(),
      },
    [link, stored],
  );
  return tools && <LiveContext value={tools}>{children}</LiveContext>;
}
