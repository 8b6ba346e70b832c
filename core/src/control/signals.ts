/**
 * What a plot's lamp, buzzer and display say: of all states that hold, the first in the order that the person chose. "Content" is no rest that is left when
 * nothing else is shown: it holds only while everything that the plot is judged by is known, and nothing but the night holds beside it. It comes last by
 * construction, or whatever stands after it would never be seen.
 */
import type { Unknown } from './plotState.ts';

export const LAMP_COLOURS = ['off', 'red', 'amber', 'green', 'blue', 'white'] as const;
export type LampColour = (typeof LAMP_COLOURS)[number];
export const LAMP_RHYTHMS = ['steady', 'slow blink', 'fast blink'] as const;
export type LampRhythm = (typeof LAMP_RHYTHMS)[number];
export const BUZZES = [
  'silent',
  'once',
  'every minute',
  'every 10 minutes',
  'every hour',
  'while it lasts',
] as const;
export type Buzz = (typeof BUZZES)[number];

export type SignalRule = {
  readonly state: SignalState;
  readonly on: boolean;
  readonly lamp: LampColour;
  readonly rhythm: LampRhythm;
  readonly buzz: Buzz;
  /** With places for what is measured, in pages (`display`). */
  readonly display: string;
};

/** Why it cannot be said how a plot stands: its moisture is not known, or whether its reservoir still has water. */
export type SignalUnknown = Unknown | 'tank-unknown';

/** What is known of a plot; null where nobody measures it, which then holds nothing. */
export type SignalFacts = {
  readonly isLocked: boolean;
  readonly isFaulty: boolean;
  /** A line of it runs right now. */
  readonly isWatering: boolean;
  /** Null while all is known. */
  readonly unknown: SignalUnknown | null;
  readonly isTankLow: boolean;
  /** Moisture and temperatures in tenths; null while there is none to trust. */
  readonly tenths: number | null;
  readonly soilTenthsC: number | null;
  readonly airTenthsC: number | null;
  readonly isDark: boolean | null;
};

/** Limits in tenths of a percent and of a degree; null: not set. */
export type SignalLimits = {
  readonly dryTenths: number;
  readonly wetTenths: number;
  readonly soilLowTenthsC: number | null;
  readonly soilHighTenthsC: number | null;
  readonly airLowTenthsC: number | null;
  readonly airHighTenthsC: number | null;
};

const below = (value: number | null, limit: number | null): boolean =>
  value !== null && limit !== null && value < limit;
const above = (value: number | null, limit: number | null): boolean =>
  value !== null && limit !== null && value > limit;

type Signal = {
  /** When it holds. What nobody measures holds nothing. */
  readonly holds: (facts: SignalFacts, limits: SignalLimits) => boolean;
  /** How it is shown at first. */
  readonly lamp: LampColour;
  readonly rhythm: LampRhythm;
  readonly display: string;
};

/**
 * Every state, in the order it has at first: doubt before moisture, so that nobody trusts a lamp whose probe is out; the night late, so that it hides no
 * trouble; "content" last. A new state is one entry here and its words.
 */
export const SIGNALS = {
  locked: {
    holds: ({ isLocked }) => isLocked,
    lamp: 'red',
    rhythm: 'fast blink',
    display: 'LOCKED: look',
  },
  watering: {
    holds: ({ isWatering }) => isWatering,
    lamp: 'blue',
    rhythm: 'fast blink',
    display: 'Watering now|{word} {percent}',
  },
  'probe-fault': {
    holds: ({ isFaulty }) => isFaulty,
    lamp: 'white',
    rhythm: 'slow blink',
    display: 'Probe?',
  },
  'tank-low': {
    holds: ({ isTankLow }) => isTankLow,
    lamp: 'amber',
    rhythm: 'slow blink',
    display: 'Fill the tank',
  },
  'too-cold': {
    holds: (facts, limits) =>
      below(facts.soilTenthsC, limits.soilLowTenthsC) || below(facts.airTenthsC, limits.airLowTenthsC),
    lamp: 'blue',
    rhythm: 'slow blink',
    display: 'Too cold',
  },
  'too-hot': {
    holds: (facts, limits) =>
      above(facts.soilTenthsC, limits.soilHighTenthsC) || above(facts.airTenthsC, limits.airHighTenthsC),
    lamp: 'red',
    rhythm: 'slow blink',
    display: 'Too hot',
  },
  'too-dry': {
    holds: ({ tenths }, { dryTenths }) => below(tenths, dryTenths),
    lamp: 'red',
    rhythm: 'steady',
    display: 'Water me: {word}|{percent}',
  },
  'too-wet': {
    holds: ({ tenths }, { wetTenths }) => tenths !== null && tenths >= wetTenths,
    lamp: 'blue',
    rhythm: 'steady',
    display: '{word} {percent}',
  },
  unknown: {
    holds: ({ unknown }) => unknown !== null,
    lamp: 'white',
    rhythm: 'steady',
    display: '{word}',
  },
  night: { holds: ({ isDark }) => isDark === true, lamp: 'off', rhythm: 'steady', display: 'Good night' },
  // What holds beside it is asked of the others, in `holds` below.
  content: { holds: () => true, lamp: 'green', rhythm: 'steady', display: '{word} {percent}' },
} as const satisfies Readonly<Record<string, Signal>>;

export type SignalState = keyof typeof SIGNALS;
export const SIGNAL_STATES = Object.keys(SIGNALS) as readonly SignalState[];

export const DEFAULT_SIGNALS: readonly SignalRule[] = SIGNAL_STATES.map((state) => {
  const { lamp, rhythm, display } = SIGNALS[state];
  return { state, on: true, lamp, rhythm, buzz: 'silent', display };
});

/** States that take nothing from a plot's well-being. */
const HARMLESS: ReadonlySet<SignalState> = new Set(['night', 'watering', 'content']);

/** Whether a state holds for a plot. */
export const holds = (state: SignalState, facts: SignalFacts, limits: SignalLimits): boolean =>
  state === 'content'
    ? SIGNAL_STATES.every((one) => HARMLESS.has(one) || !SIGNALS[one].holds(facts, limits))
    : SIGNALS[state].holds(facts, limits);

/** The rule that speaks for a plot: the first that is on and holds. Null while all that holds is switched off: the lamp is dark then, never green. */
export const signalOf = (
  rules: readonly SignalRule[],
  facts: SignalFacts,
  limits: SignalLimits,
): SignalRule | null => rules.find((one) => one.on && holds(one.state, facts, limits)) ?? null;

/** Moves a rule one place up or down; "content" stays last, and nothing passes it. */
export function moveSignal(rules: readonly SignalRule[], state: SignalState, by: -1 | 1): SignalRule[] {
  const at = rules.findIndex((one) => one.state === state);
  const to = at + by;
  const moved = [...rules];
  const [one, other] = [rules[at], rules[to]];
  if (!one || !other || one.state === 'content' || other.state === 'content') return moved;
  moved[at] = other;
  moved[to] = one;
  return moved;
}
