/** What a board's program is written from: its inputs, its outputs and its engine's settings; or what is missing. */
import type { EngineConfig } from '../control/engine/settings.ts';
import type { Output, Pin } from './pins.ts';

export type SketchInput = {
  readonly channelId: string;
  /** The name that the board prints it by, which the page knows already. */
  readonly name: string;
  readonly label: string;
  readonly pin: Pin;
  /** The pin that listens, of a sensor that has two. */
  readonly second?: Pin;
  readonly reads: Reads;
};

/** Counts of the converter, 0 and 1, or mm from the time that an echo takes. */
export const READS = ['analog', 'digital', 'distance'] as const;
export type Reads = (typeof READS)[number];

export type SketchLine = {
  /** Of the water line in the garden: what a board keeps belongs to it. */
  readonly id: string;
  readonly name: string;
  readonly output: Output;
};

export type BoardPlan = {
  readonly garden: string;
  readonly board: string;
  readonly traits: string;
  readonly adcBits: number;
  readonly inputs: readonly SketchInput[];
  readonly lines: readonly SketchLine[];
  readonly engine: EngineConfig;
  /** Places in the inputs: of each sensor and tank, and by line of its surroundings; null: not measured. */
  readonly sensorInputs: readonly number[];
  readonly tankInputs: readonly number[];
  readonly around: readonly {
    readonly light: number | null;
    readonly rain: number | null;
    readonly skip: number | null;
  }[];
  /** What stands above the program: calibrations and pins, one line each. */
  readonly heading: readonly string[];
  /** Channels of the board that are left out, and why. */
  readonly leftOut: readonly SketchProblem[];
};

/** Why something cannot be written into a board's program. `sheet` is where it is set. */
export type SketchProblem = {
  readonly kind:
    | 'nothing-to-do'
    | 'no-input-pin'
    | 'no-name'
    /** Two inputs, or an input and an output, are written to one pin. */
    | 'pin-taken-twice'
    | 'kind-not-written'
    | 'no-output-pin'
    | 'several-probes'
    | 'not-calibrated'
    | 'condition-not-written'
    | 'contacts-not-written'
    | 'tank-unread'
    | 'contradiction'
    /** The program in C++ needs more working memory than such a board has. */
    | 'too-large'
    | 'no-python';
  readonly what: string;
  readonly sheet:
    'plan/parts' | 'plan/wiring' | 'bench/readout' | 'bench/calibrate' | 'bench/dose' | 'rules/limits';
  /** The channel whose pins would solve it, and how many it has. */
  readonly channelId?: string;
  readonly pins?: 1 | 2;
};
