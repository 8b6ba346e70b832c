import { recordingHead, recordingRow, type BenchHead } from '@plain-trowel/core/signal/benchRecording';
import type { Line } from './lineSource.ts';

/** Where a session under way is kept, so that a reload does not lose it: the browser's own storage of this tab. */
export type BenchStore = Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>;

/** Rows are put by in pieces of so many. */
const PIECE = 40;

/** A bench session being written down, line by line as it comes, until it is saved as a file. A reload of the page goes on with it. */
export class BenchRecorder {
  private rows: string[] = [];
  private head: string | null = null;
  private since = 0;
  private kept = 0;
  private pieces = 0;
  private full = false;

  /** @param key of this garden's recording @param store null: a reload loses it */
  constructor(
    private readonly key: string,
    private readonly store: BenchStore | null,
  ) {
    this.takeUp();
  }

  get lines(): number | null {
    return this.head === null ? null : this.rows.length;
  }

  get sinceMs(): number {
    return this.since;
  }

  /** Whether a reload would lose what came last: the browser had no room for it. */
  get isAtRisk(): boolean {
    return this.full;
  }

  start(head: BenchHead, atMs: number): void {
    this.clear();
    this.head = recordingHead(head);
    this.since = atMs;
    this.put('head', JSON.stringify({ head: this.head, sinceMs: atMs }));
  }

  take(line: Line): void {
    if (this.head === null) return;
    this.rows.push(recordingRow(line));
    if (this.rows.length - this.kept >= PIECE) this.putBy();
  }

  /** Puts by what is not yet: when the page is left. */
  putBy(): void {
    if (this.head === null || this.rows.length === this.kept || this.full) return;
    if (this.put(String(this.pieces), this.rows.slice(this.kept).join(''))) {
      this.kept = this.rows.length;
      this.pieces += 1;
    }
  }

  /** Ends it; the file's text, or null when nothing was being written down. */
  stop(): string | null {
    if (this.head === null) return null;
    const text = this.head + this.rows.join('');
    this.clear();
    return text;
  }

  private put(part: string, text: string): boolean {
    try {
      this.store?.setItem(`${this.key} ${part}`, text);
      return true;
    } catch {
      this.full = true;
      return false;
    }
  }

  private takeUp(): void {
    const begun = parsed(this.store?.getItem(`${this.key} head`) ?? null);
    if (!begun) return;
    this.head = begun.head;
    this.since = begun.sinceMs;
    for (;;) {
      const piece = this.store?.getItem(`${this.key} ${this.pieces}`);
      if (piece == null) break;
      this.rows.push(...piece.split(/(?<=\n)/).filter((row) => row !== ''));
      this.pieces += 1;
    }
    this.kept = this.rows.length;
  }

  private clear(): void {
    for (let piece = 0; piece < this.pieces; piece += 1) this.store?.removeItem(`${this.key} ${piece}`);
    this.store?.removeItem(`${this.key} head`);
    this.head = null;
    this.rows = [];
    this.kept = 0;
    this.pieces = 0;
    this.full = false;
  }
}

function parsed(text: string | null): { head: string; sinceMs: number } | null {
  if (text === null) return null;
  try {
    const { head, sinceMs } = JSON.parse(text) as { head?: unknown; sinceMs?: unknown };
    return typeof head === 'string' && typeof sinceMs === 'number' && Number.isFinite(sinceMs)
      ? { head, sinceMs }
      : null;
  } catch {
    return null;
  }
}
