import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useEffectEvent, useMemo, useState, type ReactNode } from 'react';
import type { StreamFault } from '@plain-trowel/core/faults/streamFaults';
import type { Reading } from '@plain-trowel/core/records/series';
import { useGarden } from '../data/gardenContext.ts';
import { saveLink, type LinkMemory } from '../data/linkStore.ts';
import { keepSafe } from '../data/firstReal.ts';
import { latestQuery } from '../data/queries.ts';
import { recordsWritten, type Written } from '../data/records.ts';
import type { PutOutcome } from '../data/putReadings.ts';
import { addRecords } from '../data/recordStore.ts';
import { database } from '../data/services.ts';
import { reportStorage } from '../data/storageHealth.ts';
import { runJob } from '../workers/files.ts';
import { GardenLink } from './gardenLink.ts';
import { browserName } from './gatewaySource.ts';
import { holdLink } from './linkLock.ts';
import { LiveContext, type LiveTools } from './liveContext.ts';

const clocks = { nowMs: () => Date.now(), tickMs: () => performance.now() };
const NONE: ReadonlyMap<string, Reading> = new Map();

/** A day that was put aside may show anywhere. */
const written = ({ damagedDays, writtenDays }: PutOutcome, hasEvents: boolean): Written =>
  damagedDays > 0
    ? null
    : { days: new Map([...writtenDays].map(([id, days]) => [id, [...days]])), events: hasEvents };

/** Holds the garden's live link for as long as the garden is open. */
export function LiveProvider({ memory, children }: { memory: LinkMemory; children: ReactNode }) {
  const { garden } = useGarden();
  const client = useQueryClient();
  const [link, setLink] = useState<GardenLink | null>(null);
  const gardenId = garden.id;
  const channelIds = garden.channels.map((one) => one.id);
  const stored = useQuery(latestQuery(gardenId, channelIds)).data ?? NONE;

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
          recordsWritten(client, gardenId, written(outcome, events.length > 0));
          void keepSafe(client, gardenId, readings);
          return outcome;
        },
        saveMemory: async (kept) => saveLink(await database(), gardenId, kept),
        onRecorder: ({ problem, waiting }) => reportStorage({ problem, waiting }),
        findWave: (record) =>
          runJob<StreamFault | null>((jobs) => jobs.findWave(record)).result.catch(() => null),
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
        browser: () => browserName(link.app()),
        openGateway: () => link.openGateway(),
        openProgram: (...of) => link.openProgram(...of),
        close: () => link.disconnect(),
      },
    [link, stored],
  );
  return tools && <LiveContext value={tools}>{children}</LiveContext>;
}
