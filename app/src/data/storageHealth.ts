import type { StorageProblem } from './storageProblem.ts';

/** What is wrong with storage right now, and what waits in memory for it; one for the whole page. */
export type StorageHealth = {
  readonly problem: StorageProblem | null;
  readonly waiting: { readonly readings: number; readonly events: number };
};

let health: StorageHealth = { problem: null, waiting: { readings: 0, events: 0 } };
const listeners = new Set<() => void>();

/** Notes a failure, or with null that a write has reached the disk. */
export function reportStorage(change: Partial<StorageHealth>): void {
  const next = { ...health, ...change };
  if (
    next.problem === health.problem &&
    next.waiting.readings === health.waiting.readings &&
    next.waiting.events === health.waiting.events
  )
    return;
  health = next;
  for (const listener of listeners) listener();
}

export const storageHealth = {
  subscribe: (listener: () => void) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },
  getSnapshot: () => health,
};
