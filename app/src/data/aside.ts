/** What could not be read is kept aside, as it was found. */
import type { AsideRecord, Db, WriteTx } from './db.ts';

export const putAside = (tx: WriteTx, of: Omit<AsideRecord, 'atMs'>): Promise<number> =>
  tx.objectStore('aside').add({ ...of, atMs: Date.now() });

export async function readAside(
  db: Db,
  gardenId: string,
): Promise<readonly (AsideRecord & { readonly key: number })[]> {
  const tx = db.transaction('aside');
  const [keys, records] = await Promise.all([
    tx.store.index('by-garden').getAllKeys(gardenId),
    tx.store.index('by-garden').getAll(gardenId),
  ]);
  return records.flatMap((record, at) => {
    const key = keys[at];
    return key === undefined ? [] : [{ ...record, key }];
  });
}
