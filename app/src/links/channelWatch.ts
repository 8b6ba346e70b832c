import { streamFaults, type ProbeScale, type StreamFault } from '@plain-trowel/core/faults/streamFaults';
import { SettlingWatch, type Settling } from '@plain-trowel/core/settling/settlingWatch';
import type { StreamBuffer } from '@plain-trowel/core/signal/streamBuffer';

/** Newest readings that faults are looked for in, and how far apart whole-record looks (for the daily wave) are. */
const NEWEST_READINGS = 240;
const WHOLE_EVERY = 40;
const DAY_AND_HALF_MS = 1.5 * 86_400_000;

/** What one moisture channel's stream says: whether it has settled, and what is wrong with it. */
export class ChannelWatch {
  private watch: SettlingWatch;
  private found: readonly StreamFault[] = [];
  private handled: number[] = [];
  private looks = 0;

  constructor(
    private scale: ProbeScale,
    private readonly pace: { readonly everyS: number; readonly phaseS: number },
  ) {
    this.watch = new SettlingWatch({ ...scale, pace });
  }

  /** New references give a new scale; what was seen so far is looked at anew on it. */
  setScale(scale: ProbeScale, buffer: StreamBuffer): void {
    const isSame = scale.spanCounts === this.scale.spanCounts;
    this.scale = scale;
    if (isSame) return;
    this.watch = new SettlingWatch({ ...scale, pace: this.pace });
    const { timesMs, values } = buffer.since(Infinity, NEWEST_READINGS);
    for (const [at, timeMs] of timesMs.entries()) this.watch.push(timeMs / 1000, values[at] ?? 0);
  }

  push(timeMs: number, value: number): void {
    this.watch.push(timeMs / 1000, value);
  }

  /** A hand poured water or moved the probe: what leaps then is no fault. */
  handledAt(timeMs: number): void {
    this.handled = [...this.handled.slice(-20), timeMs];
  }

  look(buffer: StreamBuffer): void {
    const newest = buffer.since(Infinity, NEWEST_READINGS);
    this.found = streamFaults(newest, this.scale, this.handled);
    this.looks += 1;
    if (this.looks % WHOLE_EVERY !== 0) return;
    const whole = buffer.since(-Infinity);
    const lengthMs = (whole.timesMs.at(-1) ?? 0) - (whole.timesMs[0] ?? 0);
    if (lengthMs > DAY_AND_HALF_MS)
      this.found = [
        ...this.found,
        ...streamFaults(whole, this.scale, this.handled).filter((one) => one.kind === 'daily-wave'),
      ];
  }

  get settling(): Settling {
    return this.watch.settling();
  }

  within(toleranceFrac: number): Settling['left'] {
    return this.watch.within(toleranceFrac);
  }

  get faults(): readonly StreamFault[] {
    return this.found;
  }
}
