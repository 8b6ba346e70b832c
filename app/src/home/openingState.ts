import { useSyncExternalStore } from 'react';
import type { Backup } from '../data/readBackup.ts';
import type { ImportPreview } from '../data/recordsImport.ts';

/** A file that is being opened and needs a page of its own: while it is read, to be mended, or because the garden is already here. */
export type Opening =
  | { readonly kind: 'none' }
  | {
      readonly kind: 'reading';
      readonly fileName: string;
      readonly done: number;
      readonly cancel?: () => void;
    }
  | { readonly kind: 'mend'; readonly doc: unknown; readonly fileName: string }
  | {
      readonly kind: 'compare';
      readonly backup: Backup;
      readonly fileName: string;
      readonly preview: ImportPreview;
      /** The document here is that of the backup. */
      readonly isSame: boolean;
      readonly isDamaged: boolean;
    };

let opening: Opening = { kind: 'none' };
const listeners = new Set<() => void>();

export function setOpening(next: Opening): void {
  opening = next;
  for (const listener of listeners) listener();
}

export const useOpening = (): Opening =>
  useSyncExternalStore(
    (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
    () => opening,
  );
