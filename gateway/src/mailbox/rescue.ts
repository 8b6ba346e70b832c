/** Before a store is used: is it sound? One that is not is put aside as it is, and what can be read of it goes into a new one. */
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, renameSync } from 'node:fs';
import { join } from 'node:path';
import { z } from '@plain-trowel/core/quantity/schema';
import { toRecord } from './checked.ts';
import { isSound, type Inspection } from './inspect.ts';
import { salvage, type Found } from './salvage.ts';
import { NEW_GARDEN, openStore, type Store } from './store.ts';

/** The store's own names. */
const FILE = 'data.mdb';
const LOCK = 'lock.mdb';

const inspectionSchema = z.object({
  gardens: z.number(),
  entries: z.number(),
  damaged: z.number(),
  missing: z.number(),
});

/** What the store says of itself; null for one that cannot be looked through to its end. */
export async function inspectFolder(folder: string): Promise<Inspection | null> {
  const { code, out } = await runNode([join(import.meta.dirname, 'inspectMain.ts'), folder]);
  if (code !== 0) return null;
  try {
    return inspectionSchema.parse(JSON.parse(out));
  } catch {
    return null;
  }
}

const runNode = (args: readonly string[]): Promise<{ code: number | null; out: string }> =>
  new Promise((done) => {
    const child = spawn(process.execPath, ['--import', 'tsx', ...args], {
      stdio: ['ignore', 'pipe', 'ignore'],
    });
    let out = '';
    child.stdout.on('data', (part: Buffer) => (out += part.toString()));
    child.on('error', () => done({ code: null, out }));
    child.on('close', (code) => done({ code, out }));
  });

/** What was done to a damaged store. */
export const rescueSchema = z.strictObject({ aside: z.string(), entries: z.number(), atMs: z.number() });
export type Rescue = Omit<z.infer<typeof rescueSchema>, 'atMs'>;

/** Sees to it that a folder holds a sound store. @returns what was done to a damaged one; null where nothing was */
export async function rescueIfDamaged(folder: string, nowMs: number): Promise<Rescue | null> {
  const file = join(folder, FILE);
  if (!existsSync(file)) return null;
  const inspection = await inspectFolder(folder);
  if (inspection && isSound(inspection)) return null;
  const found = salvage(file);
  const aside = join(folder, `damaged-${new Date(nowMs).toISOString().replaceAll(':', '-')}`);
  mkdirSync(aside, { recursive: true });
  renameSync(file, join(aside, FILE));
  if (existsSync(join(folder, LOCK))) renameSync(join(folder, LOCK), join(aside, LOCK));
  const store = openStore(folder);
  await fill(store, found);
  await store.root.close();
  return { aside, entries: found.length };
}

/** Puts entries into an empty store under the numbers that they had. */
async function fill(store: Store, found: readonly Found[]): Promise<void> {
  const { log, had, boots, gardens, commits } = store;
  await commits.do(() => {
    for (const { gardenId, entry } of found) {
      const { n, boardId, boot, run, seq, receivedMs, upS } = entry;
      const record = toRecord(gardenId, entry);
      log.putSync([gardenId, n], record);
      had.putSync([gardenId, boardId, boot, run, seq], n);
      const bootAtMs = receivedMs - upS * 1000;
      const known = boots.get([gardenId, boardId, boot]);
      if (!known || known.run <= run)
        boots.putSync([gardenId, boardId, boot], {
          run,
          bootAtMs: known?.run === run ? Math.min(known.bootAtMs, bootAtMs) : bootAtMs,
          droppedTo: null,
        });
      const garden = gardens.get(gardenId) ?? NEW_GARDEN;
      gardens.putSync(gardenId, {
        ...garden,
        // They come in the order of their numbers.
        gaps: garden.next === 1 ? 0 : garden.gaps + n - garden.next,
        next: n + 1,
        bytes: garden.bytes + Buffer.byteLength(record),
      });
    }
  });
}
