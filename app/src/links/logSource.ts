import type { BoardLine } from '@plain-trowel/core/garden/bind/logReadings';
import type { SerialLog } from '@plain-trowel/core/signal/serialLog';
import type { Emit, LineSource, Speed } from './lineSource.ts';

const TICK_MS = 100;
/** A long log comes in portions, so that the screen stays awake. */
const MOST_LINES_A_TICK = 10_000;

export type LogSpeed = Speed | 'all';

/** What is played back: lines of one board, or of several, as a bench recording has them. */
export type PlayedLog = {
  readonly lines: readonly { readonly text: string; readonly atMs: number; readonly boardId?: string }[];
  readonly stamps: SerialLog['stamps'];
  /** The lines came from a stand-in. */
  readonly simulated?: boolean;
};

/** A serial log or a bench recording, played back at any pace. */
export class LogSource implements LineSource {
  readonly simulated: boolean;
  readonly can = { decides: false, records: false, isLive: false } as const;
  readonly orders = null;
  /** Its pace is its own: it can play everything at once. */
  readonly clock = null;
  readonly hands = null;
  readonly boardAt = () => null;
  /** The times of its lines are real enough to be taken into the log. */
  readonly mayRecord: boolean;
  private pace: LogSpeed = 'all';
  private next = 0;
  private positionMs: number;
  private lastTickMs = 0;
  private timer: ReturnType<typeof setInterval> | null = null;
  private emit: Emit | null = null;

  constructor(
    private readonly log: PlayedLog,
    private readonly boardId: string,
    readonly label: string,
    private readonly tickClockMs: () => number,
  ) {
    this.simulated = log.simulated ?? false;
    // Times that were made up must never stand in the record as if they had been measured.
    this.mayRecord = log.stamps === 'absolute' || log.stamps === 'absolute-utc';
    this.positionMs = log.lines[0]?.atMs ?? 0;
  }

  /** Plays from the first line, also when it has been played before. */
  start(emit: Emit): void {
    this.emit = emit;
    this.next = 0;
    this.positionMs = this.log.lines[0]?.atMs ?? 0;
    this.lastTickMs = this.tickClockMs();
    emit({ kind: 'status', status: 'open' });
    this.timer = setInterval(() => this.tick(), TICK_MS);
    this.tick();
  }

  stop(): Promise<void> {
    if (this.timer) clearInterval(this.timer);
    this.timer = null;
    return Promise.resolve();
  }

  /** All its lines, each with its board: for taking its readings into the log. */
  boardLines(): BoardLine[] {
    return this.log.lines.map((line) => ({ boardId: this.boardId, ...line }));
  }

  /** From when to when it goes, ms since 1970, and its lines. */
  get span(): { readonly fromMs: number; readonly toMs: number; readonly lines: number } {
    const { lines } = this.log;
    return { fromMs: lines[0]?.atMs ?? 0, toMs: lines.at(-1)?.atMs ?? 0, lines: lines.length };
  }

  get speed(): LogSpeed {
    return this.pace;
  }

  setSpeed(speed: LogSpeed): void {
    this.pace = speed;
  }

  nowMs(): number {
    return this.positionMs;
  }

  private tick(): void {
    const now = this.tickClockMs();
    const endMs = this.log.lines[this.log.lines.length - 1]?.atMs ?? 0;
    if (this.pace === 'all') this.positionMs = endMs;
    else this.positionMs += (now - this.lastTickMs) * this.pace;
    this.lastTickMs = now;
    const from = this.next;
    const most = Math.min(this.log.lines.length, from + MOST_LINES_A_TICK);
    const isDue = (at: number) => this.pace === 'all' || (this.log.lines[at]?.atMs ?? 0) <= this.positionMs;
    while (this.next < most && isDue(this.next)) this.next += 1;
    const lines = this.log.lines.slice(from, this.next).map((line) => ({ boardId: this.boardId, ...line }));
    if (lines.length > 0) this.emit?.({ kind: 'lines', lines });
    if (this.next < this.log.lines.length) return;
    this.positionMs = endMs;
    void this.stop();
    this.emit?.({ kind: 'status', status: 'ended', message: 'The end of the log.' });
  }
}
