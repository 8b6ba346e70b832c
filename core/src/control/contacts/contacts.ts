/**
 * A step of a board's contacts. Guards that no setting switches off: a contact is at rest at boot and wherever nobody can tell; it is on no longer at a stretch
 * and in a day than it may, and stays off between two stretches. At rest means what the contact does by itself, without current: a light is dark; a permit
 * contact forbids or permits, as its person has wired it, and where it permits no guard of ours holds.
 */
import { conditionWakes, unmetCondition } from '../conditions/conditions.ts';
import type { Reason } from '../contract/reasons.ts';
import type { SensorState } from '../contract/types.ts';
import { follows } from '../engine/border.ts';
import { freeAtS, newRation, rationAt } from '../engine/ration.ts';
import type { EngineConfig } from '../engine/settings.ts';
import { doubt, isUnsettled } from '../engine/trust.ts';
import { soundContacts, soundHours, soundInput } from './border.ts';
import type {
  ContactConfig,
  ContactEvent,
  ContactsInput,
  ContactsState,
  ContactsStep,
  ContactState,
  PermitRule,
  RememberedContact,
} from './contract.ts';
import { nextEdgeS, wantsLight } from './light.ts';

/** Contacts of a board that has just been switched on: all at rest. */
export function bootContacts(
  contacts: readonly ContactConfig[],
  remembered: readonly RememberedContact[] = [],
  nowS = 0,
): ContactsState {
  return {
    nowS,
    contacts: contacts.map((config, at) => ({
      isOn: restsOn(config),
      isResting: true,
      sinceS: nowS,
      day: newRation(nowS, soundHours(remembered[at], config)),
      held: null,
      reason: 'no-reading',
    })),
  };
}

const restsOn = ({ rule }: ContactConfig): boolean => rule.kind === 'permit' && rule.restPermits;

/** What must be written down: a contact that is on counts to the end of its hour, so that a reboot forgets nothing. */
export const rememberedContacts = ({ contacts }: ContactsState): readonly RememberedContact[] =>
  contacts.map(({ isOn, day }) => {
    const [newest = 0, ...older] = day.ml;
    return [isOn ? Math.max(newest, 3600) : newest, ...older];
  });

/**
 * @param sensors of the board's engine, after its own step at this second
 * @param engine the board's settings, for its sensors
 */
export function stepContacts(
  state: ContactsState,
  told: ContactsInput,
  sensors: readonly (SensorState | null)[],
  engine: EngineConfig,
  contacts: readonly ContactConfig[],
): ContactsStep {
  if (!follows(told.nowS, state.nowS)) return afterClockWentWrong(state, told.nowS, contacts);
  const input = soundInput(told);
  const sound = soundContacts(contacts);
  const events: ContactEvent[] = [];
  let write = false;
  let callAgainAtS: number | null = null;
  const next = contacts.map((config, at): ContactState => {
    const before = state.contacts[at];
    if (!before) return bootContacts([config], [], input.nowS).contacts[0] as ContactState;
    const passedS = input.nowS - state.nowS;
    const day = rationAt(before.day, input.nowS, before.isOn ? passedS : 0);
    const counted = { ...before, day };
    const verdict = sound[at]
      ? decide(counted, config, input, at, sensors, engine)
      : rest('unsound-settings', before.held);
    const after = settled(counted, verdict, config, input.nowS);
    if (after.isOn !== before.isOn)
      events.push(
        after.isOn
          ? { kind: 'on', contact: at, atS: input.nowS, reason: after.reason }
          : {
              kind: 'off',
              contact: at,
              atS: input.nowS,
              reason: after.reason,
              onS: input.nowS - before.sinceS,
            },
      );
    write ||= after.isOn !== before.isOn || (day.hour !== before.day.hour && day.sumMl > 0);
    const wake = sound[at] ? wakeS(after, config, input, sensors, engine) : null;
    if (wake !== null && (callAgainAtS === null || wake < callAgainAtS)) callAgainAtS = wake;
    return after;
  });
  return {
    state: { nowS: input.nowS, contacts: next },
    driven: next.map((one, at) => isDriven(one, contacts[at])),
    events,
    callAgainAtS,
    write,
  };
}

/** A coil is driven only where the contact must do other than it does by itself. */
const isDriven = (state: ContactState, config: ContactConfig | undefined): boolean =>
  config !== undefined && state.isOn !== restsOn(config);

type Verdict = {
  readonly kind: 'on' | 'off' | 'rest';
  readonly reason: Reason;
  readonly held: boolean | null;
};
const rest = (reason: Reason, held: boolean | null): Verdict => ({ kind: 'rest', reason, held });

/** What is not known leaves a contact at rest, in place of switching it off. */
const UNKNOWN: ReadonlySet<Reason> = new Set<Reason>([
  'clock-unknown',
  'light-unknown',
  'sun-unknown',
  'air-unknown',
  'soil-temperature-unknown',
  'rain-unknown',
  'battery-unknown',
  'skip-unknown',
]);

function decide(
  state: ContactState,
  config: ContactConfig,
  input: ContactsInput,
  at: number,
  sensors: readonly (SensorState | null)[],
  engine: EngineConfig,
): Verdict {
  if (!config.enabled) return rest('switched-off', state.held);
  if (config.contradicts) return rest('contradiction', state.held);
  const wanted =
    config.rule.kind === 'light'
      ? asVerdict(wantsLight(config.rule, input, config.guards.mostOnS, lightAt(input, at), state.held))
      : permit(config.rule, state, config, input.nowS, sensors, engine);
  if (wanted.kind !== 'on') return wanted;
  const unmet = unmetCondition(config.conditions, input, at);
  if (unmet) return { kind: UNKNOWN.has(unmet) ? 'rest' : 'off', reason: unmet, held: wanted.held };
  const guard = guardOf(state, config, input.nowS);
  return guard ? { kind: 'off', reason: guard, held: wanted.held } : wanted;
}

const lightAt = ({ around }: ContactsInput, at: number): number | null => around[at]?.light ?? null;

const asVerdict = ({ on, reason, held }: ReturnType<typeof wantsLight>): Verdict => ({
  kind: on ? 'on' : UNKNOWN.has(reason) ? 'rest' : 'off',
  reason,
  held,
});

/** `held` is true while the soil counts as wet: from the stop limit up until it has fallen below the start limit. */
function permit(
  { startTenths, stopTenths }: PermitRule,
  state: ContactState,
  { sensor }: ContactConfig,
  nowS: number,
  sensors: readonly (SensorState | null)[],
  engine: EngineConfig,
): Verdict {
  const settings = sensor === null ? undefined : engine.sensors[sensor];
  const read = sensor === null ? null : (sensors[sensor] ?? null);
  if (!settings) return rest('not-calibrated', state.held);
  const why = doubt(read, nowS, settings);
  if (why !== null || !read || read.tenths === null) return rest(why ?? 'no-reading', state.held);
  const isLow = read.tenths < startTenths;
  // Between the limits, with nothing seen before, it is taken for wet: a reboot lets nothing through that was forbidden.
  const isWet = read.tenths >= stopTenths ? true : isLow ? false : (state.held ?? true);
  if (isWet)
    return {
      kind: 'off',
      reason: read.tenths >= stopTenths ? 'above-stop' : 'not-below-start',
      held: true,
    };
  // A plug just pulled may look like dry soil.
  if (!(state.isOn && !state.isResting) && isUnsettled(read, nowS, settings))
    return { kind: 'off', reason: 'unsettled', held: state.held };
  return { kind: 'on', reason: isLow ? 'below-start' : 'below-stop', held: false };
}

/** Why a contact may not be on, or not any longer; null when it may. */
function guardOf({ isOn, isResting, sinceS, day }: ContactState, config: ContactConfig, nowS: number) {
  const { mostOnS, leastOffS, dayMaxS } = config.guards;
  const isOurs = isOn && !isResting;
  if (isOurs && nowS - sinceS >= mostOnS) return 'max-on';
  if (day.sumMl >= dayMaxS) return 'day-max-on';
  // What permits at rest was not off before.
  if (!isOn && nowS - sinceS < leastOffS) return 'min-off';
  return null;
}

function settled(
  before: ContactState,
  { kind, reason, held }: Verdict,
  config: ContactConfig,
  nowS: number,
): ContactState {
  const isOn = kind === 'rest' ? restsOn(config) : kind === 'on';
  const isResting = kind === 'rest';
  // A stretch of ours begins where one at rest ends.
  const isNew = isOn !== before.isOn || (isOn && isResting !== before.isResting);
  // Off until it may be on again: the reason that ended the stretch stands as long as it holds it.
  return { isOn, isResting, sinceS: isNew ? nowS : before.sinceS, day: before.day, held, reason };
}

/** When a contact must be looked at again although nothing is read, s since boot. */
function wakeS(
  state: ContactState,
  config: ContactConfig,
  input: ContactsInput,
  sensors: readonly (SensorState | null)[],
  engine: EngineConfig,
): number | null {
  const { nowS } = input;
  const { guards, rule, sensor } = config;
  const read = sensor === null ? null : (sensors[sensor] ?? null);
  const settings = sensor === null ? undefined : engine.sensors[sensor];
  const times: (number | null)[] = [
    state.isOn ? state.sinceS + guards.mostOnS : state.sinceS + guards.leastOffS,
    state.isOn ? nowS + Math.max(1, guards.dayMaxS - state.day.sumMl) : null,
    state.day.sumMl > 0 ? (Math.trunc(nowS / 3600) + 1) * 3600 : null,
    freeAtS(state.day, guards.dayMaxS - 1),
    read && settings ? read.atS + settings.staleAfterS + 1 : null,
    read && settings && read.leapS !== null ? read.leapS + settings.settleS : null,
    rule.kind === 'light' ? nextEdgeS(rule, input) : null,
    ...conditionWakes(config.conditions, input),
  ];
  const ahead = times.filter((one): one is number => one !== null && one > nowS);
  return ahead.length > 0 ? Math.min(...ahead) : null;
}

/** Nothing can be compared with now: at rest, and begin as after a boot. */
function afterClockWentWrong(
  state: ContactsState,
  nowS: number,
  contacts: readonly ContactConfig[],
): ContactsStep {
  const events = state.contacts.flatMap((one, contact): ContactEvent[] => {
    const config = contacts[contact];
    if (!config || one.isOn === restsOn(config)) return [];
    const common = { contact, atS: state.nowS, reason: 'clock-went-back' } as const;
    return [one.isOn ? { ...common, kind: 'off', onS: state.nowS - one.sinceS } : { ...common, kind: 'on' }];
  });
  const fresh = bootContacts(contacts, rememberedContacts(state), follows(nowS, 0) ? nowS : state.nowS);
  return {
    state: {
      ...fresh,
      contacts: fresh.contacts.map((one): ContactState => ({ ...one, reason: 'clock-went-back' })),
    },
    driven: contacts.map(() => false),
    events,
    callAgainAtS: null,
    write: true,
  };
}
