/**
 * What the engine is told, what it remembers and what it answers. Whole numbers only, in the units of `settings.ts`; times in s since boot.
 */
import type { Reason } from './reasons.ts';

export type RawReading = {
  readonly raw: number;
  readonly atS: number;
  /** Whoever read it knows that it has not settled. */
  readonly unsettled?: boolean;
};

export type Order =
  | { readonly kind: 'water'; readonly line: number; readonly volumeMl: number }
  | { readonly kind: 'stop'; readonly line: number }
  /** The person looked at pump, tube and probe, and lets a locked line go on. */
  | { readonly kind: 'unlock'; readonly line: number };

/** Surroundings of a water line as they are now; null: unknown. */
export type Around = {
  readonly airTenthsC: number | null;
  /** What the light sensor gives, whole. */
  readonly light: number | null;
  readonly rain: boolean | null;
  readonly soilTenthsC: number | null;
  /** A switch by which a person holds the line. */
  readonly skip: boolean | null;
};

export type EngineInput = {
  /** Monotonic whole seconds since boot. */
  readonly nowS: number;
  /** By sensor: a new reading, or null when none came since the last step. Likewise the tanks. */
  readonly sensors: readonly (RawReading | null)[];
  readonly tanks: readonly (RawReading | null)[];
  /** Local time; null while the clock is unknown. Weekday 0 is Monday. */
  readonly clock: { readonly daySecond: number; readonly weekday: number } | null;
  /** By line: what is known of its surroundings. */
  readonly around: readonly Around[];
  /** The board's own battery; null: unknown. */
  readonly batteryMv: number | null;
  readonly orders: readonly Order[];
};

export type SensorState = {
  readonly raw: number;
  readonly atS: number;
  readonly unsettled: boolean;
  /** What the raw value means; null when it is outside of its range. */
  readonly tenths: number | null;
  /** Last leap; null: none seen. */
  readonly leapS: number | null;
};

export type TankState = { readonly raw: number; readonly atS: number };

/** Volume by clock hours since boot: what falls out of the window is only ever forgotten too late, never too early. */
export type Ration = { readonly hour: number; readonly ml: readonly number[]; readonly sumMl: number };

export type LineState = {
  /** The run under way: since when, why, how long it was meant to be, and the moisture it began at; null while off. */
  readonly run: Run | null;
  /** Last start; boot counts as one. Last end; null: none since boot. */
  readonly lastStartS: number;
  readonly lastStopS: number | null;
  readonly ration: Ration;
  /** Pulses given in this episode. */
  readonly pulses: number;
  /** When each time of the timer was last served. */
  readonly served: readonly (number | null)[];
  /** A dose whose rise is being watched for. */
  readonly watch: { readonly fromTenths: number; readonly untilS: number } | null;
  readonly noRise: number;
  readonly locked: boolean;
  /** Finished automatic runs since boot and the length of the last: what followers go by. */
  readonly runs: number;
  readonly lastRanS: number;
  /** A follower's: leader's runs that it has seen, and the run it still owes. */
  readonly seenRuns: number;
  readonly owes: { readonly runS: number; readonly untilS: number } | null;
  /** Since when the probe has been faulty; null while it is not. */
  readonly faultyS: number | null;
  readonly reason: Reason;
};

export type Run = {
  readonly sinceS: number;
  readonly reason: Reason;
  readonly plannedS: number;
  readonly fromTenths: number | null;
  /** Maximum run and maximum of a day as they were when it began: loosened later, they do not lengthen it. */
  readonly mostS: number;
  readonly dayMl: number;
};

export type EngineState = {
  readonly nowS: number;
  readonly sensors: readonly (SensorState | null)[];
  readonly tanks: readonly (TankState | null)[];
  readonly lines: readonly LineState[];
};

export type EngineEvent = { readonly line: number; readonly atS: number; readonly reason: Reason } & (
  | { readonly kind: 'started'; readonly plannedS: number; readonly tenths: number | null }
  | { readonly kind: 'stopped'; readonly ranS: number; readonly volumeMl: number }
  /** Not running, and why; told once, when the reason is new. */
  | { readonly kind: 'held' }
  /** An order that was not obeyed. */
  | { readonly kind: 'refused' }
  | { readonly kind: 'locked' }
  | { readonly kind: 'unlocked' }
);

export type EngineStep = {
  readonly state: EngineState;
  /** By line: whether its output is on. */
  readonly on: readonly boolean[];
  readonly events: readonly EngineEvent[];
  /** The next time at which the engine must be called even if nothing is read; null when only a reading can change anything. */
  readonly callAgainAtS: number | null;
  /** What a board keeps has changed: it must be written down now (`rememberedOf`), before anything else. */
  readonly write: boolean;
};

/**
 * What a board keeps of a line through a reboot. Written whenever a step asks for it: at each start and end of a run, at locks, and at each full hour while the
 * day has had water. Time for which a board was off counts as none; hours that it lived through are counted on.
 */
export type RememberedLine = {
  /** The day's volume by its age in hours, newest first, at most 25; whole ml. */
  readonly hoursMl: readonly number[];
  readonly locked: boolean;
  readonly noRise: number;
  /** Pulses of the round that was under way; its wait and its rest begin again at boot. */
  readonly pulses: number;
  /** A dose whose rise was being watched for, by the moisture that it began at; null: none. */
  readonly watchTenths: number | null;
};
export type Remembered = readonly RememberedLine[];
