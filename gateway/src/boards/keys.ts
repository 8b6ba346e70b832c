/** Keys of boards, and of whoever reads along. A key says which board of which garden somebody is; it is shown once, and only its sum is kept. */
import { createHash, randomBytes } from 'node:crypto';
import { z } from '@plain-trowel/core/quantity/schema';
import { KeptTable } from '../mailbox/keptTable.ts';
import type { Store } from '../mailbox/store.ts';

const keySchema = z.strictObject({
  gardenId: z.string(),
  boardId: z.string(),
  madeMs: z.number(),
  /** It is a stand-in's: what it reports is marked as simulated. */
  standIn: z.boolean().default(false),
  /** It is no board's: whoever has it may read along, and say nothing. */
  reads: z.boolean().default(false),
});
export type BoardKey = z.infer<typeof keySchema>;

/** Random bits enough that nobody guesses one, in letters that can be typed: 160 bits. */
const BYTES = 20;
/** Stands in the place of a board where a key is a reader's; no board can be called so. */
export const READER = '*';

export class Keys {
  private readonly table: KeptTable<BoardKey>;
  /** By the sum of the key, as on disk. */
  private readonly known: Map<string, BoardKey>;

  constructor(store: Store) {
    this.table = new KeptTable(store, 'key', keySchema);
    this.known = new Map(this.table.all().map(({ name, value }) => [name, value]));
  }

  /** A new key for a board; its old one holds no more. @returns the key, which cannot be had again */
  async make(gardenId: string, boardId: string, nowMs: number, standIn = false): Promise<string> {
    await this.revoke(gardenId, boardId);
    const key = randomBytes(BYTES).toString('hex');
    const made = { gardenId, boardId, madeMs: nowMs, standIn, reads: boardId === READER };
    await this.table.put(sumOf(key), made);
    this.known.set(sumOf(key), made);
    return key;
  }

  /** Whose key it is; null for one that is none. */
  boardOf(key: string): BoardKey | null {
    return this.known.get(sumOf(key)) ?? null;
  }

  /** Those of a garden's boards. */
  of(gardenId: string): readonly BoardKey[] {
    return [...this.known.values()].filter((one) => one.gardenId === gardenId && !one.reads);
  }

  /** That of whoever reads along in a garden; null: nobody may. */
  readerOf(gardenId: string): BoardKey | null {
    return [...this.known.values()].find((one) => one.gardenId === gardenId && one.reads) ?? null;
  }

  async revoke(gardenId: string, boardId: string): Promise<void> {
    for (const [sum, one] of this.known)
      if (one.gardenId === gardenId && one.boardId === boardId) {
        this.known.delete(sum);
        await this.table.remove(sum);
      }
  }
}

const sumOf = (key: string): string => createHash('sha256').update(key).digest('hex');
