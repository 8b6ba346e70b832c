import { recordingHead, recordingRow, type BenchHead } from '@plain-trowel/core/signal/benchRecording';
import type { Line } from './lineSource.ts';

/** A bench session being written down, line by line as it comes, until it is saved as a file. */
export class BenchRecorder {
  private rows: string[] = [];
  private head: BenchHead | null = null;
  private since = 0;

  get lines(): number | null {
    return this.head ? this.rows.length : null;
  }

  get sinceMs(): number {
    return this.since;
  }

  start(head: BenchHead, atMs: number): void {
    this.head = head;
    this.rows = [];
    this.since = atMs;
  }

  take(line: Line): void {
    if (this.head) this.rows.push(recordingRow(line));
  }

  /** Ends it; the file's text, or null when nothing was being written down. */
  stop(): string | null {
    if (!this.head) return null;
    const text = recordingHead(this.head) + this.rows.join('');
    this.head = null;
    this.rows = [];
    return text;
  }
}
