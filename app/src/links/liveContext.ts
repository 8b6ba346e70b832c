import { createContext, use, useSyncExternalStore } from 'react';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { plotParts, type PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { Reading } from '@plain-trowel/core/records/series';
import type { BusDesk, BusSnapshot } from './busDesk.ts';
import type { LiveSession, LiveSnapshot } from './liveSession.ts';
import { soilTemperatureNow } from './readingNow.ts';
import { viewPlot, type PlotView } from './plotView.ts';
import { StandInSource } from './standInSource.ts';

export type LiveTools = {
  readonly session: LiveSession;
  readonly bus: BusDesk;
  /** Newest stored reading by channel, for what has not been heard from yet. */
  readonly stored: ReadonlyMap<string, Reading>;
  /** Another tab holds this garden's link; here it can only be looked at. */
  readonly elsewhere: boolean;
  readonly openStandIn: () => Promise<void>;
  readonly close: () => Promise<void>;
};

export const LiveContext = createContext<LiveTools | null>(null);

export function useLiveTools(): LiveTools {
  const tools = use(LiveContext);
  if (!tools) throw new Error('useLive outside of a garden');
  return tools;
}

/** What comes in right now; renders five times a second at most. */
export function useLive(): LiveSnapshot {
  const { session } = useLiveTools();
  return useSyncExternalStore(session.subscribe, session.getSnapshot);
}

/** What the bus desk holds right now. */
export function useBus(): BusSnapshot {
  const { bus } = useLiveTools();
  return useSyncExternalStore(bus.subscribe, bus.getSnapshot);
}

/** The stand-in, when that is what is open. */
export const standInOf = (live: LiveSnapshot): StandInSource | null =>
  live.source instanceof StandInSource ? live.source : null;

/** Parts and state of one plot: from the stream while there is one, else from the newest stored reading. */
export function usePlot(garden: Garden, plotId: string): { parts: PlotParts; view: PlotView } | null {
  const live = useLive();
  const { stored } = useLiveTools();
  const parts = plotParts(garden, plotId);
  return parts && { parts, view: viewOf(garden, parts, live, stored) };
}

export function viewOf(
  garden: Garden,
  parts: PlotParts,
  live: LiveSnapshot,
  stored: ReadonlyMap<string, Reading>,
): PlotView {
  const id = parts.channel?.id ?? '';
  const present = live.present.get(id);
  const kept = stored.get(id);
  const reading = present
    ? { rawCounts: present.rawCounts, atMs: present.atMs }
    : kept
      ? { rawCounts: kept.raw, atMs: kept.timeMs }
      : null;
  // A stored reading knows no temperature of its own.
  const temperatureC = present ? soilTemperatureNow(garden, parts.plot.id, live.present) : null;
  return viewPlot(parts, reading, live.nowMs, temperatureC);
}
