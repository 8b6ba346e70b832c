import { change, newHistory } from '@plain-trowel/core/garden/history';
import type { Garden } from '@plain-trowel/core/garden/schema';
import type { Db } from './db.ts';
import { loadGarden, saveGarden, type StoredGarden } from './gardenStore.ts';

/**
 * Takes in a garden from a file, all or nothing. A garden that is already here under the same id is replaced as one step that can be
 * undone; its readings and events stay.
 */
export async function importGarden(
  db: Db,
  garden: Garden,
  label = 'open garden.json',
): Promise<{ readonly outcome: 'new' | 'replaced'; readonly stored: StoredGarden }> {
  const present = await loadGarden(db, garden.id);
  if (present.kind === 'found') {
    const { history, revision } = present.stored;
    return {
      outcome: 'replaced',
      stored: await saveGarden(db, change(history, garden, label), revision),
    };
  }
  const revision =
    present.kind === 'damaged' ? ((await db.get('gardens', garden.id))?.revision ?? null) : null;
  return { outcome: 'new', stored: await saveGarden(db, newHistory(garden), revision) };
}
