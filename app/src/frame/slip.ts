import { useEffect, useSyncExternalStore } from 'react';
import type { Worked } from '@plain-trowel/core/quantity/worked';

/** What lies on the working slip: the number in focus, kept up to date while it is on the screen. */
type Slip = { readonly focusedId: string | null; readonly worked: Worked | null; readonly asked: boolean };

let slip: Slip = { focusedId: null, worked: null, asked: false };
const listeners = new Set<() => void>();
const publish = (next: Slip) => {
  slip = next;
  for (const listener of listeners) listener();
};
const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

/** Workings are made again at each drawing; only one that says something else is worth telling. */
const isSame = (a: Worked | null, b: Worked): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);

/** Puts a number on the slip because the person asked for it. */
export const putOnSlip = (id: string, worked: Worked): void =>
  publish({ focusedId: id, worked, asked: true });

/** Takes everything off, as when another sheet is opened. */
export const clearSlip = (): void => publish({ focusedId: null, worked: null, asked: false });

/** Folds the slip away until a number is pressed again: the leading number of the sheet does not come back by itself. */
export const foldSlip = (): void => publish({ focusedId: '', worked: null, asked: false });

export const useSlip = (): Slip => useSyncExternalStore(subscribe, () => slip);

/** Keeps the slip in step with a number on the screen; the leading number of a sheet lies there until another is asked for. */
export function useWorked(id: string, worked: Worked | null, lead: boolean): void {
  const { focusedId } = useSlip();
  useEffect(() => {
    // What can no longer be worked out is not shown as if it could.
    if (!worked) {
      if (slip.focusedId === id) clearSlip();
      return;
    }
    const claims = lead && slip.focusedId === null;
    if ((claims || slip.focusedId === id) && !isSame(slip.worked, worked))
      publish({ focusedId: id, worked, asked: slip.asked });
  }, [id, worked, lead, focusedId]);
  // A number that has left the screen leaves the slip too.
  useEffect(
    () => () => {
      if (slip.focusedId === id) clearSlip();
    },
    [id],
  );
}
