import { streamFaults, type ProbeScale, type StreamFault } from '../faults/streamFaults.ts';
import { SettlingWatch, type Settling } from '../settling/settlingWatch.ts';
import type { StreamBuffer } from '../signal/streamBuffer.ts';

/** Newest readings that faults are looked for in. */
const NEWEST_READINGS = 240;
const LOOK_EVERY_MS = 2000;
/** A change later than this after a leap or a hand is the soil's own, ms. */
const MOVING_MS = 3_600_000;
/** How far apart looks at the whole record are, and how long it must be. */
const WAVE_EVERY_MS = 600_000;
const DAY_AND_HALF_MS = 1.5 * 86_400_000;

export type Window = ReturnType<StreamBuffer['since']>;

/** What one moisture channel's stream says: whether it has settled, and what is wrong with it. */
export class ChannelWatch {
  private watch: SettlingWatch;
  private found: readonly StreamFault[] = [];
  private handled: number[] = [];
  private wave: StreamFault | null = null;
  private isFresh = false;
  private lastMs = -Infinity;
  private lookedMs = -Infinity;
  private waveAskedMs = -Infinity;

  constructor(
    private scale: ProbeScale,
    private readonly pace: { readonly everyS: number; readonly phaseS: number },
  ) {
    this.watch = new SettlingWatch({ ...scale, pace });
  }

  /** New references give a new scale; what was seen so far is looked at again on it. */
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
    this.lastMs = timeMs;
    this.isFresh = true;
  }

  /** A hand poured water or moved the probe: what leaps then is no fault. */
  handledAt(timeMs: number): void {
    this.handled = [...this.handled.slice(-20), timeMs];
    this.isFresh = true;
    this.lookedMs = -Infinity;
  }

  /** Since when nothing has changed that is known of, ms: no hand was at work and no leap was seen; null while something is changing. */
  get calmSinceMs(): number | null {
    const { verdict, watchedS } = this.watch.settling();
    if (verdict === 'disturbed') return null;
    return Math.max(this.lastMs - watchedS * 1000, this.handled.at(-1) ?? -Infinity);
  }

  /**
   * Whether the reading is on its way somewhere: a hand was at work or it leapt, not an hour ago, and it has not stopped since. Later than that it is the soil
   * that moves, by drying or by the day, and that must not hold water back.
   */
  isMoving(nowMs: number): boolean {
    const { verdict } = this.watch.settling();
    const calmMs = this.calmSinceMs;
    if (calmMs === null) return true;
    return verdict === 'settling' && nowMs - calmMs < MOVING_MS;
  }

  /** Looks for faults where something new has come, every two seconds at the most. @param tickMs of a clock that never goes back */
  look(buffer: StreamBuffer, tickMs: number): void {
    if (!this.isFresh || tickMs - this.lookedMs < LOOK_EVERY_MS) return;
    this.isFresh = false;
    this.lookedMs = tickMs;
    this.found = streamFaults(buffer.since(Infinity, NEWEST_READINGS), this.scale, this.handled);
  }

  /** The whole record where it is time to look for a daily wave in it; null otherwise. That costs too much to be done beside the lines. */
  recordForWave(buffer: StreamBuffer, tickMs: number): Window | null {
    if (tickMs - this.waveAskedMs < WAVE_EVERY_MS) return null;
    const whole = buffer.since(-Infinity);
    const lengthMs = (whole.timesMs.at(-1) ?? 0) - (whole.timesMs[0] ?? 0);
    if (lengthMs <= DAY_AND_HALF_MS) return null;
    this.waveAskedMs = tickMs;
    return whole;
  }

  /** What was found in the whole record. */
  setWave(wave: StreamFault | null): void {
    this.wave = wave;
  }

  get settling(): Settling {
    return this.watch.settling();
  }

  within(toleranceFrac: number): Settling['left'] {
    return this.watch.within(toleranceFrac);
  }

  get faults(): readonly StreamFault[] {
    return this.wave ? [...this.found, this.wave] : this.found;
  }
}
