import { createContext, use, useMemo, useSyncExternalStore } from 'react';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { plotParts, type PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { Reading } from '@plain-trowel/core/records/series';
import type { BusDesk, BusSnapshot } from './busDesk.ts';
import type { GardenLink } from './gardenLink.ts';
import type { LiveSession } from './liveSession.ts';
import type { LiveSnapshot } from './liveSnapshot.ts';
import { plotView, type PlotView } from '@plain-trowel/core/live/plotView';

export type LiveTools = {
  readonly session: LiveSession;
  readonly bus: BusDesk;
  /** Newest stored reading by channel, for what has not been heard from yet. */
  readonly stored: ReadonlyMap<string, Reading>;
  /** Another tab holds this garden's link; here it can only be looked at. */
  readonly elsewhere: boolean;
  readonly openStandIn: () => Promise<void>;
  /** By which name a person may know this browser among those at the gateway. */
  readonly browser: () => string;
  /** Listens to what the boards report to the gateway. */
  readonly openGateway: () => Promise<void>;
  /** Lets a board run its very program in the page. */
  readonly openProgram: GardenLink['openProgram'];
  readonly close: () => Promise<void>;
};

export const LiveContext = createContext<LiveTools | null>(null);

export function useLiveTools(): LiveTools {
  const tools = use(LiveContext);
  if (!tools) throw new Error('useLive outside of a garden');
  return tools;
}

/** What comes in right now; renders four times a second at most. With a selection only when that has changed. */
export function useLive(): LiveSnapshot;
export function useLive<T>(select: (live: LiveSnapshot) => T): T;
export function useLive<T>(select?: (live: LiveSnapshot) => T): T | LiveSnapshot {
  const { session } = useLiveTools();
  const get = useMemo<() => T | LiveSnapshot>(
    () => (select ? selecting(session, select) : session.getSnapshot),
    [session, select],
  );
  return useSyncExternalStore(session.subscribe, get);
}

/** Gives back what it gave last for as long as that says the same. */
function selecting<T>(session: LiveSession, select: (live: LiveSnapshot) => T): () => T {
  let last: { readonly value: T } | null = null;
  return () => {
    const value = select(session.getSnapshot());
    if (!last || !isAlike(last.value, value)) last = { value };
    return last.value;
  };
}

/** Whether two values are one, or two plain objects with the same in each field. */
function isAlike(a: unknown, b: unknown): boolean {
  if (Object.is(a, b)) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  const fields = Object.entries(a);
  const others = b as Record<string, unknown>;
  return (
    fields.length === Object.keys(b).length && fields.every(([key, value]) => Object.is(value, others[key]))
  );
}

/** What the bus desk holds right now. */
export function useBus(): BusSnapshot {
  const { bus } = useLiveTools();
  return useSyncExternalStore(bus.subscribe, bus.getSnapshot);
}

/** Parts and state of one probe of a plot, the leading one where none is named: from the stream while there is one, else from the newest stored reading. */
export function usePlot(
  garden: Garden,
  plotId: string,
  channelId?: string | null,
): { parts: PlotParts; view: PlotView } | null {
  const live = useLive();
  const { stored } = useLiveTools();
  const parts = plotParts(garden, plotId, channelId);
  return parts && { parts, view: plotView(garden, parts, live, stored) };
}
