/** Made-up days for contacts, told beforehand, and run: the same readings, weather and reboots as for water lines, with a sun that moves or is unknown. */
import type {
  ContactConfig,
  ContactsInput,
  ContactsStep,
  Edge,
  RememberedContact,
} from '../contacts/contract.ts';
import { bootContacts, rememberedContacts, stepContacts } from '../contacts/contacts.ts';
import type { Reason } from '../contract/reasons.ts';
import type { EngineInput } from '../contract/types.ts';
import { bootEngine, stepEngine } from '../engine/engine.ts';
import type { EngineConfig } from '../engine/settings.ts';
import { conditionsOf, Dice, inputAt, momentsOf, sensorOf, type Moment } from './script.ts';

type Sun = ContactsInput['sun'];
export type ContactScript = {
  /** Its sensors alone count; there are no lines. */
  readonly engine: EngineConfig;
  readonly contacts: readonly ContactConfig[];
  readonly moments: readonly (Moment & { readonly sun: Sun })[];
  readonly endS: number;
};

const DAY_S = 86_400;

function edgeOf(dice: Dice, clockS: number): Edge {
  const by = dice.one(['clock', 'clock', 'sunrise', 'sunset'] as const);
  return by === 'clock'
    ? { by, s: (clockS + dice.whole(0, 5000)) % DAY_S }
    : { by, s: dice.whole(-1500, 1500) };
}

function contactOf(dice: Dice, sensors: number, clockS: number): ContactConfig {
  const startTenths = dice.whole(250, 500);
  const isPermit = dice.isOne(2);
  const darkBelow = dice.whole(150, 300);
  return {
    enabled: !dice.isOne(20),
    contradicts: dice.isOne(25),
    sensor: isPermit && !dice.isOne(12) ? dice.whole(0, sensors - 1) : null,
    rule: isPermit
      ? {
          kind: 'permit',
          startTenths,
          stopTenths: dice.whole(startTenths + 20, 700),
          restPermits: dice.isOne(3),
        }
      : {
          kind: 'light',
          from: edgeOf(dice, clockS),
          to: edgeOf(dice, clockS + 2000),
          cell: dice.isOne(2) ? { darkBelow, brightAbove: darkBelow + dice.whole(20, 150) } : null,
        },
    conditions: conditionsOf(dice, clockS),
    guards: {
      mostOnS: dice.one([1_000_000, dice.whole(200, 3000), dice.whole(200, 20_000)]),
      leastOffS: dice.whole(60, 900),
      // Now and then a number that cannot be.
      dayMaxS: dice.isOne(30) ? -1 : dice.one([1_000_000, dice.whole(600, 4000)]),
    },
  };
}

/** @param longestS of the day, s */
export function contactScriptOf(seed: number, longestS = 8000): ContactScript {
  const dice = new Dice(seed + 500_000);
  const startS = dice.whole(0, DAY_S - 1);
  const sensors = dice.whole(1, 2);
  const engine: EngineConfig = {
    sensors: Array.from({ length: sensors }, () => sensorOf(dice)),
    tanks: [],
    lines: [],
    atOnce: 1,
  };
  const contacts = Array.from({ length: dice.whole(1, 3) }, () => contactOf(dice, sensors, startS));
  const endS = dice.whole(Math.floor(longestS / 3), longestS);
  let sun: Sun = null;
  const moments = momentsOf(dice, engine, startS, endS, contacts.length).map((moment, at) => {
    if (at === 0 || dice.isOne(80))
      sun = dice.isOne(5)
        ? null
        : {
            riseS: (startS + dice.whole(0, 4000)) % DAY_S,
            setS: (startS + dice.whole(1000, 9000)) % DAY_S,
          };
    return { ...moment, sun };
  });
  return { engine, contacts, moments, endS };
}

/** One call; `boot` when the board had just been switched on, with what it had kept. `readings` are those of the board's sensors. */
export type ContactCall = {
  readonly boot: readonly RememberedContact[] | null;
  readonly readings: EngineInput['sensors'];
  readonly input: ContactsInput;
  readonly step: ContactsStep;
};

/** Runs a day, calling at every moment of it and whenever the contacts asked to be called. */
export function runContactScript({ engine, contacts, moments, endS }: ContactScript): ContactCall[] {
  const calls: ContactCall[] = [];
  let bootS = 0;
  let boot: readonly RememberedContact[] | null = [];
  let known = bootEngine(engine);
  let state = bootContacts(contacts);
  let memory = rememberedContacts(state);
  let next = 0;
  let timeS = 0;
  while (timeS <= endS) {
    const moment = moments[next]?.atS === timeS ? moments[next++] : moments[next - 1];
    if (!moment) break;
    if (moment.reboots && moment.atS === timeS) {
      bootS = timeS;
      boot = memory;
      known = bootEngine(engine);
      state = bootContacts(contacts, memory);
    }
    if (moment.atS === timeS) bootS += Math.min(moment.backS, timeS - bootS);
    const told = inputAt(moment, timeS, bootS);
    known = stepEngine(known, told, engine).state;
    const { nowS, clock, batteryMv, around } = told;
    const input: ContactsInput = { nowS, clock, batteryMv, around, sun: moment.sun };
    const step = stepContacts(state, input, known.sensors, engine, contacts);
    calls.push({ boot, readings: told.sensors, input, step });
    boot = null;
    state = step.state;
    if (step.write) memory = rememberedContacts(state);
    const askedS = step.callAgainAtS === null ? Infinity : bootS + step.callAgainAtS;
    timeS = Math.max(timeS + 1, Math.min(askedS, moments[next]?.atS ?? Infinity));
  }
  return calls;
}

/** Every reason that a contact was on, off or at rest for. */
export const contactReasonsIn = (calls: readonly ContactCall[]): Set<Reason> =>
  new Set(
    calls.flatMap(({ step }) => [
      ...step.events.map((event) => event.reason),
      ...step.state.contacts.map((one) => one.reason),
    ]),
  );

/** Reasons that contacts can have. */
export const REASONS_OF_CONTACTS: readonly Reason[] = [
  'below-start',
  'below-stop',
  'above-stop',
  'not-below-start',
  'unsettled',
  'stale',
  'implausible',
  'out-of-soil',
  'no-reading',
  'not-calibrated',
  'clock-went-back',
  'switched-off',
  'contradiction',
  'unsound-settings',
  'clock-unknown',
  'outside-hours',
  'not-dark',
  'light-unknown',
  'air-warm',
  'air-unknown',
  'soil-cold',
  'soil-temperature-unknown',
  'rain',
  'rain-unknown',
  'battery-low',
  'battery-unknown',
  'skip-switch',
  'skip-unknown',
  'in-hours',
  'dark',
  'sun-unknown',
  'max-on',
  'min-off',
  'day-max-on',
];
