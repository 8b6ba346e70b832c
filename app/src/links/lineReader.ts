import type { LineFault } from '@plain-trowel/core/faults/lineFaults';
import type { BoardReading } from '@plain-trowel/core/live/reading';
import { FLAGS } from '@plain-trowel/core/records/series';
import {
  initialLineParser,
  type CommaIs,
  parseLine,
  type LineParserState,
  type NotUnderstood,
} from '@plain-trowel/core/signal/line';
import type { Line } from './lineSource.ts';
import { LinesWatch } from './linesWatch.ts';

type BadLine = { readonly boardId: string; readonly text: string; readonly reason: NotUnderstood };

/** What a person has said of the lines of a board. */
export type BoardReads = { readonly comma: CommaIs; readonly picked: LineParserState['picked'] };

/** How the lines of a source are read: how many, how fast, and which were not understood. */
export type LinesRead = {
  readonly understood: number;
  readonly notUnderstood: number;
  /** Lines that arrived within the last seconds, and the time they took. */
  readonly recent: { readonly lines: number; readonly durationS: number };
  /** The newest that were not understood. */
  readonly badLines: readonly BadLine[];
  /** A line whose comma may be a decimal one or the border of two columns, with its board; null while there is none to ask about. */
  readonly asksComma: { readonly boardId: string; readonly text: string } | null;
};

const RATE_WINDOW_MS = 5000;
const BAD_LINES = 5;
const BAD_LINE_LETTERS = 120;

/** Makes readings of the lines of one source, each board by its own parser. Times are of a clock that never goes back, ms. */
export class LineReader {
  private understood = 0;
  private notUnderstood = 0;
  private badLines: readonly BadLine[] = [];
  private arrivals: { atMs: number; lines: number }[] = [];
  private readonly parsers = new Map<string, LineParserState>();
  private readonly watch: LinesWatch;

  private asksComma: LinesRead['asksComma'] = null;

  /** @param readsOf what a person has said of how a board's lines are read */
  constructor(
    private readonly tickMs: () => number,
    private readonly readsOf: (boardId: string) => BoardReads,
  ) {
    this.watch = new LinesWatch(tickMs());
  }

  /** So many lines have come at once. */
  arrived(lines: number): void {
    this.arrivals.push({ atMs: this.tickMs(), lines });
  }

  /** Bytes as they came over a serial line. */
  bytes(bytes: Uint8Array, baudRate: number): void {
    this.watch.bytes(bytes, baudRate);
  }

  /** A reading has come that was no line. */
  heard(): void {
    this.understood += 1;
    this.watch.line(this.tickMs(), false);
  }

  /** The reading of a line; null when it holds none. */
  read(line: Line, simulated: boolean): BoardReading | null {
    const { boardId, atMs, text } = line;
    const { comma: said, picked } = this.readsOf(boardId);
    const held = { ...(this.parsers.get(boardId) ?? initialLineParser), picked };
    const { state, result } = parseLine(said === null ? held : { ...held, comma: said }, text);
    this.parsers.set(boardId, state);
    if (result.kind !== 'blank')
      this.watch.line(this.tickMs(), result.kind === 'not-understood' && result.reason === 'garbage');
    if (result.kind === 'not-understood') {
      this.notUnderstood += 1;
      this.badLines = [
        ...this.badLines.slice(1 - BAD_LINES),
        { boardId, text: text.slice(0, BAD_LINE_LETTERS), reason: result.reason },
      ];
    }
    if (result.kind !== 'values') return null;
    this.understood += 1;
    if (result.asks === 'comma') this.asksComma = { boardId, text: text.trim().slice(0, BAD_LINE_LETTERS) };
    else if (this.asksComma?.boardId === boardId && (said ?? state.comma) !== null) this.asksComma = null;
    return { boardId, seq: null, atMs, values: result.values, flags: simulated ? FLAGS.simulated : 0 };
  }

  /** What is wrong with the lines as such. */
  fault(): LineFault | null {
    return this.watch.fault(this.tickMs());
  }

  get state(): LinesRead {
    const nowMs = this.tickMs();
    this.arrivals = this.arrivals.filter((one) => nowMs - one.atMs <= RATE_WINDOW_MS);
    const lines = this.arrivals.reduce((sum, one) => sum + one.lines, 0);
    const durationS = Math.max(1, (nowMs - (this.arrivals[0]?.atMs ?? nowMs)) / 1000);
    return {
      understood: this.understood,
      notUnderstood: this.notUnderstood,
      recent: { lines, durationS },
      badLines: this.badLines,
      asksComma: this.asksComma,
    };
  }
}
