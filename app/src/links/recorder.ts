import type { GardenEvent } from '@plain-trowel/core/records/event';
import type { Reading } from '@plain-trowel/core/records/series';

const FLUSH_MS = 2000;

type Save = (
  readings: ReadonlyMap<string, readonly Reading[]>,
  events: readonly GardenEvent[],
) => Promise<void>;

/**
 * Keeps one reading per channel and interval and writes them away every two seconds. What it calls saved is on disk; what is not yet saved
 * stays here until it is, also when a write fails.
 */
export class Recorder {
  private readonly lastKeptMs = new Map<string, number>();
  private waiting = new Map<string, Reading[]>();
  private events: GardenEvent[] = [];
  private timer: ReturnType<typeof setTimeout> | null = null;
  private writing: Promise<void> = Promise.resolve();

  constructor(
    private readonly save: Save,
    private readonly report: (outcome: { savedToMs: number } | { problem: string }) => void,
  ) {}

  /** Offers a reading; it is kept when the interval since the last kept one has passed, or time went back. */
  offer(channelId: string, reading: Reading, logEveryS: number): void {
    const last = this.lastKeptMs.get(channelId);
    const since = last === undefined ? Infinity : reading.timeMs - last;
    if (since >= 0 && since < logEveryS * 1000) return;
    this.lastKeptMs.set(channelId, reading.timeMs);
    const list = this.waiting.get(channelId);
    if (list) list.push(reading);
    else this.waiting.set(channelId, [reading]);
    this.schedule();
  }

  note(events: readonly GardenEvent[]): void {
    this.events.push(...events);
    if (events.length > 0) this.schedule();
  }

  /** Writes everything away now; resolves when it is on disk or has been put back to wait. */
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
    if (this.waiting.size === 0 && this.events.length === 0) return;
    const { waiting, events } = this;
    this.waiting = new Map();
    this.events = [];
    try {
      await this.save(waiting, events);
      const times = [...waiting.values()].flatMap((list) => list.map((one) => one.timeMs));
      this.report({ savedToMs: Math.max(...times, ...events.map((event) => event.atMs)) });
    } catch {
      for (const [channelId, list] of waiting)
        this.waiting.set(channelId, [...list, ...(this.waiting.get(channelId) ?? [])]);
      this.events = [...events, ...this.events];
      this.report({
        problem:
          'The browser could not write the log. Free some disk space; the readings wait here and are tried again.',
      });
      this.schedule();
    }
  }
}
