import { createContext, use } from 'react';
import type { History } from '@plain-trowel/core/garden/history';
import type { Garden } from '@plain-trowel/core/garden/schema';
import type { GardenEvent } from '@plain-trowel/core/records/event';

/** A change to the garden, with the events that belong to it; saved together or not at all. */
export type GardenChange = (garden: Garden) => { garden: Garden; events?: readonly GardenEvent[] };

export type GardenTools = {
  readonly garden: Garden;
  readonly history: History<Garden>;
  /** Saves a change under the words the undo will show; true once it is on disk. */
  readonly commit: (label: string, change: GardenChange, toast?: string) => Promise<boolean>;
  readonly undo: () => Promise<boolean>;
  readonly redo: () => Promise<boolean>;
};

export const GardenContext = createContext<GardenTools | null>(null);

export function useGarden(): GardenTools {
  const tools = use(GardenContext);
  if (!tools) throw new Error('useGarden outside of a garden');
  return tools;
}
