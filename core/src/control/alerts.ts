/**
 * Alerts: what is told to a person, and when again. A pure reducer: facts and times in, states and what is to be told out; sending is done elsewhere.
 *
 * An alert is raised when its fact has held for the hold-off, and cleared when the value has come back by the hysteresis. In quiet hours nothing is told,
 * and what is still so afterwards is told then. An acknowledged alert is not repeated, but for a locked line, which stays told until it is unlocked; a snoozed
 * one is told again when the snooze is over.
 */

import { isBetween } from '../quantity/hours.ts';

export type AlertRule = {
  readonly kind: AlertKind;
  readonly on: boolean;
  /** How far the value must come back before it is over, in the unit of the fact. */
  readonly hysteresis: number;
  /** How long it must have been so, s. */
  readonly holdOffS: number;
  /** Told again after this, s; 0: once. */
  readonly repeatS: number;
  /** Minutes of the day between which nothing is told, over midnight when the first is later; null: at any hour. */
  readonly quiet: { readonly fromMinute: number; readonly toMinute: number } | null;
};

const NIGHT = { fromMinute: 22 * 60, toMinute: 7 * 60 } as const;
const HOUR_S = 3600;
const DAY_S = 86_400;
const usual = (
  hysteresis: number,
  holdOffS: number,
  repeatS: number,
  quiet: AlertRule['quiet'],
): Omit<AlertRule, 'kind' | 'on'> => ({ hysteresis, holdOffS, repeatS, quiet });

/**
 * Every kind with its settings at first. Frost, a locked line and an empty tank do not wait for the morning. Moisture in tenths of a percent, degrees in tenths,
 * volts in mV. A new kind is one entry here, what it watches (`garden/watched`) and its words.
 */
export const ALERTS = {
  dry: usual(30, HOUR_S, DAY_S, NIGHT),
  wet: usual(30, 3 * HOUR_S, DAY_S, NIGHT),
  hot: usual(20, 600, 6 * HOUR_S, NIGHT),
  cold: usual(10, 300, 2 * HOUR_S, null),
  'probe-fault': usual(0, 1800, DAY_S, NIGHT),
  // Whoever pulled it out stands beside it; if nobody did, the plant has only the fallback.
  'out-of-soil': usual(0, 0, 6 * HOUR_S, null),
  'silent-board': usual(0, 1800, DAY_S, NIGHT),
  'tank-low': usual(0, 300, 12 * HOUR_S, null),
  'battery-low': usual(200, 1800, DAY_S, NIGHT),
  'frozen-charge': usual(10, 300, 6 * HOUR_S, null),
  'line-locked': usual(0, 0, 6 * HOUR_S, null),
  recalibrate: usual(0, 0, 7 * DAY_S, NIGHT),
} as const satisfies Readonly<Record<string, Omit<AlertRule, 'kind' | 'on'>>>;

export type AlertKind = keyof typeof ALERTS;
export const ALERT_KINDS = Object.keys(ALERTS) as readonly AlertKind[];
export const DEFAULT_ALERTS: readonly AlertRule[] = ALERT_KINDS.map((kind) => ({
  kind,
  on: true,
  ...ALERTS[kind],
}));

/** One thing that is watched: a value against a limit, or a plain fact. An unknown value (null) changes nothing. */
export type Watched = {
  /** Alert and what it is about, such as "dry lemon". */
  readonly key: string;
  readonly kind: AlertKind;
  readonly subjectId: string;
} & (
  | { readonly value: number | null; readonly limit: number; readonly side: 'below' | 'above' }
  | { readonly holds: boolean | null }
);

export type AlertState = {
  /** Since when it has been so without a break, ms. */
  readonly sinceMs: number;
  /** When it was raised; null: still within its hold-off. */
  readonly raisedMs: number | null;
  /** When it was last told; null: not yet, for quiet hours or a snooze. */
  readonly toldMs: number | null;
  readonly acknowledged: boolean;
  readonly snoozedUntilMs: number | null;
};
export type AlertStates = Readonly<Record<string, AlertState>>;

export type Told = {
  readonly key: string;
  readonly kind: AlertKind;
  readonly subjectId: string;
  readonly phase: 'raised' | 'repeated' | 'cleared';
};

export function stepAlerts(
  states: AlertStates,
  watched: readonly Watched[],
  rules: readonly AlertRule[],
  now: { readonly ms: number; readonly minute: number },
): { readonly states: AlertStates; readonly told: readonly Told[] } {
  const next: Record<string, AlertState> = {};
  const told: Told[] = [];
  for (const one of watched) {
    const rule = rules.find((of) => of.kind === one.kind);
    if (!rule?.on) continue;
    const before = states[one.key] ?? null;
    const isSo = stillHolds(one, before !== null, rule.hysteresis);
    const subject = { key: one.key, kind: one.kind, subjectId: one.subjectId };
    if (isSo === false) {
      // What nobody was told of needs no all-clear.
      if (before !== null && before.toldMs !== null) told.push({ ...subject, phase: 'cleared' });
      continue;
    }
    if (isSo === null && before === null) continue;
    const state = raise(before ?? begun(now.ms), rule, now.ms);
    const phase = isDue(state, rule, now);
    if (phase) told.push({ ...subject, phase });
    next[one.key] = phase ? { ...state, toldMs: now.ms, snoozedUntilMs: null } : state;
  }
  return { states: next, told };
}

const begun = (ms: number): AlertState => ({
  sinceMs: ms,
  raisedMs: null,
  toldMs: null,
  acknowledged: false,
  snoozedUntilMs: null,
});

/** @returns null while it is unknown */
function stillHolds(one: Watched, wasSo: boolean, hysteresis: number): boolean | null {
  if ('holds' in one) return one.holds;
  if (one.value === null) return null;
  const back = wasSo ? hysteresis : 0;
  return one.side === 'below' ? one.value < one.limit + back : one.value > one.limit - back;
}

const raise = (state: AlertState, rule: AlertRule, ms: number): AlertState =>
  state.raisedMs === null && ms - state.sinceMs >= rule.holdOffS * 1000 ? { ...state, raisedMs: ms } : state;

function isDue(
  state: AlertState,
  rule: AlertRule,
  now: { readonly ms: number; readonly minute: number },
): 'raised' | 'repeated' | null {
  const insists = INSISTS.has(rule.kind);
  if (state.raisedMs === null || (state.acknowledged && !insists)) return null;
  if (rule.quiet && isBetween(rule.quiet.fromMinute, rule.quiet.toMinute, now.minute)) return null;
  if (state.snoozedUntilMs !== null) return now.ms >= state.snoozedUntilMs ? 'repeated' : null;
  if (state.toldMs === null) return 'raised';
  const repeatS = rule.repeatS > 0 || !insists ? rule.repeatS : ALERTS[rule.kind].repeatS;
  return repeatS > 0 && now.ms - state.toldMs >= repeatS * 1000 ? 'repeated' : null;
}

/** Told again for as long as they stand: seeing a locked line does not water its plant. */
const INSISTS: ReadonlySet<AlertKind> = new Set(['line-locked']);

/** When an alert that has begun will be told at the earliest, ms: after its hold-off. Null for one that was told, or that is seen. */
export const tellsAtMs = (state: AlertState, rule: AlertRule): number | null =>
  state.toldMs === null && !state.acknowledged ? state.sinceMs + rule.holdOffS * 1000 : null;

const change = (states: AlertStates, key: string, to: Partial<AlertState>): AlertStates => {
  const state = states[key];
  return state ? { ...states, [key]: { ...state, ...to } } : states;
};

/** The person has seen it: not told again before it is over and comes back. */
export const acknowledge = (states: AlertStates, key: string): AlertStates =>
  change(states, key, { acknowledged: true, snoozedUntilMs: null });

/** Told again after a while, if it is still so. */
export const snooze = (states: AlertStates, key: string, untilMs: number): AlertStates =>
  change(states, key, { snoozedUntilMs: untilMs });
