/** What was loaded onto which board from this browser, or taken from it to be compiled, so that a later program can be compared with it. */
import { z } from '@plain-trowel/core/quantity/schema';

const loadedSchema = z.object({ name: z.string().max(40), text: z.string().max(200_000) });
export type LoadedProgram = z.infer<typeof loadedSchema>;

const keyOf = (gardenId: string, boardId: string): string => `plain-trowel loaded ${gardenId} ${boardId}`;

export function saveLoaded(gardenId: string, boardId: string, loaded: LoadedProgram): void {
  try {
    localStorage.setItem(keyOf(gardenId, boardId), JSON.stringify(loaded));
  } catch {
    // A browser that keeps nothing has nothing to compare with.
  }
}

/** Null where nothing was loaded from this browser. */
export function readLoaded(gardenId: string, boardId: string): LoadedProgram | null {
  try {
    const read = loadedSchema.safeParse(JSON.parse(localStorage.getItem(keyOf(gardenId, boardId)) ?? 'null'));
    return read.success ? read.data : null;
  } catch {
    return null;
  }
}

const writtenSchema = z.array(loadedSchema).max(20);
/** So many programs in C++ are remembered a board: which of them came onto it nobody says but the board. */
const MOST_WRITTEN = 4;
const writtenKey = (gardenId: string, boardId: string): string =>
  `plain-trowel written ${gardenId} ${boardId}`;

function readAllWritten(gardenId: string, boardId: string): readonly LoadedProgram[] {
  try {
    const kept = localStorage.getItem(writtenKey(gardenId, boardId));
    const read = writtenSchema.safeParse(JSON.parse(kept ?? '[]'));
    return read.success ? read.data : [];
  } catch {
    return [];
  }
}

/** A program in C++ that was taken from here. */
export function saveWritten(gardenId: string, boardId: string, written: LoadedProgram): void {
  const others = readAllWritten(gardenId, boardId).filter(({ name }) => name !== written.name);
  try {
    localStorage.setItem(
      writtenKey(gardenId, boardId),
      JSON.stringify([written, ...others].slice(0, MOST_WRITTEN)),
    );
  } catch {
    // A browser that keeps nothing has nothing to compare with.
  }
}

/** Null where none of that name was taken from this browser. */
export const readWritten = (gardenId: string, boardId: string, name: string): LoadedProgram | null =>
  readAllWritten(gardenId, boardId).find((one) => one.name === name) ?? null;
