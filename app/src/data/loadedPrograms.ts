/** What was loaded onto which board from this browser, so that a later program can be compared with it. */
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
