/** A program of another kind for a line, such that it contradicts none of the line's guards. */
import { countedMl, givenMl } from '../../control/contract/dose.ts';
import { PROGRAMS, type ProgramKind, type SavedProgram } from '../../control/programs/programs.ts';
import { doseOf } from '../bind/contradictions.ts';
import { flowOf } from '../bind/engineParts.ts';
import type { Garden, WaterLine } from '../document/schema.ts';

/** Half past six, in minutes of the day. */
const MORNING = 390;

/** The largest dose that the maximum run and the day allow, ml; at least one. */
export function mostDoseMl(line: WaterLine): number {
  const flow = flowOf(line);
  const inOneRun = givenMl(flow, line.maxRunS);
  const inOneDay = line.dailyMaxMl - (countedMl(flow, line.maxRunS) - inOneRun);
  return Math.max(1, Math.min(inOneRun, inOneDay, line.dailyMaxMl));
}

/** Null where the kind cannot be had: a follower needs another line of its board to follow. */
export function newProgram(kind: ProgramKind, line: WaterLine, garden: Garden): SavedProgram | null {
  if (line.program.kind === kind) return line.program;
  const { dailyMaxMl, minIntervalS, rise, conditions } = line;
  return PROGRAMS[kind].begin({
    doseMl: Math.min(doseOf(line.program) ?? mostDoseMl(line), mostDoseMl(line)),
    dailyMaxMl,
    minIntervalS,
    responseS: rise.responseS,
    // A time of the timer must lie within the hours; their begin always does.
    minute: conditions.hours ? conditions.hours.fromMinute : MORNING,
    leaderId: leadersOf(garden, line)[0]?.id ?? null,
  });
}

/** Lines that a line may follow: of the same board, running by a program of their own. */
export const leadersOf = (garden: Garden, line: WaterLine): readonly WaterLine[] =>
  garden.waterLines.filter(
    (one) =>
      one.id !== line.id &&
      one.boardId === line.boardId &&
      one.program.kind !== 'follower' &&
      one.program.kind !== 'alert-only',
  );
