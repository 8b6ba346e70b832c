import { named } from '../data/eventIds.ts';
import { problemOf, type StorageProblem } from '../data/storageProblem.ts';
import { eventSchema, type EventDraft, type GardenEvent } from '@plain-trowel/core/records/event';
import { isReading, type Reading } from '@plain-trowel/core/records/series';

const FLUSH_MS = 2000;
/** One write takes so many at most, however many wait: a transaction stays short, and what is on disk grows steadily. */
const BATCH_READINGS = 5000;
const BATCH_EVENTS = 500;

/** Keeps readings and events, all of them or none. The same events, by their names, and the same readings twice are kept once. */
export type Save = (
  readings: ReadonlyMap<string, readonly Reading[]>,
  events: readonly GardenEvent[],
) => Promise<{ readonly beside: number }>;

export type RecorderState = {
  /** The newest moment that is on disk; null before the first write. */
  readonly savedToMs: number | null;
  readonly problem: StorageProblem | null;
  readonly waiting: { readonly readings: number; readonly events: number };
  /** Readings that met recorded ones with other values and stand beside them. */
  readonly beside: number;
};

type Offered = { readonly channelId: string; readonly reading: Reading };

/**
 * Keeps one reading per channel and interval and writes them away every two seconds, in batches. What it calls saved is on disk; what is not yet saved
 * stays here until it is, also when a write fails, and is written exactly once when storage is back.
 */
export class Recorder {
  private readonly lastKeptMs = new Map<string, number>();
  private readings: Offered[] = [];
  private events: GardenEvent[] = [];
  private timer: ReturnType<typeof setTimeout> | null = null;
  private writing: Promise<void> = Promise.resolve();
  private savedToMs: number | null = null;
  private problem: StorageProblem | null = null;
  private besides = 0;

  constructor(
    private readonly save: Save,
    private readonly report: (state: RecorderState) => void,
  ) {}

  get state(): RecorderState {
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
    const sound = named(drafts, author).filter((event) => eventSchema.safeParse(event).success);
    this.events.push(...sound);
    if (sound.length > 0) this.schedule();
    return sound.length === drafts.length;
  }

  /** Writes everything away now; resolves when it is on disk or waits for storage. */
  flush(): Promise<void> {
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    this.writing = this.writing.then(() => this.write());
    return this.writing;
  }

  private schedule(): void {
    this.timer ??= setTimeout(() => void this.flush(), FLUSH_MS);
  }

  private async write(): Promise<void> {
    while (this.readings.length > 0 || this.events.length > 0) {
      const readings = this.readings.slice(0, BATCH_READINGS);
      const events = this.events.slice(0, BATCH_EVENTS);
      try {
        const outcome = await this.save(byChannel(readings), events);
        this.besides += outcome.beside;
      } catch (error) {
        this.problem = problemOf(error);
        this.report(this.state);
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
      this.report(this.state);
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
