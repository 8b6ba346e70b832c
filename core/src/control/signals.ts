/**
 * What a plot's lamp, buzzer and display say: of all states that hold, the first in the order that the person chose. "Content" holds always and comes
 * last by construction, or whatever stands after it would never be seen.
 */

export const SIGNAL_STATES = [
  'locked',
  'probe-fault',
  'tank-low',
  'too-cold',
  'too-hot',
  'too-dry',
  'too-wet',
  'night',
  'content',
] as const;
export type SignalState = (typeof SIGNAL_STATES)[number];

export const LAMP_COLOURS = ['off', 'red', 'amber', 'green', 'blue', 'white'] as const;
export type LampColour = (typeof LAMP_COLOURS)[number];
export const LAMP_RHYTHMS = ['steady', 'slow blink', 'fast blink'] as const;
export type LampRhythm = (typeof LAMP_RHYTHMS)[number];
export const BUZZES = ['silent', 'once', 'every minute'] as const;
export type Buzz = (typeof BUZZES)[number];

/** Letters that a small display has in one line. */
export const DISPLAY_LETTERS = 16;

export type SignalRule = {
  readonly state: SignalState;
  readonly on: boolean;
  readonly lamp: LampColour;
  readonly rhythm: LampRhythm;
  readonly buzz: Buzz;
  readonly display: string;
};

const rule = (
  state: SignalState,
  lamp: LampColour,
  display: string,
  rhythm: LampRhythm = 'steady',
): SignalRule => ({ state, on: true, lamp, rhythm, buzz: 'silent', display });

/** A beginning: doubt before moisture, so that nobody trusts a lamp whose probe is out; the night last, so that it hides no trouble. */
export const DEFAULT_SIGNALS: readonly SignalRule[] = [
  rule('locked', 'red', 'LOCKED: look', 'fast blink'),
  rule('probe-fault', 'white', 'Probe?', 'slow blink'),
  rule('tank-low', 'amber', 'Fill the tank', 'slow blink'),
  rule('too-cold', 'blue', 'Too cold', 'slow blink'),
  rule('too-hot', 'red', 'Too hot', 'slow blink'),
  rule('too-dry', 'red', 'Water me'),
  rule('too-wet', 'blue', 'Too wet'),
  rule('night', 'off', 'Good night'),
  rule('content', 'green', 'Content'),
];

/** What is known of a plot; null where nobody measures it, which then holds nothing. */
export type SignalFacts = {
  readonly isLocked: boolean;
  readonly isFaulty: boolean;
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

/** Whether a state holds for a plot. */
export function holds(state: SignalState, facts: SignalFacts, limits: SignalLimits): boolean {
  switch (state) {
    case 'locked':
      return facts.isLocked;
    case 'probe-fault':
      return facts.isFaulty;
    case 'tank-low':
      return facts.isTankLow;
    case 'too-dry':
      return below(facts.tenths, limits.dryTenths);
    case 'too-wet':
      return facts.tenths !== null && facts.tenths >= limits.wetTenths;
    case 'too-cold':
      return below(facts.soilTenthsC, limits.soilLowTenthsC) || below(facts.airTenthsC, limits.airLowTenthsC);
    case 'too-hot':
      return (
        above(facts.soilTenthsC, limits.soilHighTenthsC) || above(facts.airTenthsC, limits.airHighTenthsC)
      );
    case 'night':
      return facts.isDark === true;
    case 'content':
      return true;
  }
}

/** The rule that speaks for a plot: the first that is on and holds. Null only when even "content" is switched off. */
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
