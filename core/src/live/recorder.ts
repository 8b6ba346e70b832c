import { eventSchema, type EventDraft, type GardenEvent } from '../records/event.ts';
import { isReading, type Reading } from '../records/series.ts';

const FLUSH_MS = 2000;
/** One write takes so many at most, however many wait: a transaction stays short, and what is on disk grows steadily. */
const BATCH_READINGS = 5000;
const BATCH_EVENTS = 500;

/** Keeps readings and events, all of them or none. The same events, by their names, and the same readings twice are kept once. */
export type Save = (
  readings: ReadonlyMap<string, readonly Reading[]>,
  events: readonly GardenEvent[],
) => Promise<{ readonly beside: number }>;

export type RecorderState<Problem = string> = {
  /** The newest moment that is on disk; null before the first write. */
  readonly savedToMs: number | null;
  readonly problem: Problem | null;
  readonly waiting: { readonly readings: number; readonly events: number };
  /** Readings that met recorded ones with other values and stand beside them. */
  readonly beside: number;
};

/** What a recorder must be handed: storage, names, and a clock. */
export type RecorderNeeds<Problem> = {
  readonly save: Save;
  readonly report: (state: RecorderState<Problem>) => void;
  /** Gives events the names that they are known by. */
  readonly named: (drafts: readonly EventDraft[], author: GardenEvent['author']) => readonly GardenEvent[];
  /** What is wrong when a write has failed. */
  readonly problemOf: (error: unknown) => Problem;
  /** Runs something later; gives back how to call it off. */
  readonly after: (ms: number, run: () => void) => () => void;
};

type Offered = { readonly channelId: string; readonly reading: Reading };

/**
 * Keeps one reading per channel and interval and writes them away every two seconds, in batches. What it calls saved is on disk; what is not yet saved
 * stays here until it is, also when a write fails, and is written exactly once when storage is back.
 */
export class Recorder<Problem = string> {
  private readonly lastKeptMs = new Map<string, number>();
  private readings: Offered[] = [];
  private events: GardenEvent[] = [];
  private cancel: (() => void) | null = null;
  private writing: Promise<void> = Promise.resolve();
  private savedToMs: number | null = null;
  private problem: Problem | null = null;
  private besides = 0;

  constructor(private readonly needs: RecorderNeeds<Problem>) {}

  get state(): RecorderState<Problem> {
    return {
      savedToMs: this.savedToMs,
      problem: this.problem,
      waiting: { readings: this.readings.length, events: this.events.length },
      beside: this.besides,
    };
  }

  /** What waits and is not on disk, so that it can be saved as a file. */
  waiting(): {
    readonly readings: ReadonlyMap<string, readonly Reading[]>;
    readonly events: readonly GardenEvent[];
  } {
    return { readings: byChannel(this.readings), events: this.events };
  }

  /** Offers a reading; it is kept when the interval since the last kept one has passed, or time went back. One that cannot be recorded is not. */
  offer(channelId: string, reading: Reading, logEveryS: number): void {
    if (!isReading(reading)) return;
    const last = this.lastKeptMs.get(channelId);
    const since = last === undefined ? Infinity : reading.timeMs - last;
    if (since >= 0 && since < logEveryS * 1000) return;
    this.lastKeptMs.set(channelId, reading.timeMs);
    this.readings.push({ channelId, reading });
    this.schedule();
  }

  /** Takes events; one that could not be read back is left out, for it would hold up all that follow. @returns whether all were taken */
  note(drafts: readonly EventDraft[], author: GardenEvent['author'] = 'page'): boolean {
    const sound = this.needs.named(drafts, author).filter((event) => eventSchema.safeParse(event).success);
    this.events.push(...sound);
    if (sound.length > 0) this.schedule();
    return sound.length === drafts.length;
  }

  /** Writes everything away now; resolves when it is on disk or waits for storage. */
  flush(): Promise<void> {
    this.cancel?.();
    this.cancel = null;
    this.writing = this.writing.then(() => this.write());
    return this.writing;
  }

  private schedule(): void {
    this.cancel ??= this.needs.after(FLUSH_MS, () => void this.flush());
  }

  private async write(): Promise<void> {
    while (this.readings.length > 0 || this.events.length > 0) {
      const readings = this.readings.slice(0, BATCH_READINGS);
      const events = this.events.slice(0, BATCH_EVENTS);
      try {
        const outcome = await this.needs.save(byChannel(readings), events);
        this.besides += outcome.beside;
      } catch (error) {
        this.problem = this.needs.problemOf(error);
        this.needs.report(this.state);
        this.schedule();
        return;
      }
      // Only now, when it is on disk, does it leave the queue. What came meanwhile stands behind it.
      this.readings = this.readings.slice(readings.length);
      this.events = this.events.slice(events.length);
      let newest = this.savedToMs ?? -Infinity;
      for (const { reading } of readings) newest = Math.max(newest, reading.timeMs);
      for (const { atMs } of events) newest = Math.max(newest, atMs);
      this.savedToMs = newest;
      this.problem = null;
      this.needs.report(this.state);
    }
  }
}

function byChannel(offered: readonly Offered[]): Map<string, Reading[]> {
  const channels = new Map<string, Reading[]>();
  for (const { channelId, reading } of offered) {
    const list = channels.get(channelId);
    if (list) list.push(reading);
    else channels.set(channelId, [reading]);
  }
  return channels;
}
