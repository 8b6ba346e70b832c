/**
 * Every kind of program, each once. A new kind is a file like its neighbours and a line in each of the three lists below; then the compiler asks for its words
 * and its form.
 */
import { z } from '../../quantity/schema.ts';
import { alertOnly, type AlertOnly } from './alertOnly.ts';
import { follower, type Follower } from './follower.ts';
import { pulseSoak, type PulseSoak } from './pulseSoak.ts';
import type { ProgramRecord } from './record.ts';
import { singleDose, type SingleDose } from './singleDose.ts';
import { timer, type Timer } from './timer.ts';
import { untilWet, type UntilWet } from './untilWet.ts';
import { veto, type Veto } from './veto.ts';

/** As the engine runs it. */
export type Program = AlertOnly | Timer | PulseSoak | UntilWet | SingleDose | Veto | Follower;

/** As the garden keeps it. Start and stop limits are the plot's. */
export const savedProgram = z.discriminatedUnion('kind', [
  alertOnly.settings,
  timer.settings,
  pulseSoak.settings,
  untilWet.settings,
  singleDose.settings,
  veto.settings,
  follower.settings,
]);
export type SavedProgram = z.infer<typeof savedProgram>;

export type ProgramKind = Program['kind'];
type Of<All, Kind> = Extract<All, { kind: Kind }>;

/** In the order in which they are offered. */
export const PROGRAMS = {
  'alert-only': alertOnly,
  timer,
  'pulse-soak': pulseSoak,
  'until-wet': untilWet,
  'single-dose': singleDose,
  veto,
  follower,
} as const satisfies {
  readonly [Kind in ProgramKind]: ProgramRecord<Of<SavedProgram, Kind>, Of<Program, Kind>>;
};

export const PROGRAM_KINDS = Object.keys(PROGRAMS) as readonly ProgramKind[];

/** The record of a kind, for whoever holds a program of any kind: record and program are of the same kind by construction. */
export const recordOf = (kind: ProgramKind) => PROGRAMS[kind] as ProgramRecord<SavedProgram, Program>;

export const usesProbe = (kind: ProgramKind): boolean => PROGRAMS[kind].usesProbe;

/** The line that a program goes by; null for one that goes by none. */
export const leaderOf = (program: SavedProgram): string | null =>
  recordOf(program.kind).leaderId?.(program) ?? null;
