/** Tells the fields that a change was refused: one that has just handed a text over takes it back. */
const listeners = new Set<() => void>();

export function noteRefusal(): void {
  for (const listener of listeners) listener();
}

export const refusals = {
  subscribe: (listener: () => void) => {
    listeners.add(listener);
    return () => {
      listeners.delete(listener);
    };
  },
};
