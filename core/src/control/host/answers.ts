/** What a board's engine has decided for each of its lines, in the times of the garden. */
import type { Reason } from '../engine/reasons.ts';
import type { LineConfig, LineState } from '../engine/types.ts';
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
  /** Doses in a row that raised nothing. */
  readonly noRise: number;
};

/** By the id of the line. */
export type LineAnswers = Readonly<Record<string, LineAnswer>>;

/** Earliest next start that the engine's own times allow; null while something else holds the line, or nothing does. */
function mayStartS(line: LineState, { program, guards }: LineConfig): number | null {
  switch (line.reason) {
    case 'min-interval':
      return line.lastStartS + guards.minIntervalS;
    case 'soaking':
      return program.kind === 'pulse-soak' && line.lastStopS !== null ? line.lastStopS + program.soakS : null;
    case 'pulses-used':
      return program.kind === 'pulse-soak' && line.lastStopS !== null ? line.lastStopS + program.restS : null;
    case 'dose-interval':
      return program.kind === 'single-dose' ? line.lastStartS + program.intervalS : null;
    case 'waiting-for-rise':
      return line.watch?.untilS ?? null;
    default:
      return null;
  }
}

export const answersOf = ({ settings, state, bootMs }: Hosted): LineAnswers =>
  Object.fromEntries(
    state.lines.flatMap((line, at): [string, LineAnswer][] => {
      const config = settings.config.lines[at];
      const lineId = settings.lineIds[at];
      if (!config || lineId === undefined) return [];
      const may = mayStartS(line, config);
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
            noRise: line.noRise,
          },
        ],
      ];
    }),
  );
