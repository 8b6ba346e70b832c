import type { DrillCapture, Slot } from '@plain-trowel/core/calibration/drill';
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
  /** Middle of the newest readings, as a capture takes it. */
  readonly middle: number;
  readonly settling: Settling;
  readonly captures: Readonly<Partial<Record<Slot, DrillCapture>>>;
};

/** The practice bench while it runs: four readings a second of its own clock, watched by the same watch as a real probe. */
export class DrillSession {
  private bench = newDrill(SEED);
  private watch = new SettlingWatch({ spanCounts: DRILL_SPAN });
  private recent: number[] = [];
  private captures: DrillShown['captures'] = {};
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
    }
    this.publish();
  }

  change(to: (bench: DrillBench) => DrillBench): void {
    this.bench = to(this.bench);
    this.publish();
  }

  capture(slot: Slot): void {
    this.captures = { ...this.captures, [slot]: captureDrill(this.bench, slot, this.shown.middle) };
    this.publish();
  }

  again(): void {
    this.bench = newDrill(SEED);
    this.watch = new SettlingWatch({ spanCounts: DRILL_SPAN });
    this.recent = [];
    this.captures = {};
    this.publish();
  }

  private look(): DrillShown {
    const sorted = [...this.recent].sort((a, b) => a - b);
    const middle = sorted[Math.floor(sorted.length / 2)] ?? Math.round(this.bench.counts);
    return {
      bench: this.bench,
      value: this.recent.at(-1) ?? middle,
      middle,
      settling: this.watch.settling(),
      captures: this.captures,
    };
  }

  private publish(): void {
    this.shown = this.look();
    for (const listener of this.listeners) listener();
  }
}
