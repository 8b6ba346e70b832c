import { change, newHistory } from '@plain-trowel/core/garden/document/history';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import type { Db } from './db.ts';
import { loadGarden, saveGarden, saveGardenWith, type StoredGarden } from './gardenStore.ts';
import { putAside } from './aside.ts';

/**
 * Takes in a garden from a file, all or nothing. A garden that is already here under the same id is replaced as one step that can be
 * undone; its readings and events stay. One that does not open is put aside and replaced.
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
  const history = newHistory(garden);
  if (present.kind === 'missing') return { outcome: 'new', stored: await saveGarden(db, history, null) };
  // The document that does not open is not written over: it goes aside as it was found.
  const { doc, revision } = present;
  const stored = await saveGardenWith(db, history, revision, ['aside'], (tx) =>
    putAside(tx, { gardenId: garden.id, what: 'garden', name: '', record: doc }),
  );
  return { outcome: 'new', stored };
}
