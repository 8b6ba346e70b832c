import { newHistory } from '@plain-trowel/core/garden/document/history';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { DAY_STORES } from './days.ts';
import { allOrNothing, writeTo, type Db } from './db.ts';
import { admitted, GARDEN_STORES, putGarden } from './gardenStore.ts';
import type { LinkMemory } from './linkStore.ts';
import type { Incoming } from '@plain-trowel/core/records/series';
import type { GardenEvent } from '@plain-trowel/core/records/event';
import { putPhotos, type Photos } from './photos.ts';
import { putReadings } from './putReadings.ts';
import { putEvents } from './recordStore.ts';

/** Stores a new garden together with a past it came with; a killed tab leaves the whole of it or nothing. */
export async function storeNewGarden(
  db: Db,
  garden: Garden,
  past: {
    readonly readings: Incoming;
    readonly events: readonly GardenEvent[];
    readonly photos?: Photos;
    readonly link: Pick<LinkMemory, 'world' | 'openAtStart' | 'alerts' | 'gateway'>;
  },
): Promise<void> {
  const { id } = admitted(garden);
  const tx = writeTo(db, ...GARDEN_STORES, ...DAY_STORES, 'links', 'aside', 'photos');
  await allOrNothing(tx, async () => {
    // `add`, not `put`: a garden that is already there must never be written over.
    await tx.objectStore('gardens').add({ id, revision: 1, doc: garden });
    await putGarden(tx, newHistory(garden), 1);
    await tx.objectStore('links').put({ id, ...past.link });
    await putReadings(tx, id, past.readings, 'beside');
    await putEvents(tx, id, past.events);
    await putPhotos(tx, id, past.photos ?? new Map());
  });
}
