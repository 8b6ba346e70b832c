/** How many changes of a garden are on their way to the disk; one count for the whole page. */
let pending = 0;
const listeners = new Set<() => void>();

function count(by: 1 | -1): void {
  pending += by;
  for (const listener of listeners) listener();
}

/** Counts a save until it has ended, however it ends. */
export async function counted<T>(save: Promise<T>): Promise<T> {
  count(1);
  try {
    return await save;
  } finally {
    count(-1);
  }
}

export const pendingSaves = {
  subscribe: (listener: () => void) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },
  isSaving: () => pending > 0,
};
