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

/** Null where the kind cannot be had: a follower needs another line of its board to follow. What the line had of that kind before comes back as it was. */
export function newProgram(kind: ProgramKind, line: WaterLine, garden: Garden): SavedProgram | null {
  if (line.program.kind === kind) return line.program;
  const before = line.laidAside.find((one) => one.kind === kind);
  if (before) return before;
  const { dailyMaxMl, minIntervalS, rise, conditions } = line;
  // A program without a dose of its own must not make the line forget the one that it had.
  const lastDose = doseOf(line.program) ?? line.laidAside.map(doseOf).findLast((one) => one !== null);
  return PROGRAMS[kind].begin({
    doseMl: Math.min(lastDose ?? mostDoseMl(line), mostDoseMl(line)),
    dailyMaxMl,
    minIntervalS,
    responseS: rise.responseS,
    // A time of the timer must lie within the hours; their begin always does.
    minute: conditions.hours ? conditions.hours.fromMinute : MORNING,
    leaderId: leadersOf(garden, line)[0]?.id ?? null,
  });
}

/** Gives a line another program; the one that it had is laid aside. */
export const withProgram = (line: WaterLine, program: SavedProgram): WaterLine =>
  line.program.kind === program.kind
    ? { ...line, program }
    : {
        ...line,
        program,
        laidAside: [
          ...line.laidAside.filter(({ kind }) => kind !== line.program.kind && kind !== program.kind),
          line.program,
        ],
      };

/** Lines that a line may follow: of the same board, running by a program of their own. */
export const leadersOf = (garden: Garden, line: WaterLine): readonly WaterLine[] =>
  garden.waterLines.filter(
    (one) =>
      one.id !== line.id &&
      one.boardId === line.boardId &&
      one.program.kind !== 'follower' &&
      one.program.kind !== 'alert-only',
  );
