/**
 * Files that say what the engine means: settings, what it is told, what it must answer. Every language that has an engine of its own runs the same files.
 * A version is frozen: its files never change, and another meaning is another version. Described in docs/VECTORS.md.
 */
import { z } from '../../quantity/schema.ts';
import { PROGRAM_KINDS } from '../programs/programs.ts';
import { EVENT_CODES, REASON_CODES } from '../codes.ts';
import { bootEngine, stepEngine } from '../engine/engine.ts';
import type { EngineConfig } from '../engine/settings.ts';
import type {
  EngineEvent,
  EngineInput,
  EngineStep,
  Order,
  Remembered,
  RememberedLine,
} from '../contract/types.ts';
import {
  CALL_FIELDS,
  aroundFrom,
  aroundRow,
  bit,
  clockNow,
  int,
  isAlike,
  maybe,
  ranOn,
  readingFrom,
} from './rows.ts';
import type { Call } from './runScript.ts';

export const VECTORS_FORMAT = 'plain-trowel-engine-vectors';
export const VECTORS_VERSION = 1;

/** 0 water, 1 stop, 2 unlock; line; volume in ml. */
const order = z.tuple([int, int, int]);
/** By line: locked (0 or 1), doses in a row that raised nothing, pulses of the round, moisture that a watched dose began at (−1: none); then the day's ml by age in hours. */
const remembered = z.array(z.tuple([int, int, int, int]).rest(int));
/** Kind, line, second, reason; then for a start the planned seconds and the moisture in tenths, for a stop the seconds it ran and the volume in ml. */
const event = z.tuple([int, int, int, int]).rest(maybe);

const call = z.strictObject({
  ...CALL_FIELDS,
  /** The board has just been switched on, with what it had kept. */
  boot: remembered.optional(),
  /** By reservoir; left out where none was read. */
  tanks: z.array(maybe).optional(),
  orders: z.array(order).optional(),
  /** What must be answered: outputs, why each line runs or rests, when to call again (left out: as at the last call), and events. */
  on: z.array(int).optional(),
  why: z.array(int).optional(),
  next: maybe.optional(),
  events: z.array(event).optional(),
});
export type VectorCall = z.infer<typeof call>;

const trace = z.strictObject({
  name: z.string(),
  /** As `EngineConfig`; checked by shape only as far as the runner needs. */
  config: z.looseObject({
    sensors: z.array(z.looseObject({})),
    tanks: z.array(z.looseObject({})),
    lines: z.array(z.looseObject({ program: z.looseObject({ kind: z.enum(PROGRAM_KINDS) }) })),
    atOnce: int,
  }),
  calls: z.array(call).min(1),
});
export type VectorTrace = z.infer<typeof trace>;

export const vectorFile = z.strictObject({
  format: z.literal(VECTORS_FORMAT),
  version: z.literal(VECTORS_VERSION),
  traces: z.array(trace),
});

const eventRow = (one: EngineEvent): z.infer<typeof event> => {
  const head: [number, number, number, number] = [
    EVENT_CODES[one.kind],
    one.line,
    one.atS,
    REASON_CODES[one.reason],
  ];
  if (one.kind === 'started') return [...head, one.plannedS, one.tenths];
  if (one.kind === 'stopped') return [...head, one.ranS, one.volumeMl];
  return head;
};

const ORDERS = ['water', 'stop', 'unlock'] as const;

/** A step's answer in the numbers of the files. */
export const answerOf = ({ on, state, events, callAgainAtS, write }: EngineStep) => ({
  on: on.map(Number),
  why: state.lines.map((line) => REASON_CODES[line.run?.reason ?? line.reason]),
  next: callAgainAtS,
  ...(events.length > 0 ? { events: events.map(eventRow) } : {}),
  ...(write ? { write: 1 } : {}),
});

export type EngineAnswer = ReturnType<typeof answerOf>;

/** A trace of calls that were made, each with what was answered. */
export function traceOf(name: string, config: EngineConfig, calls: readonly Call[]): VectorTrace {
  let before: EngineInput | null = null;
  let answered: EngineAnswer | null = null;
  const rows = calls.map(({ boot, input, step }): VectorCall => {
    const answer = answerOf(step);
    const isNew = (key: 'around' | 'batteryMv') => !isAlike(before?.[key], input[key]);
    const clock = before && !boot ? ranOn(before.clock, input.nowS - before.nowS) : undefined;
    const row: VectorCall = {
      t: input.nowS,
      ...(boot ? { boot: boot.map(rememberedRow) } : {}),
      ...(input.sensors.some(Boolean)
        ? { sensors: input.sensors.map((one) => one && [one.raw, one.unsettled ? 1 : 0]) }
        : {}),
      ...(input.tanks.some(Boolean) ? { tanks: input.tanks.map((one) => one && one.raw) } : {}),
      ...(isAlike(clock, input.clock)
        ? {}
        : { clock: input.clock && [input.clock.daySecond, input.clock.weekday] }),
      ...(isNew('around') ? { around: input.around.map(aroundRow) } : {}),
      ...(isNew('batteryMv') ? { battery: input.batteryMv } : {}),
      ...(input.orders.length > 0
        ? {
            orders: input.orders.map((one) => [
              ORDERS.indexOf(one.kind),
              one.line,
              one.kind === 'water' ? one.volumeMl : 0,
            ]),
          }
        : {}),
      ...(isAlike(answered?.on, answer.on) ? {} : { on: answer.on }),
      ...(isAlike(answered?.why, answer.why) ? {} : { why: answer.why }),
      ...(isAlike(answered?.next, answer.next) ? {} : { next: answer.next }),
      ...(answer.events ? { events: answer.events } : {}),
      ...(answer.write === undefined ? {} : { write: answer.write }),
    };
    before = input;
    answered = answer;
    return row;
  });
  return { name, config: structuredClone(config) as unknown as VectorTrace['config'], calls: rows };
}

function orderOf([kind, line, volumeMl]: z.infer<typeof order>): Order {
  const named = ORDERS[kind] ?? 'stop';
  return named === 'water' ? { kind: named, line, volumeMl } : { kind: named, line };
}

/** Hours without water at the end are left out. */
const rememberedRow = ({ hoursMl, locked, noRise, pulses, watchTenths }: RememberedLine) => {
  const row: [number, number, number, number, ...number[]] = [
    bit(locked) ?? 0,
    noRise,
    pulses,
    watchTenths ?? -1,
  ];
  return [...row, ...hoursMl.slice(0, hoursMl.findLastIndex((ml) => ml > 0) + 1)] as typeof row;
};

const rememberedFrom = (rows: z.infer<typeof remembered>): Remembered =>
  rows.map(([locked, noRise, pulses, watch, ...hoursMl]) => ({
    hoursMl,
    locked: locked === 1,
    noRise,
    pulses,
    watchTenths: watch < 0 ? null : watch,
  }));

/** A call as a board sees it, and what it must answer. `boot`: it has just been switched on, with what it had kept. */
export type AskedCall = {
  readonly boot: Remembered | null;
  readonly input: EngineInput;
  readonly asked: EngineAnswer;
};

/** The settings and the calls of a trace, with everything that the file leaves out because it has not changed. */
export function callsOf({ config, calls }: VectorTrace): {
  readonly config: EngineConfig;
  readonly calls: readonly AskedCall[];
} {
  const settings = config as unknown as EngineConfig;
  let about: EngineInput['around'] = [];
  let batteryMv: number | null = null;
  let clock: EngineInput['clock'] = null;
  let lastS = 0;
  let asked: EngineAnswer = { on: [], why: [], next: null };
  return {
    config: settings,
    calls: calls.map((one) => {
      clock = clockNow(one.clock, clock, one.t - lastS);
      lastS = one.t;
      if (one.around) about = one.around.map(aroundFrom);
      if (one.battery !== undefined) batteryMv = one.battery;
      const { on = asked.on, why = asked.why, next = asked.next, events, write } = one;
      asked = {
        on,
        why,
        next,
        ...(events ? { events } : {}),
        ...(write === undefined ? {} : { write }),
      };
      const input: EngineInput = {
        nowS: one.t,
        sensors: settings.sensors.map((_, place) => readingFrom(one.sensors?.[place], one.t)),
        tanks: settings.tanks.map((_, place) => {
          const raw = one.tanks?.[place] ?? null;
          return raw === null ? null : { raw, atS: one.t };
        }),
        clock,
        around: about,
        batteryMv,
        orders: (one.orders ?? []).map(orderOf),
      };
      return { boot: one.boot ? rememberedFrom(one.boot) : null, input, asked };
    }),
  };
}

/** Runs a trace through this engine. @returns where it first answers otherwise, or null */
export function replayTrace(trace: VectorTrace): string | null {
  const { config, calls } = callsOf(trace);
  let state = bootEngine(config);
  for (const { boot, input, asked } of calls) {
    if (boot) state = bootEngine(config, boot);
    const step = stepEngine(state, input, config);
    state = step.state;
    const answer = answerOf(step);
    if (!isAlike(answer, asked))
      return `${trace.name} at ${input.nowS} s: ${JSON.stringify(answer)}, and it should be ${JSON.stringify(asked)}`;
  }
  return null;
}
