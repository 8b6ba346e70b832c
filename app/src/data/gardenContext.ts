import { createContext, use } from 'react';
import type { History } from '@plain-trowel/core/garden/document/history';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import type { EventDraft } from '@plain-trowel/core/records/event';
import type { PutOutcome } from './putReadings.ts';
import type { RecordsImport, RecordsRemoval } from './recordsImport.ts';

/** A change to the garden, with the events that belong to it; saved together or not at all. */
export type GardenChange = (garden: Garden) => { garden: Garden; events?: readonly EventDraft[] };

export type GardenTools = {
  readonly garden: Garden;
  readonly history: History<Garden>;
  /** Saves a change under the words the undo will show; true once it is on disk. What is refused is told, and leaves everything as it was. */
  readonly commit: (label: string, change: GardenChange, toast?: string) => Promise<boolean>;
  /** Takes readings and events in as one step that can be undone; null when it was not possible, which is told. */
  readonly takeIn: (
    label: string,
    of: Omit<RecordsImport, 'garden'> & { readonly garden?: Garden },
  ) => Promise<PutOutcome | null>;
  /** Takes readings out of the record as one step that can be undone; how many, or null when it was not possible, which is told. */
  readonly takeOut: (label: string, of: RecordsRemoval) => Promise<number | null>;
  readonly undo: () => Promise<boolean>;
  readonly redo: () => Promise<boolean>;
  /** Writes the garden of this page into storage from which it has gone. */
  readonly putBack: () => Promise<boolean>;
};

export const GardenContext = createContext<GardenTools | null>(null);

export function useGarden(): GardenTools {
  const tools = use(GardenContext);
  if (!tools) throw new Error('useGarden outside of a garden');
  return tools;
}
