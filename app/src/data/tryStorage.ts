import { writeTo } from './db.ts';
import { database } from './services.ts';
import { problemOf, type StorageProblem } from './storageProblem.ts';

/** A key that no garden's readings have. */
const TRIAL = { gardenId: '', channelId: '', dayMs: 0 };
/** As much as a few minutes of readings take, bytes: a disk that holds this goes on for a while. */
const TRIAL_BYTES = 64_000;

/** Writes a little into storage and takes it out again; says what is wrong, or null when it is on disk. */
export async function tryStorage(): Promise<StorageProblem | null> {
  try {
    const db = await database();
    const room = new Float64Array(TRIAL_BYTES / 8);
    const tx = writeTo(db, 'blocks');
    await tx
      .objectStore('blocks')
      .put({ ...TRIAL, offsetsMs: new Uint32Array(0), raw: room, flags: new Uint8Array(0) });
    await tx.done;
    await db.delete('blocks', [TRIAL.gardenId, TRIAL.channelId, TRIAL.dayMs]);
    return null;
  } catch (error) {
    return problemOf(error);
  }
}
