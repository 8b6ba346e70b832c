import { useSyncExternalStore } from 'react';

let open = false;
const listeners = new Set<() => void>();

const set = (next: boolean) => {
  open = next;
  for (const listener of listeners) listener();
};

export const showKeys = (): void => set(true);
export const hideKeys = (): void => set(false);

export const useKeysOpen = (): boolean =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => open,
  );
