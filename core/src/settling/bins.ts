/**
 * The readings of one approach, packed into at most a fixed number of stretches of time ("bins"). When the room is used up, neighbours are joined
 * and the bins grow twice as wide; so an approach of any length costs the same to fit, and its beginning is never thrown away.
 */
export type Bin = {
  /** First and last reading in it, s on the stream's clock. */
  readonly fromS: number;
  readonly toS: number;
  /** Readings in it, ≥ 1. */
  readonly readings: number;
  /** Their mean, counts. */
  readonly mean: number;
};

const MOST_BINS = 96;

/** Two neighbours as one; the earlier first. */
const join = (early: Bin, late: Bin): Bin => ({
  fromS: early.fromS,
  toS: late.toS,
  readings: early.readings + late.readings,
  mean: (early.mean * early.readings + late.mean * late.readings) / (early.readings + late.readings),
});

export class Bins {
  private bins: Bin[] = [];
  /** Readings that fill a bin. */
  private size = 1;
  private held = 0;

  get all(): readonly Bin[] {
    return this.bins;
  }

  /** Readings in all of them. */
  get readings(): number {
    return this.held;
  }

  push(atS: number, value: number): void {
    const reading: Bin = { fromS: atS, toS: atS, readings: 1, mean: value };
    this.held += 1;
    const last = this.bins.at(-1);
    if (last && last.readings < this.size) this.bins[this.bins.length - 1] = join(last, reading);
    else this.bins.push(reading);
    if (this.bins.length > MOST_BINS) this.halve();
  }

  /** Forgets what lies wholly before a time. */
  dropBefore(atS: number): void {
    let oldest = this.bins[0];
    while (oldest && oldest.toS < atS) {
      this.held -= oldest.readings;
      this.bins.shift();
      oldest = this.bins[0];
    }
  }

  private halve(): void {
    const joined: Bin[] = [];
    for (let at = 0; at < this.bins.length; at += 2) {
      const [early, late] = [this.bins[at], this.bins[at + 1]];
      if (early) joined.push(late ? join(early, late) : early);
    }
    this.bins = joined;
    this.size *= 2;
  }
}
