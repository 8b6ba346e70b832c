/** Undo and redo over whole documents. Documents share what did not change, so a step costs little. */
export type Change<T> = {
  readonly label: string;
  readonly before: T;
  /** Readings and events that came in with this step: undoing takes them out again. */
  readonly imported?: string;
};

export type History<T> = {
  readonly present: T;
  /** Newest last; `before` is the document to go back to. */
  readonly past: readonly Change<T>[];
  /** Newest undone last; `before` is the document to go forward to. */
  readonly future: readonly Change<T>[];
};

const MOST_STEPS = 50;

export const newHistory = <T>(present: T): History<T> => ({ present, past: [], future: [] });

/**
 * Records a change under the words that the undo button will show. Handing back the same document changes nothing, unless something was imported.
 * @param imported id of what came in with it
 */
export function change<T>(history: History<T>, present: T, label: string, imported?: string): History<T> {
  if (present === history.present && imported === undefined) return history;
  const step = { label, before: history.present, ...(imported === undefined ? {} : { imported }) };
  return { present, past: [...history.past, step].slice(-MOST_STEPS), future: [] };
}

/** Ids of what was imported and could still be undone or redone. */
export const importsOf = <T>({ past, future }: History<T>): ReadonlySet<string> =>
  new Set([...past, ...future].flatMap((step) => step.imported ?? []));

/** One step back; the same history when there is none. */
export function undo<T>(history: History<T>): History<T> {
  const last = history.past[history.past.length - 1];
  if (!last) return history;
  return {
    present: last.before,
    past: history.past.slice(0, -1),
    future: [...history.future, { ...last, before: history.present }],
  };
}

/** One step forward again; the same history when there is none. */
export function redo<T>(history: History<T>): History<T> {
  const next = history.future[history.future.length - 1];
  if (!next) return history;
  return {
    present: next.before,
    past: [...history.past, { ...next, before: history.present }],
    future: history.future.slice(0, -1),
  };
}
