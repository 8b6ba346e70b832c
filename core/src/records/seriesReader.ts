/** Readings of any span, a stretch at a time, for whoever needs them: a chart, a worker, an export. */
import { readDay } from './packDay.ts';
import { joinThin, partOfDay, thinDay, unpackThin, type ThinDay, type ThinSeries } from './thinDay.ts';
import { DAY_MS, dayOf, seriesOf, type DayBlock, type Series } from './series.ts';

/** Where the days of a garden's channels lie. What comes back is believed only after a look. */
export type DayStore = {
  /** Days of a channel that hold something: midnights UTC, ms, oldest first, both ends included. */
  readonly days: (channelId: string, fromDayMs: number, toDayMs: number) => Promise<readonly number[]>;
  /** What is stored of those days, in their order. */
  readonly read: (channelId: string, daysMs: readonly number[]) => Promise<readonly unknown[]>;
  /** Thinned days that were stored with theirs, of those between two, both included. */
  readonly readThin?: (channelId: string, fromDayMs: number, toDayMs: number) => Promise<readonly unknown[]>;
};

export type Span = {
  readonly channelId: string;
  /** Both ends are included, ms since 1970. */
  readonly fromMs: number;
  readonly toMs: number;
  /** Also the readings that stand beside recorded ones. */
  readonly withBeside?: boolean;
};

/** A stretch of a channel's record, and the days within it that could not be read. */
export type StoredSeries = Series & { readonly damagedDays: readonly number[] };

/** So many days are read at once: a month, some 40,000 readings at two a minute. */
const DAYS_AT_ONCE = 31;

type Days = { readonly sound: readonly DayBlock[]; readonly damagedDays: readonly number[] };

/** Reads spans of a garden's record. Days that were read stay with it, up to a number of rows, until it is told that they were written. */
export class SeriesReader {
  /** By channel and day, the one used longest ago first. */
  private readonly kept = new Map<string, DayBlock>();
  private keptRows = 0;
  /** Thinned days: small enough to stay. */
  private readonly thinned = new Map<string, ThinDay>();
  /** Counts what was written, so that a day that was read before it was written is not kept after. */
  private writes = 0;

  /** @param mostRows readings that may stay with it; 0 keeps none */
  constructor(
    private readonly store: DayStore,
    private readonly mostRows = 0,
  ) {}

  /** The readings of a span in stretches, oldest first; never more than a month in memory. */
  async *chunks(span: Span): AsyncGenerator<StoredSeries> {
    for await (const days of this.daysOf(span)) yield cut(days, span);
  }

  /** The readings of a span as one stretch. */
  async read(span: Span): Promise<StoredSeries> {
    const [sound, damagedDays]: [DayBlock[], number[]] = [[], []];
    for await (const days of this.daysOf(span)) {
      sound.push(...days.sound);
      damagedDays.push(...days.damagedDays);
    }
    return cut({ sound, damagedDays }, span);
  }

  /** The readings of a long span, thinned to a few an hour; how many they are, and where gaps lie, is as of all of them. */
  async thin(span: Span): Promise<ThinSeries & { readonly damagedDays: readonly number[] }> {
    const { channelId, fromMs, toMs } = span;
    const all = await this.store.days(channelId, dayOf(fromMs), dayOf(toMs));
    const isWhole = (dayMs: number) => dayMs >= fromMs && dayMs + DAY_MS - 1 <= toMs;
    await this.takeThin(
      channelId,
      all.filter((dayMs) => isWhole(dayMs) && !this.thinned.has(keyOf(channelId, dayMs))),
    );
    const missing = all.filter((dayMs) => !isWhole(dayMs) || !this.thinned.has(keyOf(channelId, dayMs)));
    const parts = new Map<number, ThinDay>();
    const damagedDays: number[] = [];
    for (let at = 0; at < missing.length; at += DAYS_AT_ONCE) {
      const writesBefore = this.writes;
      const days = await this.blocksOf(channelId, missing.slice(at, at + DAYS_AT_ONCE));
      damagedDays.push(...days.damagedDays);
      for (const block of days.sound) {
        const isAll = isWhole(block.dayMs);
        const thin = thinDay(isAll ? block : partOfDay(block, fromMs, toMs));
        parts.set(block.dayMs, thin);
        if (isAll && writesBefore === this.writes && this.mostRows > 0)
          this.thinned.set(keyOf(channelId, block.dayMs), thin);
      }
    }
    const thin = all.flatMap((dayMs) => parts.get(dayMs) ?? this.thinned.get(keyOf(channelId, dayMs)) ?? []);
    return { ...joinThin(thin), damagedDays };
  }

  /** Takes the thinned days of a channel that are stored, so that a long span opens at once. Makes none. */
  async readAhead(channelId: string): Promise<void> {
    const all = await this.store.days(channelId, -Infinity, Infinity);
    await this.takeThin(
      channelId,
      all.filter((dayMs) => !this.thinned.has(keyOf(channelId, dayMs))),
    );
  }

  /** Takes what is stored of the thinned days; whatever is not, or cannot be read, is thinned from its day. */
  private async takeThin(channelId: string, daysMs: readonly number[]): Promise<void> {
    const [first] = daysMs;
    const last = daysMs.at(-1);
    if (first === undefined || last === undefined || this.mostRows === 0 || !this.store.readThin) return;
    const writesBefore = this.writes;
    const stored = await this.store.readThin(channelId, first, last);
    if (writesBefore !== this.writes) return;
    for (const one of stored) {
      const thin = unpackThin(one);
      if (thin?.block.channelId === channelId) this.thinned.set(keyOf(channelId, thin.block.dayMs), thin);
    }
  }

  /** Days of a channel were written: they are read again when they are next asked for. */
  written(channelId: string, daysMs: Iterable<number>): void {
    this.writes += 1;
    for (const dayMs of daysMs) {
      this.drop(keyOf(channelId, dayMs));
      this.thinned.delete(keyOf(channelId, dayMs));
    }
  }

  /** Anything may have been written. */
  forget(): void {
    this.writes += 1;
    this.kept.clear();
    this.thinned.clear();
    this.keptRows = 0;
  }

  private async *daysOf({ channelId, fromMs, toMs }: Span): AsyncGenerator<Days> {
    const all = await this.store.days(channelId, dayOf(fromMs), dayOf(toMs));
    for (let at = 0; at < all.length; at += DAYS_AT_ONCE)
      yield this.blocksOf(channelId, all.slice(at, at + DAYS_AT_ONCE));
  }

  private async blocksOf(channelId: string, daysMs: readonly number[]): Promise<Days> {
    const missing = daysMs.filter((dayMs) => !this.kept.has(keyOf(channelId, dayMs)));
    const writesBefore = this.writes;
    const read = new Map<number, unknown>();
    if (missing.length > 0) {
      const found = await this.store.read(channelId, missing);
      missing.forEach((dayMs, at) => read.set(dayMs, found[at]));
    }
    const [sound, damagedDays]: [DayBlock[], number[]] = [[], []];
    for (const dayMs of daysMs) {
      const key = keyOf(channelId, dayMs);
      const stored = this.kept.get(key) ?? read.get(dayMs);
      // Gone since its day was listed: nothing is there, and nothing is damaged.
      if (stored === undefined) continue;
      const block = readDay(stored);
      if (!block) damagedDays.push(dayMs);
      else {
        sound.push(block);
        if (writesBefore === this.writes) this.keep(key, block);
      }
    }
    return { sound, damagedDays };
  }

  private keep(key: string, block: DayBlock): void {
    this.drop(key);
    if (block.raw.length > this.mostRows) return;
    this.kept.set(key, block);
    this.keptRows += block.raw.length;
    for (const oldest of this.kept.keys()) {
      if (this.keptRows <= this.mostRows) return;
      this.drop(oldest);
    }
  }

  private drop(key: string): void {
    this.keptRows -= this.kept.get(key)?.raw.length ?? 0;
    this.kept.delete(key);
  }
}

const keyOf = (channelId: string, dayMs: number) => `${dayMs} ${channelId}`;

const cut = ({ sound, damagedDays }: Days, { fromMs, toMs, withBeside }: Span): StoredSeries => ({
  ...seriesOf(sound, fromMs, toMs, withBeside),
  damagedDays,
});
