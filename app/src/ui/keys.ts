import { useEffect, useRef, useSyncExternalStore } from 'react';

/** A key that the open sheet answers to. */
export type SheetKey = { readonly key: string; readonly does: string; readonly run: () => void };

let registered: readonly (readonly SheetKey[])[] = [];
const listeners = new Set<() => void>();
const publish = (next: typeof registered) => {
  registered = next;
  for (const listener of listeners) listener();
};

const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (target.isContentEditable ||
    (/^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName) &&
      !/^(radio|checkbox|button)$/.test((target as HTMLInputElement).type)));

/** Lets a sheet answer to single keys while nobody types and no dialog is open. */
export function useKeys(keys: readonly SheetKey[]): void {
  const latest = useRef(keys);
  useEffect(() => {
    latest.current = keys;
  });
  const names = keys.map((one) => `${one.key}\t${one.does}`).join('\n');
  useEffect(() => {
    const mine = latest.current;
    publish([...registered, mine]);
    const press = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || event.repeat || isTyping(event.target)) return;
      if (document.querySelector('[role="dialog"],[role="menu"]')) return;
      const match = latest.current.find((one) => one.key.toLowerCase() === event.key.toLowerCase());
      if (!match) return;
      event.preventDefault();
      match.run();
    };
    window.addEventListener('keydown', press);
    return () => {
      window.removeEventListener('keydown', press);
      publish(registered.filter((list) => list !== mine));
    };
  }, [names]);
}

/** All keys that work right now, for the list behind "?". */
export function useKeyList(): readonly SheetKey[] {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => registered,
  ).flat();
}
