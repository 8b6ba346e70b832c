import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import type { Garden } from '@plain-trowel/core/garden/schema';
import type { Reading } from '@plain-trowel/core/records/series';
import { useGarden } from '../data/gardenContext.ts';
import { saveLink, type LinkMemory } from '../data/linkStore.ts';
import { latestQuery, recordsKey } from '../data/queries.ts';
import { addRecords } from '../data/recordStore.ts';
import { database } from '../data/services.ts';
import { LiveContext, type LiveTools } from './liveContext.ts';
import { LiveSession } from './liveSession.ts';
import { StandInSource } from './standInSource.ts';

const clocks = { nowMs: () => Date.now(), tickMs: () => performance.now() };
const REMEMBER_MS = 5000;
const NONE: ReadonlyMap<string, Reading> = new Map();

/** Holds the garden's live session for as long as the garden is open, and what its stand-ins remember. */
export function LiveProvider({ memory, children }: { memory: LinkMemory; children: ReactNode }) {
  const { garden } = useGarden();
  const client = useQueryClient();
  const [session, setSession] = useState<LiveSession | null>(null);
  const remembered = useRef(memory);
  const gardenNow = useRef(garden);
  const gardenId = garden.id;
  const stored =
    useQuery(
      latestQuery(
        gardenId,
        garden.channels.map((one) => one.id),
      ),
    ).data ?? NONE;

  useEffect(() => {
    gardenNow.current = garden;
    session?.setGarden(garden);
    const source = session?.getSnapshot().source;
    if (source instanceof StandInSource) source.setGarden(garden);
  }, [garden, session]);

  useEffect(() => {
    const created = new LiveSession(
      gardenNow.current,
      async (readings, events) => {
        await addRecords(await database(), gardenId, readings, events);
        void client.invalidateQueries({ queryKey: recordsKey(gardenId) });
      },
      clocks,
    );
    const remember = async () => {
      const source = created.getSnapshot().source;
      if (source instanceof StandInSource) remembered.current = { world: source.memory(), openAtStart: true };
      await saveLink(await database(), gardenId, remembered.current);
    };
    const leave = () => {
      void created.flush();
      void remember();
    };
    const timer = setInterval(() => void remember(), REMEMBER_MS);
    window.addEventListener('pagehide', leave);
    if (remembered.current.openAtStart) void created.connect(standIn(gardenNow.current, remembered.current));
    setSession(created);
    return () => {
      clearInterval(timer);
      window.removeEventListener('pagehide', leave);
      leave();
      void created.close();
    };
  }, [client, gardenId]);

  const tools = useMemo<LiveTools | null>(
    () =>
      session && {
        session,
        stored,
        openStandIn: () => session.connect(standIn(gardenNow.current, remembered.current)),
        close: async () => {
          const source = session.getSnapshot().source;
          const world = source instanceof StandInSource ? source.memory() : remembered.current.world;
          remembered.current = { world, openAtStart: false };
          await session.disconnect();
          await saveLink(await database(), gardenId, remembered.current);
        },
      },
    [session, stored, gardenId],
  );
  return tools && <LiveContext value={tools}>{children}</LiveContext>;
}

const standIn = (garden: Garden, memory: LinkMemory) =>
  new StandInSource(garden, memory.world, Date.now(), clocks.tickMs);
