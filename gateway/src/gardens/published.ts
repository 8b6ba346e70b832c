/** Gardens as their owner has published them: what the gateway knows of time zones, boards and limits. Each time it is published its revision rises by one. */
import { admitGarden } from '@plain-trowel/core/garden/bind/admit';
import { readGardenFile, type GardenFileIssue } from '@plain-trowel/core/garden/document/gardenFile';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { PUBLISHED_LETTERS } from '@plain-trowel/core/protocol/feed';
import { fail, ok, type Result } from '@plain-trowel/core/quantity/result';
import { sumOf } from '@plain-trowel/core/quantity/sumOf';
import { z } from '@plain-trowel/core/quantity/schema';
import { KeptTable } from '../mailbox/keptTable.ts';
import type { Store } from '../mailbox/store.ts';

const publishedSchema = z.strictObject({
  revision: z.int().min(1),
  /** Of the text; the same text has the same. */
  hash: z.string(),
  atMs: z.number(),
  /** By whom: the name of the app that did it. */
  by: z.string(),
  text: z.string(),
});
export type Published = z.infer<typeof publishedSchema> & { readonly garden: Garden };

export type PublishIssue =
  | { readonly kind: 'file'; readonly issue: GardenFileIssue }
  | { readonly kind: 'not-admitted'; readonly message: string }
  | { readonly kind: 'another-id' }
  /** Somebody else has published since; theirs is given, and nothing was changed. */
  | { readonly kind: 'conflict'; readonly theirs: Published };

export class PublishedGardens {
  private readonly table: KeptTable<z.infer<typeof publishedSchema>>;
  private readonly read = new Map<string, Published>();

  constructor(store: Store) {
    this.table = new KeptTable(store, 'garden', publishedSchema);
    for (const { name, value } of this.table.all()) {
      const garden = readGardenFile(value.text);
      if (garden.ok) this.read.set(name, { ...value, garden: garden.value });
    }
  }

  get(gardenId: string): Published | null {
    return this.read.get(gardenId) ?? null;
  }

  all(): readonly Published[] {
    return [...this.read.values()];
  }

  /**
   * Publishes a garden.
   * @param after the revision that it was made from; null: none that is known of
   */
  async publish(
    gardenId: string,
    { text, by, after }: { readonly text: string; readonly by: string; readonly after: number | null },
    nowMs: number,
  ): Promise<Result<Published, PublishIssue>> {
    const file = readGardenFile(text);
    if (!file.ok) return fail({ kind: 'file', issue: file.issue });
    const garden = file.value;
    if (garden.id !== gardenId) return fail({ kind: 'another-id' });
    const admitted = admitGarden(garden);
    if (!admitted.ok)
      return fail({
        kind: 'not-admitted',
        message: admitted.issue
          .slice(0, 3)
          .map(({ field }) => field)
          .join(', '),
      });
    const before = this.get(gardenId);
    const hash = sumOf(text).slice(0, PUBLISHED_LETTERS);
    if (before?.hash === hash) return ok(before);
    if (before && after !== before.revision) return fail({ kind: 'conflict', theirs: before });
    const kept = { revision: (before?.revision ?? 0) + 1, hash, atMs: nowMs, by, text };
    await this.table.put(gardenId, kept);
    const published = { ...kept, garden };
    this.read.set(gardenId, published);
    return ok(published);
  }
}
