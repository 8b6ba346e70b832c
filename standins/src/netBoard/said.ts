/** What a stand-in says at its console, in the words in which boards say it (docs/BOARD-PROTOCOL.md). */
import type { LineAnswer } from '@plain-trowel/core/control/host/answers';
import type { LineTold } from '@plain-trowel/core/records/lineEvents';

/** @param line its number on the board, from 1 @param plannedS of a start: how long it is meant to run */
export function saidOfLine(told: LineTold, line: number, plannedS: number): string {
  switch (told.kind) {
    case 'started':
      return `# started ${line} ${told.reason} ${plannedS} s${told.tenths === null ? '' : ` at ${(told.tenths / 10).toFixed(1)}`}`;
    case 'stopped':
      return `# stopped ${line} ${told.reason} ${Math.round(told.ranS)} s ${Math.round(told.volumeMl)} ml`;
    default:
      return `# ${told.kind} ${line} ${told.reason}`;
  }
}

/** What follows it where the line is skipped. */
export const skipOfLine = ({ skippedUntilMs }: LineAnswer, line: number, nowMs: number): readonly string[] =>
  skippedUntilMs === null
    ? []
    : [`# skip ${line} ${Math.max(0, Math.round((skippedUntilMs - nowMs) / 1000))} s`];

export const standingOfLine = ({ isOn, reason, givenMl, isLocked }: LineAnswer, line: number): string =>
  `# line ${line} ${isOn ? 'runs' : 'rests'} ${reason} today ${Math.round(givenMl)} ml${isLocked ? ' locked' : ''}`;
