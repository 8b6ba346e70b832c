/** Pictures of the log in storage. They are kept as long as their garden, for an entry that was taken out can come back. */
import { isPhoto } from '@plain-trowel/core/records/photo';
import type { Db, WriteTx } from './db.ts';

export type Photos = ReadonlyMap<string, Uint8Array<ArrayBuffer>>;

export async function keepPhoto(db: Db, gardenId: string, id: string, bytes: Uint8Array): Promise<void> {
  const tx = db.transaction('photos', 'readwrite', { durability: 'strict' });
  await Promise.all([tx.store.put({ gardenId, id, bytes }), tx.done]);
}

/** Puts photos in that are not there yet: one that is stays as it is. */
export async function putPhotos(tx: WriteTx, gardenId: string, photos: Photos): Promise<void> {
  const store = tx.objectStore('photos');
  for (const [id, bytes] of photos)
    if ((await store.getKey([gardenId, id])) === undefined) await store.put({ gardenId, id, bytes });
}

/** Null where there is none, or what is stored is no photo. */
export async function readPhoto(
  db: Db,
  gardenId: string,
  id: string,
): Promise<Uint8Array<ArrayBuffer> | null> {
  const bytes = (await db.get('photos', [gardenId, id]))?.bytes;
  return isPhoto(bytes) ? bytes : null;
}

/** Takes a photo out that no entry was written about. */
export const dropPhoto = (db: Db, gardenId: string, id: string): Promise<void> =>
  db.delete('photos', [gardenId, id]);

/** Photos by their names one by one, for a backup. */
export async function* photosOf(
  db: Db,
  gardenId: string,
  ids: Iterable<string>,
): AsyncGenerator<readonly [string, Uint8Array<ArrayBuffer>]> {
  for (const id of ids) {
    const bytes = await readPhoto(db, gardenId, id);
    if (bytes) yield [id, bytes];
  }
}
