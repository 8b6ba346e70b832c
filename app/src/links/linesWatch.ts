import { lineFault, type LineFault } from '@plain-trowel/core/faults/lineFaults';

const KEPT_BYTES = 400;
const RECENT_LINES = 12;

/** Watches the lines as such: whether any come, and whether they are text. Times are of a clock that never goes back, ms. */
export class LinesWatch {
  private kept = new Uint8Array(0);
  private baudRate: number | null = null;
  private recent: { atMs: number; garbage: boolean }[] = [];
  private bytesSinceLine = 0;
  private everALine = false;

  constructor(private openedMs: number) {}

  bytes(bytes: Uint8Array, baudRate: number): void {
    const all = new Uint8Array(this.kept.length + bytes.length);
    all.set(this.kept);
    all.set(bytes, this.kept.length);
    this.kept = all.slice(-KEPT_BYTES);
    this.baudRate = baudRate;
    this.bytesSinceLine += bytes.length;
  }

  line(atMs: number, garbage: boolean): void {
    this.recent = [...this.recent.slice(1 - RECENT_LINES), { atMs, garbage }];
    if (!garbage) {
      this.everALine = true;
      this.bytesSinceLine = 0;
    }
  }

  fault(nowMs: number): LineFault | null {
    const first = this.recent[0];
    const last = this.recent.at(-1);
    return lineFault({
      recent: this.recent.length,
      garbage: this.recent.filter((one) => one.garbage).length,
      quietS: (nowMs - (last?.atMs ?? this.openedMs)) / 1000,
      everALine: this.everALine,
      bytesSinceLine: this.bytesSinceLine,
      everyS:
        first && last && this.recent.length > 2
          ? (last.atMs - first.atMs) / 1000 / (this.recent.length - 1)
          : null,
      raw: this.baudRate === null ? null : { bytes: this.kept, baudRate: this.baudRate },
    });
  }
}
