/** What a board's engine has decided for each of its lines, in the times of the garden. */
import { CONDITIONS } from '../conditions/conditions.ts';
import { nextDueS } from '../programs/slots.ts';
import { countedMl } from '../contract/dose.ts';
import { freeAtS } from '../engine/ration.ts';
import type { Reason } from '../contract/reasons.ts';
import type { LineConfig } from '../engine/settings.ts';
import type { LineState } from '../contract/types.ts';
import { recordOf } from '../programs/programs.ts';
import type { Hosted } from './engineHost.ts';

export type LineAnswer = {
  readonly isOn: boolean;
  readonly reason: Reason;
  readonly runningSinceMs: number | null;
  /** How long the run under way is meant to be, s. */
  readonly plannedS: number | null;
  /** Earliest next start by the times of guards and program; null while none of them holds anything back. */
  readonly mayStartAtMs: number | null;
  /** Counted towards the daily maximum, ml. */
  readonly givenMl: number;
  readonly pulses: number;
  readonly isLocked: boolean;
  /** Until when a person has told it to water nothing by itself, ms since 1970; null: it does. */
  readonly skippedUntilMs: number | null;
  /** Doses in a row that raised nothing. */
  readonly noRise: number;
};

/** Until when a line is skipped; null where it is not, or not any more: a board that has fallen silent cannot say that it is over. */
export const skippedUntil = (answer: LineAnswer | undefined, nowMs: number): number | null => {
  const untilMs = answer?.skippedUntilMs ?? null;
  return untilMs !== null && untilMs > nowMs ? untilMs : null;
};

/** By the id of the line. */
export type LineAnswers = Readonly<Record<string, LineAnswer>>;

/** Earliest next start by the line's own times; null while something else holds it, or nothing does. */
function mayStartS(
  line: LineState,
  { program, guards, flowMlPerMin, sensor, conditions }: LineConfig,
  { state, settings, clock }: Hosted,
): number | null {
  switch (line.reason) {
    case 'min-interval':
      return line.lastStartS + guards.minIntervalS;
    case 'daily-max':
      return freeAtS(line.ration, guards.dailyMaxMl - countedMl({ flowMlPerMin }, 1));
    case 'unsettled': {
      const leapS = sensor === null ? null : (state.sensors[sensor]?.leapS ?? null);
      const settleS = sensor === null ? null : (settings.config.sensors[sensor]?.settleS ?? null);
      return leapS === null || settleS === null ? null : leapS + settleS;
    }
    case 'waiting-for-rise':
      return line.watch?.untilS ?? null;
    case 'outside-hours': {
      const { hours } = conditions;
      const input = { nowS: state.nowS, clock, around: [], batteryMv: null };
      return hours && (CONDITIONS.hours.wake?.(hours, input) ?? null);
    }
    case 'not-due':
      return 'slots' in program ? nextDueS(program.slots, clock, state.nowS) : null;
    default:
      return recordOf(program.kind).restsUntilS?.(program, line) ?? null;
  }
}

export const answersOf = (hosted: Hosted): LineAnswers => {
  const { settings, state, bootMs } = hosted;
  return Object.fromEntries(
    state.lines.flatMap((line, at): [string, LineAnswer][] => {
      const config = settings.config.lines[at];
      const lineId = settings.lineIds[at];
      if (!config || lineId === undefined) return [];
      const may = mayStartS(line, config, hosted);
      return [
        [
          lineId,
          {
            isOn: line.run !== null,
            reason: line.reason,
            runningSinceMs: line.run ? bootMs + line.run.sinceS * 1000 : null,
            plannedS: line.run?.plannedS ?? null,
            mayStartAtMs: may === null ? null : bootMs + may * 1000,
            givenMl: line.ration.sumMl,
            pulses: line.pulses,
            isLocked: line.locked,
            skippedUntilMs: hosted.skips?.[lineId] ?? null,
            noRise: line.noRise,
          },
        ],
      ];
    }),
  );
};

export type ContactAnswer = {
  /** Lit, or letting the other timer water. */
  readonly isOn: boolean;
  /** At rest: nobody can tell, or nobody wants it. */
  readonly isResting: boolean;
  readonly reason: Reason;
  readonly sinceMs: number;
  /** On in the rolling day, s. */
  readonly dayS: number;
};

/** By the id of the contact. */
export type ContactAnswers = Readonly<Record<string, ContactAnswer>>;

const contactAnswersOf = ({ settings, contacts, bootMs }: Hosted): ContactAnswers =>
  Object.fromEntries(
    contacts.contacts.flatMap(({ isOn, isResting, reason, sinceS, day }, at): [string, ContactAnswer][] => {
      const id = settings.contactIds[at];
      return id === undefined
        ? []
        : [[id, { isOn, isResting, reason, sinceMs: bootMs + sinceS * 1000, dayS: day.sumMl }]];
    }),
  );

/** What boards answer, of all their lines and contacts. */
export type Answers = { readonly lines: LineAnswers; readonly contacts: ContactAnswers };
export const NO_ANSWERS: Answers = { lines: {}, contacts: {} };

export const allAnswers = (hosts: readonly Hosted[]): Answers => ({
  lines: Object.assign({}, ...hosts.map(answersOf)) as LineAnswers,
  contacts: Object.assign({}, ...hosts.map(contactAnswersOf)) as ContactAnswers,
});
