import type { DrillCapture, Slot } from '@plain-trowel/core/calibration/drill';
import { judgeAtRest, type RestAnswer } from '@plain-trowel/core/handsFree/atRest';
import { SettlingWatch, type Settling } from '@plain-trowel/core/settling/settlingWatch';
import {
  captureDrill,
  DRILL_SPAN,
  newDrill,
  readDrill,
  stepDrill,
  type DrillBench,
} from '@plain-trowel/standins/drill/drillBench';

const TICK_S = 0.25;
const RECENT = 12;
const SEED = 1903;

export type DrillShown = {
  readonly bench: DrillBench;
  readonly value: number;
  readonly settling: Settling;
  readonly captures: Readonly<Partial<Record<Slot, DrillCapture>>>;
  /** What is taken by itself once it rests. */
  readonly waitsFor: Slot | null;
  /** How that stands. */
  readonly answer: RestAnswer;
};

/** The practice bench while it runs: four readings a second of its own clock, watched by the same watch as a real probe. */
export class DrillSession {
  private bench = newDrill(SEED);
  private watch = new SettlingWatch({ spanCounts: DRILL_SPAN });
  private recent: number[] = [];
  private captures: DrillShown['captures'] = {};
  private waitsFor: Slot | null = null;
  private shown: DrillShown = this.look();
  private readonly listeners = new Set<() => void>();

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly getSnapshot = (): DrillShown => this.shown;

  /** @param steps quarters of a second that pass */
  tick(steps: number): void {
    for (let at = 0; at < steps; at += 1) {
      const read = readDrill(stepDrill(this.bench, TICK_S));
      this.bench = read.bench;
      this.recent = [...this.recent, read.value].slice(-RECENT);
      this.watch.push(this.bench.timeS, read.value);
      if (this.waitsFor && this.judge(this.waitsFor).kind === 'ready') this.take(this.waitsFor);
    }
    this.publish();
  }

  change(to: (bench: DrillBench) => DrillBench): void {
    this.bench = to(this.bench);
    this.publish();
  }

  /** Takes it as it is. */
  capture(slot: Slot): void {
    this.take(slot);
    this.publish();
  }

  /** It is in place: taken by itself once it rests. Null takes that back. */
  waitFor(slot: Slot | null): void {
    this.waitsFor = slot;
    this.publish();
  }

  private take(slot: Slot): void {
    this.captures = { ...this.captures, [slot]: captureDrill(this.bench, slot, this.middle()) };
    this.waitsFor = null;
  }

  private middle(): number {
    const sorted = [...this.recent].sort((a, b) => a - b);
    return sorted[Math.floor(sorted.length / 2)] ?? Math.round(this.bench.counts);
  }

  /** By the same judgement as a real probe's. */
  private judge(slot: Slot): RestAnswer {
    const settling = this.watch.settling();
    const value = {
      rawCounts: this.middle(),
      noiseCounts: settling.noiseCounts,
      spreadCounts: settling.noiseCounts,
      stepCounts: 1,
      driftCountsPerMin: settling.driftCountsPerMin,
      readings: this.recent.length,
      windowS: this.recent.length * TICK_S,
      atMs: 1000 * this.bench.timeS,
    };
    const other = this.captures[slot === 'dry' ? 'wet' : 'dry'];
    return judgeAtRest(
      {
        now: value,
        capture: value,
        settling,
        isSpoilt: false,
        spanCounts: DRILL_SPAN,
        lowCounts: -Infinity,
        highCounts: Infinity,
      },
      other ? [other.rawCounts] : [],
    );
  }

  again(): void {
    this.bench = newDrill(SEED);
    this.watch = new SettlingWatch({ spanCounts: DRILL_SPAN });
    this.recent = [];
    this.captures = {};
    this.waitsFor = null;
    this.publish();
  }

  private look(): DrillShown {
    return {
      bench: this.bench,
      value: this.recent.at(-1) ?? this.middle(),
      settling: this.watch.settling(),
      captures: this.captures,
      waitsFor: this.waitsFor,
      answer: this.judge(this.waitsFor ?? 'dry'),
    };
  }

  private publish(): void {
    this.shown = this.look();
    for (const listener of this.listeners) listener();
  }
}
