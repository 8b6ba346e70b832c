import { useSyncExternalStore } from 'react';

/** Day or night sheet. Follows the machine until the person chooses; the choice is kept. */
export type SheetTone = 'day' | 'night';

const KEY = 'plain-trowel-sheet';
const listeners = new Set<() => void>();

function wanted(): SheetTone {
  const kept = localStorage.getItem(KEY);
  if (kept === 'day' || kept === 'night') return kept;
  return matchMedia('(prefers-color-scheme: dark)').matches ? 'night' : 'day';
}

/** Puts the tone on the page; call once before anything is drawn. */
export function applySheetTone(): void {
  document.documentElement.dataset.sheet = wanted();
}

export function useSheetTone(): readonly [SheetTone, (tone: SheetTone) => void] {
  const tone = useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => (document.documentElement.dataset.sheet === 'night' ? 'night' : 'day'),
  );
  const choose = (next: SheetTone) => {
    localStorage.setItem(KEY, next);
    document.documentElement.dataset.sheet = next;
    for (const listener of listeners) listener();
  };
  return [tone, choose];
}
