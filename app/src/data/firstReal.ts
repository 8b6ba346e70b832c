import type { QueryClient } from '@tanstack/react-query';
import { FLAGS, incomingDays, type Incoming } from '@plain-trowel/core/records/series';
import { showToast } from '../ui/toasts.ts';
import { firstRealText } from '../words/storageText.ts';
import { askPersistence, noteFirstReal } from './keeping.ts';
import { keepingQuery } from './queries.ts';
import { database } from './services.ts';

/** Gardens of this page whose first real reading has been seen to. */
const known = new Set<string>();

/** With the first reading of a real probe the browser is asked to keep this site's data, and the person is told why and what it said. */
export async function keepSafe(client: QueryClient, gardenId: string, readings: Incoming): Promise<void> {
  if (known.has(gardenId)) return;
  if (!hasReal(readings)) return;
  known.add(gardenId);
  try {
    if (!(await noteFirstReal(await database(), gardenId, Date.now()))) return;
  } catch {
    // Storage is told about elsewhere; the next reading asks again.
    known.delete(gardenId);
    return;
  }
  const persistence = await askPersistence();
  void client.invalidateQueries({ queryKey: keepingQuery(gardenId).queryKey });
  showToast({ tone: 'done', text: firstRealText(persistence) });
}

function hasReal(readings: Incoming): boolean {
  for (const { readings: day } of incomingDays(readings))
    if (day().some(({ flags }) => (flags & FLAGS.simulated) === 0)) return true;
  return false;
}
