/** A situation that a wiring is solved in: what the board's program does, what the probes say, how full the battery is. */

/** What a pin does, once the program has set it. */
export type PinDoes = 'high' | 'low' | 'reads a voltage' | 'reads on and off' | 'reads, pulled up';

export type Situation = {
  /** For a sentence: "while the board starts", "with Roof pump on". */
  readonly when: string;
  readonly kind: 'boot' | 'idle' | 'one on' | 'many on' | 'start' | 'empty' | 'signal' | 'contact';
  /** By terminal, as `endKey` names it; what is not in it floats. */
  readonly pins: ReadonlyMap<string, PinDoes>;
  /** Signals at their highest, by terminal; all others are at their lowest. */
  readonly high: ReadonlySet<string>;
  /** Contacts that are closed, by part. */
  readonly closed: ReadonlySet<string>;
  /** Loads that are just starting, by part. */
  readonly starting: ReadonlySet<string>;
  readonly batteries: 'full' | 'empty';
  /** Whether boards are on the air and everything takes its most. */
  readonly isBusy: boolean;
  /** A wire that has come off, by its id. */
  readonly without: string | null;
};
