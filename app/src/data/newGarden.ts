import type { Garden } from '@plain-trowel/core/garden/schema';
import type { GardenEvent } from '@plain-trowel/core/records/event';
import { byDay, mergeDay } from '@plain-trowel/core/records/series';
import { allOrNothing, type Db } from './db.ts';
import type { LinkMemory } from './linkStore.ts';
import type { ReadingsByChannel } from './recordStore.ts';

/** Stores a new garden together with a past it came with; a killed tab leaves the whole of it or nothing. */
export async function storeNewGarden(
  db: Db,
  garden: Garden,
  past: { readings: ReadingsByChannel; events: readonly GardenEvent[]; link: LinkMemory },
): Promise<void> {
  const { id } = garden;
  const tx = db.transaction(['gardens', 'histories', 'blocks', 'events', 'links'], 'readwrite', {
    durability: 'strict',
  });
  await allOrNothing(tx, async () => {
    // `add`, not `put`: a garden that is already there must never be written over.
    await tx.objectStore('gardens').add({ id, revision: 1, doc: garden });
    await tx.objectStore('histories').put({ id, past: [], future: [] });
    await tx.objectStore('links').put({ id, ...past.link });
    for (const [channelId, readings] of past.readings)
      for (const [dayMs, day] of byDay(readings))
        await tx.objectStore('blocks').put({ gardenId: id, ...mergeDay(null, channelId, dayMs, day) });
    for (const event of past.events)
      await tx.objectStore('events').add({ gardenId: id, atMs: event.atMs, event });
  });
}
