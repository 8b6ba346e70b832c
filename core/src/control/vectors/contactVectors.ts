/** Files that say what contacts mean, like those of the water lines (`vectorFile`): settings, what is told, what must be answered. Described in docs/VECTORS.md. */
import { z } from '../../quantity/schema.ts';
import { REASON_CODES } from '../codes.ts';
import { bootContacts, stepContacts } from '../contacts/contacts.ts';
import type { ContactConfig, ContactEvent, ContactsInput, ContactsStep } from '../contacts/contract.ts';
import { bootEngine, stepEngine } from '../engine/engine.ts';
import type { EngineInput } from '../contract/types.ts';
import type { EngineConfig } from '../engine/settings.ts';
import type { ContactCall, ContactScript } from './contactScript.ts';
import {
  CALL_FIELDS,
  aroundFrom,
  aroundRow,
  clockNow,
  int,
  isAlike,
  maybe,
  ranOn,
  readingFrom,
} from './rows.ts';
import { VECTORS_VERSION } from './vectorFile.ts';

export const CONTACT_VECTORS_FORMAT = 'plain-trowel-contact-vectors';

const call = z.strictObject({
  ...CALL_FIELDS,
  /** By contact: seconds on by their age in hours, newest first. */
  boot: z.array(z.array(int)).optional(),
  /** Sunrise and sunset, seconds of the local day; null: unknown. Left out: as at the last call. */
  sun: z.tuple([int, int]).nullable().optional(),
  /** Answers, left out where they are as at the last call: by contact 0 off, 1 on, 2 off at rest, 3 on at rest; its coil; its reason; when to call again. */
  is: z.array(int).optional(),
  coil: z.array(int).optional(),
  why: z.array(int).optional(),
  next: maybe.optional(),
  /** 0 on or 1 off, contact, second, reason; for an end the seconds that it was on. */
  events: z.array(z.tuple([int, int, int, int]).rest(int)).optional(),
});

const trace = z.strictObject({
  name: z.string(),
  /** The sensors as in `EngineConfig`, the contacts as `ContactConfig`. */
  config: z.looseObject({
    sensors: z.array(z.looseObject({})),
    contacts: z.array(z.looseObject({ rule: z.looseObject({ kind: z.enum(['permit', 'light']) }) })),
  }),
  calls: z.array(call).min(1),
});
export type ContactTrace = z.infer<typeof trace>;

export const contactVectorFile = z.strictObject({
  format: z.literal(CONTACT_VECTORS_FORMAT),
  version: z.literal(VECTORS_VERSION),
  traces: z.array(trace),
});

const eventRow = (one: ContactEvent): [number, number, number, number, ...number[]] => [
  one.kind === 'on' ? 0 : 1,
  one.contact,
  one.atS,
  REASON_CODES[one.reason],
  ...(one.kind === 'off' ? [one.onS] : []),
];

export const contactAnswerOf = ({ state, driven, events, callAgainAtS, write }: ContactsStep) => ({
  is: state.contacts.map(({ isOn, isResting }) => Number(isOn) + (isResting ? 2 : 0)),
  coil: driven.map(Number),
  why: state.contacts.map(({ reason }) => REASON_CODES[reason]),
  next: callAgainAtS,
  ...(events.length > 0 ? { events: events.map(eventRow) } : {}),
  ...(write ? { write: 1 } : {}),
});
type Answer = ReturnType<typeof contactAnswerOf>;

const sunRow = (sun: ContactsInput['sun']): [number, number] | null => sun && [sun.riseS, sun.setS];

/** A trace of calls that were made, each with what was answered; only what has changed is written. */
export function contactTraceOf(
  name: string,
  { engine, contacts }: Pick<ContactScript, 'engine' | 'contacts'>,
  calls: readonly ContactCall[],
): ContactTrace {
  let before: ContactsInput | null = null;
  let answered: Answer | null = null;
  const rows = calls.map(({ boot, readings, input, step }): z.infer<typeof call> => {
    const answer = contactAnswerOf(step);
    const clock = before && !boot ? ranOn(before.clock, input.nowS - before.nowS) : undefined;
    const isNew = (key: keyof ContactsInput) => !isAlike(before?.[key], input[key]);
    const changed = <Key extends 'is' | 'coil' | 'why' | 'next'>(key: Key) =>
      isAlike(answered?.[key], answer[key]) ? {} : { [key]: answer[key] };
    const row = {
      t: input.nowS,
      ...(boot ? { boot: boot.map((hours) => [...hours]) } : {}),
      ...(readings.some(Boolean)
        ? { sensors: readings.map((one): [number, number] | null => one && [one.raw, one.unsettled ? 1 : 0]) }
        : {}),
      ...(isAlike(clock, input.clock)
        ? {}
        : { clock: input.clock && ([input.clock.daySecond, input.clock.weekday] as [number, number]) }),
      ...(isNew('sun') ? { sun: sunRow(input.sun) } : {}),
      ...(isNew('around') ? { around: input.around.map(aroundRow) } : {}),
      ...(isNew('batteryMv') ? { battery: input.batteryMv } : {}),
      ...changed('is'),
      ...changed('coil'),
      ...changed('why'),
      ...changed('next'),
      ...(answer.events ? { events: answer.events } : {}),
      ...(answer.write === undefined ? {} : { write: answer.write }),
    };
    before = input;
    answered = answer;
    return row;
  });
  const config = structuredClone({ sensors: engine.sensors, contacts });
  return { name, config: config as unknown as ContactTrace['config'], calls: rows };
}

export type ContactAnswer = Pick<Answer, 'is' | 'coil' | 'why' | 'events' | 'write'>;

/** What a trace tells, call by call, and what must be answered. */
export type AskedContactCalls = {
  readonly engine: EngineConfig;
  readonly contacts: readonly ContactConfig[];
  readonly calls: readonly {
    readonly boot: readonly (readonly number[])[] | null;
    readonly readings: EngineInput['sensors'];
    readonly input: ContactsInput;
    readonly asked: Answer;
  }[];
};

export function contactCallsOf({ config, calls }: ContactTrace): AskedContactCalls {
  const { sensors, contacts } = config as unknown as {
    sensors: EngineConfig['sensors'];
    contacts: readonly ContactConfig[];
  };
  let told: ContactsInput = { nowS: 0, clock: null, batteryMv: null, around: [], sun: null };
  let asked: Answer = { is: [], coil: [], why: [], next: null };
  return {
    engine: { sensors, tanks: [], lines: [], atOnce: 1 },
    contacts,
    calls: calls.map((one) => {
      told = {
        nowS: one.t,
        clock: clockNow(one.clock, told.clock, one.t - told.nowS),
        batteryMv: one.battery === undefined ? told.batteryMv : one.battery,
        around: one.around ? one.around.map(aroundFrom) : told.around,
        sun: one.sun === undefined ? told.sun : one.sun && { riseS: one.sun[0], setS: one.sun[1] },
      };
      const { is = asked.is, coil = asked.coil, why = asked.why, next = asked.next, events, write } = one;
      asked = {
        is,
        coil,
        why,
        next,
        ...(events ? { events } : {}),
        ...(write === undefined ? {} : { write }),
      };
      const readings = sensors.map((_, place) => readingFrom(one.sensors?.[place], one.t));
      return { boot: one.boot ?? null, readings, input: told, asked };
    }),
  };
}

/** Runs a trace through these contacts. @returns where they first answer otherwise, or null */
export function replayContactTrace(trace: ContactTrace): string | null {
  const { engine, contacts, calls } = contactCallsOf(trace);
  let known = bootEngine(engine);
  let state = bootContacts(contacts);
  for (const { boot, readings, input, asked } of calls) {
    if (boot) {
      known = bootEngine(engine);
      state = bootContacts(contacts, boot);
    }
    known = stepEngine(known, { ...input, sensors: readings, tanks: [], orders: [] }, engine).state;
    const step = stepContacts(state, input, known.sensors, engine, contacts);
    state = step.state;
    const answer = contactAnswerOf(step);
    if (!isAlike(answer, asked))
      return `${trace.name} at ${input.nowS} s: ${JSON.stringify(answer)}, and it should be ${JSON.stringify(asked)}`;
  }
  return null;
}
