/** A program of another kind for a line, such that it contradicts none of the line's guards. */
import { countedMl, givenMl } from '../control/engine/dose.ts';
import { doseOf } from './contradictions.ts';
import { flowOf } from './engineOf.ts';
import type { Garden, WaterLine } from './schema.ts';
import type { GardenProgram, ProgramKind } from './waterSchema.ts';

const EVERY_DAY = 127;
const MORNING = 390;
const DAY_S = 86_400;
const WEEK_S = 7 * DAY_S;

/** The largest dose that the maximum run and the day allow, ml; at least one. */
export function mostDoseMl(line: WaterLine): number {
  const flow = flowOf(line);
  const inOneRun = givenMl(flow, line.maxRunS);
  const inOneDay = line.dailyMaxMl - (countedMl(flow, line.maxRunS) - inOneRun);
  return Math.max(1, Math.min(inOneRun, inOneDay, line.dailyMaxMl));
}

/** Null where the kind cannot be had: a follower needs another line of its board to follow. */
export function newProgram(kind: ProgramKind, line: WaterLine, garden: Garden): GardenProgram | null {
  if (line.program.kind === kind) return line.program;
  const doseMl = Math.min(doseOf(line.program) ?? mostDoseMl(line), mostDoseMl(line));
  const { minIntervalS, rise, conditions } = line;
  // A time of the timer must lie within the hours; their begin always does.
  const minute = conditions.hours ? conditions.hours.fromMinute : MORNING;
  switch (kind) {
    case 'alert-only':
      return { kind };
    case 'timer':
      return { kind, slots: [{ minute, days: EVERY_DAY }], doseMl };
    case 'veto':
      return { kind, slots: [{ minute, days: EVERY_DAY }], doseMl, interrupts: true };
    case 'until-wet':
      return { kind, capMl: doseMl };
    case 'single-dose':
      return { kind, doseMl, intervalS: Math.max(DAY_S, minIntervalS) };
    case 'pulse-soak': {
      const soakS = Math.min(DAY_S, Math.max(900, minIntervalS, rise.responseS));
      return {
        kind,
        pulseMl: doseMl,
        soakS,
        mostPulses: Math.min(4, Math.max(1, Math.floor(line.dailyMaxMl / doseMl))),
        restS: Math.min(WEEK_S, Math.max(14_400, soakS)),
      };
    }
    case 'follower': {
      const leader = leadersOf(garden, line)[0];
      return leader ? { kind, leaderId: leader.id, sharePercent: 100, everyNth: 1 } : null;
    }
  }
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
