/**
 * Contacts: outputs that hold a state instead of giving a dose. A permit contact stands in series with somebody else's timer and can only forbid; a grow light
 * switches a ready-made plug. Whole numbers, times in s since boot, moisture in tenths, as in the engine; a contact's config names places in the engine's list
 * of sensors.
 */
import type { Conditions, Surroundings } from '../conditions/conditions.ts';
import type { Reason } from '../contract/reasons.ts';
import type { Ration } from '../contract/types.ts';

/** A moment of the day: by the clock a second of it, by the sun so many seconds after its rise or setting (negative: before). */
export type Edge = { readonly by: 'clock' | 'sunrise' | 'sunset'; readonly s: number };

/** Lets the other timer water below the start limit until the stop limit is reached, then forbids until the start limit is passed again. */
export type PermitRule = {
  readonly kind: 'permit';
  readonly startTenths: number;
  readonly stopTenths: number;
  /** How the contact is wired, and so what holds where nobody can tell or the board is dead: true lets the timer water, false forbids it. */
  readonly restPermits: boolean;
};

export type LightRule = {
  readonly kind: 'light';
  readonly from: Edge;
  readonly to: Edge;
  /** Within the hours it is lit from below the one value of the light cell until above the other; null: throughout. */
  readonly cell: { readonly darkBelow: number; readonly brightAbove: number } | null;
};

export type ContactGuards = {
  /** At a stretch, s. */
  readonly mostOnS: number;
  /** Between two stretches, s; boot counts as the end of one. */
  readonly leastOffS: number;
  /** In a rolling day, s. */
  readonly dayMaxS: number;
};

export type ContactConfig = {
  /** False: the person has switched it off, and it is at rest. */
  readonly enabled: boolean;
  readonly contradicts: boolean;
  readonly sensor: number | null;
  readonly rule: PermitRule | LightRule;
  readonly conditions: Conditions;
  readonly guards: ContactGuards;
};

/** Surroundings are by contact. */
export type ContactsInput = Surroundings & {
  /** Sunrise and sunset of this day in seconds of the local day; null: unknown, or the sun does not rise or set. */
  readonly sun: { readonly riseS: number; readonly setS: number } | null;
};

export type ContactState = {
  /** Lit, or permitting. */
  readonly isOn: boolean;
  /** At rest: nobody can tell, or nobody wants it. */
  readonly isResting: boolean;
  /** Since when it is on or off; boot counts. */
  readonly sinceS: number;
  /** Seconds on in the rolling day. */
  readonly day: Ration;
  /** Between two limits, what was seen last: wet soil, a dark cell; null: not seen yet. */
  readonly held: boolean | null;
  readonly reason: Reason;
};

export type ContactsState = { readonly nowS: number; readonly contacts: readonly ContactState[] };

export type ContactEvent = {
  readonly contact: number;
  readonly atS: number;
  readonly reason: Reason;
} & ({ readonly kind: 'on' } | { readonly kind: 'off'; readonly onS: number });

export type ContactsStep = {
  readonly state: ContactsState;
  /** By contact: whether its coil is driven. */
  readonly driven: readonly boolean[];
  readonly events: readonly ContactEvent[];
  readonly callAgainAtS: number | null;
  readonly write: boolean;
};

/** What a board keeps of a contact: seconds on, by their age in hours, newest first. */
export type RememberedContact = readonly number[];
