/**
 * Reports of boards, kept until the apps that watch a garden have fetched them. A report counts as kept only once it is on disk; the same one sent again is kept once.
 */
import type { Report } from '@plain-trowel/core/protocol/report';
import { fromRecord, toRecord } from './checked.ts';
import { entrySchema, type Entry } from '@plain-trowel/core/protocol/feed';
import { entryOf } from './entry.ts';
import { judge } from './replay.ts';
import { freeBytes, isNoRoom, NEW_GARDEN, type Cursor, type Store } from './store.ts';

export type Put =
  /** `run` is the start of the board that it belongs to. */
  | { readonly kind: 'kept'; readonly run: number; readonly entry: Entry }
  | { readonly kind: 'again'; readonly run: number }
  /** There is no room: nothing of it was kept. */
  | { readonly kind: 'full' };

/** What a garden's mailbox holds. */
export type Holding = {
  /** Number of the newest entry there has ever been; 0: none. */
  readonly newest: number;
  /** Number of the oldest that is still there. */
  readonly oldest: number;
  readonly bytes: number;
  /** Every app that watches has had everything up to this number. */
  readonly fetchedTo: number;
  readonly apps: (Cursor & { readonly id: string })[];
  readonly warnedMs: number | null;
};

/** An app that was not seen for so long holds nothing back any more, ms. */
const FORGOTTEN_MS = 90 * 86_400_000;

/** So far back a board's newest report is looked for, entries. */
const LOOK_BACK = 5000;

export class Mailbox {
  /** What all entries take; null: to be summed anew. */
  private total: number | null = null;
  private readonly latest = new Map<string, Map<string, Entry>>();
  private room = { lookedMs: -Infinity, isThere: true };
  private readonly listeners = new Set<(gardenId: string, entry: Entry) => void>();

  /**
   * @param limitBytes of all entries together; what would go beyond is refused
   * @param reserveBytes that are left free on the disk, for everything else that is written there
   */
  constructor(
    readonly store: Store,
    private readonly limitBytes: number,
    private readonly reserveBytes = 32_000_000,
  ) {}

  /** Called with each entry once it is on disk. @returns how to call it off */
  onEntry(listener: (gardenId: string, entry: Entry) => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  /**
   * Keeps a report.
   * @param simulated it is from a stand-in of a board
   * @param receivedMs when it came, by the gateway's clock, ms since 1970
   * @returns once it is on disk
   */
  async put(gardenId: string, report: Report, receivedMs: number, simulated = false): Promise<Put> {
    const { store } = this;
    if (!this.hasRoom()) return { kind: 'full' };
    let put: Put;
    try {
      put = await store.commits.do(() => this.write(gardenId, report, receivedMs, simulated));
    } catch (error) {
      this.total = null;
      if (!isNoRoom(error, store.folder)) throw error;
      return { kind: 'full' };
    }
    if (put.kind === 'kept') {
      this.latest.get(gardenId)?.set(put.entry.boardId, put.entry);
      for (const listener of this.listeners) listener(gardenId, put.entry);
    }
    return put;
  }

  /** Whether the disk has more than the reserve; looked at every second. */
  private hasRoom(): boolean {
    const nowMs = performance.now();
    if (nowMs - this.room.lookedMs > 1000)
      this.room = { lookedMs: nowMs, isThere: freeBytes(this.store.folder) > this.reserveBytes };
    return this.room.isThere;
  }

  /** Within a transaction. */
  private write(gardenId: string, report: Report, receivedMs: number, simulated: boolean): Put {
    const { log, had, boots, gardens } = this.store;
    const bootKey: [string, string, number] = [gardenId, report.board, report.boot];
    const known = boots.get(bootKey) ?? null;
    const heard = entryOf(report, receivedMs, known?.run ?? 0);
    const n = had.get([gardenId, report.board, report.boot, heard.run, report.seq]);
    const verdict = judge(heard, known, n === undefined ? null : this.read(gardenId, n));
    if (verdict.kind === 'again') return { kind: 'again', run: heard.run };
    const garden = gardens.get(gardenId) ?? NEW_GARDEN;
    const entry: Entry = { ...heard, run: verdict.boot.run, n: garden.next, simulated };
    const record = toRecord(gardenId, entry);
    const bytes = Buffer.byteLength(record);
    if (this.bytes() + bytes > this.limitBytes) return { kind: 'full' };
    log.putSync([gardenId, entry.n], record);
    had.putSync([gardenId, report.board, report.boot, entry.run, report.seq], entry.n);
    if (!known || !sameBoot(known, verdict.boot)) boots.putSync(bootKey, verdict.boot);
    gardens.putSync(gardenId, { ...garden, next: garden.next + 1, bytes: garden.bytes + bytes });
    if (this.total !== null) this.total += bytes;
    return { kind: 'kept', run: entry.run, entry };
  }

  /** An entry; null for one that is not there or cannot be read. */
  private read(gardenId: string, n: number): Entry | null {
    const record = this.store.log.get([gardenId, n]);
    return record === undefined ? null : entryFrom(record);
  }

  /** Entries after a number, the oldest first. */
  after(gardenId: string, n: number, most: number): readonly Entry[] {
    const entries: Entry[] = [];
    for (const { value } of this.store.log.getRange({
      start: [gardenId, n + 1],
      end: [gardenId, Number.MAX_SAFE_INTEGER],
      limit: most,
    })) {
      const entry = entryFrom(value);
      if (entry) entries.push(entry);
    }
    return entries;
  }

  /** Notes that an app has everything up to a number on its own disk. A cursor never goes back, nor beyond what there is. */
  async fetched(gardenId: string, appId: string, to: Omit<Cursor, 'seenMs'>, nowMs: number): Promise<void> {
    const { cursors } = this.store;
    await this.store.commits.do(() => {
      const before = this.cursorOf(gardenId, appId);
      const n = Math.max(before, Math.min(to.n, this.newest(gardenId)));
      cursors.putSync([gardenId, appId], { ...to, n, seenMs: nowMs });
    });
  }

  /** Everything up to this number an app has on its own disk; 0: nothing. */
  cursorOf(gardenId: string, appId: string): number {
    return this.store.cursors.get([gardenId, appId])?.n ?? 0;
  }

  /** An app watches no longer, so it holds nothing back. */
  async forgetApp(gardenId: string, appId: string): Promise<void> {
    await this.store.commits.do(() => this.store.cursors.removeSync([gardenId, appId]));
  }

  /** The newest report of each board of a garden, among its latest few thousand. */
  newestOf(gardenId: string): ReadonlyMap<string, Entry> {
    const known = this.latest.get(gardenId);
    if (known) return known;
    const found = new Map<string, Entry>();
    const newest = this.newest(gardenId);
    for (const entry of this.after(gardenId, Math.max(0, newest - LOOK_BACK), LOOK_BACK))
      found.set(entry.boardId, entry);
    this.latest.set(gardenId, found);
    return found;
  }

  /** Whether a board has ever reported. */
  hasHeard(gardenId: string, boardId: string): boolean {
    const { boots } = this.store;
    const keys = boots.getKeys({
      start: [gardenId, boardId, 0],
      end: [gardenId, boardId, Infinity],
      limit: 1,
    });
    return [...keys].length > 0;
  }

  newest(gardenId: string): number {
    return (this.store.gardens.get(gardenId) ?? NEW_GARDEN).next - 1;
  }

  gardenIds(): readonly string[] {
    return [...this.store.gardens.getKeys()];
  }

  holding(gardenId: string, nowMs: number): Holding {
    const { log, cursors, gardens } = this.store;
    const { next, bytes, warnedMs } = gardens.get(gardenId) ?? NEW_GARDEN;
    const [oldest] = log.getKeys({
      start: [gardenId, 0],
      end: [gardenId, Number.MAX_SAFE_INTEGER],
      limit: 1,
    });
    const apps = [...cursors.getRange({ start: [gardenId, ''], end: [gardenId, '\uffff'] })].map(
      ({ key, value }) => ({ ...value, id: key[1] }),
    );
    const watching = apps.filter(({ seenMs }) => nowMs - seenMs < FORGOTTEN_MS);
    return {
      newest: next - 1,
      oldest: oldest?.[1] ?? next,
      bytes,
      fetchedTo: watching.length === 0 ? 0 : Math.min(...watching.map(({ n }) => n)),
      apps,
      warnedMs,
    };
  }

  /** What all entries take, bytes. */
  bytes(): number {
    if (this.total === null) {
      let sum = 0;
      for (const { value } of this.store.gardens.getRange({})) sum += value.bytes;
      this.total = sum;
    }
    return this.total;
  }

  /** Entries have gone. */
  dropped(): void {
    this.total = null;
  }

  get limit(): number {
    return this.limitBytes;
  }

  async close(): Promise<void> {
    this.store.commits.write();
    await this.store.root.close();
  }
}

export function entryFrom(record: string): Entry | null {
  const read = entrySchema.safeParse(fromRecord(record)?.value);
  return read.success ? read.data : null;
}

const sameBoot = (one: object, other: object): boolean => JSON.stringify(one) === JSON.stringify(other);
