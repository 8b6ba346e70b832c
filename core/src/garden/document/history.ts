/** Undo and redo over whole documents. A step holds what must be changed to go back, or forward, so fifty of them cost what changed. */
import { applyPatch, diff, type Patch } from './patch.ts';

export type Change = {
  readonly label: string;
  /** In the past: from the document after the change to the one before it; in the future, the other way round. */
  readonly patch: Patch;
  /** Readings and events that came in with this step: undoing takes them out again. */
  readonly imported?: string;
};

export type History<T> = {
  readonly present: T;
  /** Newest last. */
  readonly past: readonly Change[];
  /** Newest undone last. */
  readonly future: readonly Change[];
};

const MOST_STEPS = 50;

export const newHistory = <T>(present: T): History<T> => ({ present, past: [], future: [] });

/**
 * Records a change under the words that the undo button will show. Handing back the same document changes nothing, unless something was imported.
 * @param imported id of what came in with it
 */
export function change<T>(history: History<T>, present: T, label: string, imported?: string): History<T> {
  if (present === history.present && imported === undefined) return history;
  const patch = diff(present, history.present);
  const step = { label, patch, ...(imported === undefined ? {} : { imported }) };
  return { present, past: [...history.past, step].slice(-MOST_STEPS), future: [] };
}

/** Ids of what was imported and could still be undone or redone. */
export const importsOf = <T>({ past, future }: History<T>): ReadonlySet<string> =>
  new Set([...past, ...future].flatMap((step) => step.imported ?? []));

/** One step back; the same history when there is none. Steps that do not fit the document, as from a damaged record, are forgotten. */
export function undo<T>(history: History<T>): History<T> {
  const last = history.past.at(-1);
  if (!last) return history;
  const led = along(history.present, last);
  if (!led) return { ...history, past: [] };
  return { present: led.present, past: history.past.slice(0, -1), future: [...history.future, led.back] };
}

/** One step forward again; the same history when there is none. */
export function redo<T>(history: History<T>): History<T> {
  const next = history.future.at(-1);
  if (!next) return history;
  const led = along(history.present, next);
  if (!led) return { ...history, future: [] };
  return { present: led.present, past: [...history.past, led.back], future: history.future.slice(0, -1) };
}

/** The document that a step leads to, and the step that leads from there to where it began; null when it belongs to another one */
function along<T>(from: T, step: Change): { readonly present: T; readonly back: Change } | null {
  try {
    const present = applyPatch(from, step.patch) as T;
    return { present, back: { ...step, patch: diff(present, from) } };
  } catch (error) {
    if (error instanceof RangeError) return null;
    throw error;
  }
}
