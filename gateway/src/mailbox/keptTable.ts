import type { z } from '@plain-trowel/core/quantity/schema';
import type { Store } from './store.ts';

/** Small things of one kind that the gateway keeps, by name, each checked when it is read. What cannot be read is not there. */
export class KeptTable<T> {
  constructor(
    private readonly store: Store,
    private readonly kind: string,
    private readonly schema: z.ZodType<T>,
  ) {}

  get(name: string): T | null {
    const text = this.store.kept.get([this.kind, name]);
    return text === undefined ? null : this.read(text);
  }

  /** All whose names begin so, by name. */
  all(prefix = ''): readonly { readonly name: string; readonly value: T }[] {
    const found = this.store.kept.getRange({
      start: [this.kind, prefix],
      end: [this.kind, `${prefix}\uffff`],
    });
    return [...found].flatMap(({ key, value }) => {
      const read = this.read(value);
      return read === null ? [] : [{ name: key[1], value: read }];
    });
  }

  /** Keeps something; done once it is on disk. */
  put(name: string, value: T): Promise<void> {
    return this.store.commits.do(() => this.putNow(name, value));
  }

  /** The same within an action of the store's commits. */
  putNow(name: string, value: T): void {
    this.store.kept.putSync([this.kind, name], JSON.stringify(value));
  }

  async remove(name: string): Promise<boolean> {
    return this.store.commits.do(() => this.store.kept.removeSync([this.kind, name]));
  }

  private read(text: string): T | null {
    try {
      const read = this.schema.safeParse(JSON.parse(text));
      return read.success ? read.data : null;
    } catch {
      return null;
    }
  }
}
