/** What one kind of program must say of itself: to the engine, which runs it, and to the garden, which keeps its settings. */
import type { z } from '../../quantity/schema.ts';
import type { Reason } from '../contract/reasons.ts';
import type { EngineInput, LineState, SensorState } from '../contract/types.ts';
import type { Flow } from '../contract/dose.ts';
import type { Contradiction } from './contradiction.ts';

/** A reason alone means rest. `slot` is the time of a timer that would be served. */
export type Wish = Reason | { readonly runS: number; readonly reason: Reason; readonly slot: number | null };

/** What a program looks at. */
export type Sight = {
  readonly input: EngineInput;
  readonly sensor: SensorState | null;
  /** Why the reading cannot be acted on; null when it can. */
  readonly doubt: Reason | null;
};

/** The engine's side: a pure rule over whole numbers. Guards and conditions are not asked here. */
export type EngineRule<Program> = {
  /** Decides by the probe: without a reading to act on it rests. */
  readonly usesProbe: boolean;
  /** What an idle line wants. A program that uses the probe is asked only while its reading can be acted on. */
  readonly wants: (program: Program, line: LineState, flow: Flow, sight: Sight) => Wish;
  /** Why the reading ends a run; asked only of a program that uses the probe, while its reading can be acted on. */
  readonly whyStop?: (program: Program, tenths: number) => Reason | null;
  /** Times at which an idle line may want something else although nothing is read, s since boot. */
  readonly wake?: (program: Program, line: LineState, input: EngineInput) => readonly (number | null)[];
  /** Until when the program itself lets the line rest for the reason that it now has, s since boot; null: not by the program's times. */
  readonly restsUntilS?: (program: Program, line: LineState) => number | null;
  /** What changes in the line's memory at each look, before anything is decided. @param lines all lines of the board */
  readonly notice?: (
    program: Program,
    line: LineState,
    sight: Sight,
    lines: readonly LineState[],
  ) => Partial<LineState>;
  /** What changes in the line's memory when the program starts a run. */
  readonly began?: (line: LineState) => Partial<LineState>;
};

/** What a new program may go by, so that it contradicts nothing. Volumes in ml, times in s. */
export type Beginning = {
  /** A dose that the guards allow; the old program's, where it had one. */
  readonly doseMl: number;
  readonly dailyMaxMl: number;
  readonly minIntervalS: number;
  readonly responseS: number;
  /** A minute of the day that lies within the line's hours. */
  readonly minute: number;
  /** The first line that may be followed; null without one. */
  readonly leaderId: string | null;
};

/** What else is set at the line, for what a program may contradict. */
export type LineSettings = {
  readonly minIntervalS: number;
  readonly dailyMaxMl: number;
  readonly responseS: number;
  /** Minutes of the day between which it may run; null: at any hour. */
  readonly hours: { readonly fromMinute: number; readonly toMinute: number } | null;
  /** Kind of the program of another line of the same board; null when there is no such line. */
  readonly programOf: (lineId: string) => string | null;
};

/** The garden's side: how the settings are kept, begun, checked, and handed to the engine. */
export type SavedProgram<Saved, Program> = {
  readonly settings: z.ZodType<Saved>;
  /** Null where the kind cannot be had. */
  readonly begin: (about: Beginning) => Saved | null;
  /** One dose, ml; null where the program has none of its own. */
  readonly doseMl: (saved: Saved) => number | null;
  readonly contradictions?: (saved: Saved, line: LineSettings) => readonly Contradiction[];
  /** The most runs that it may ask for in a day, whatever the probe says; missing where it asks for none by itself. */
  readonly runsADay?: (saved: Saved, line: LineSettings) => number;
  /** The line that it goes by; null for a program that goes by none. */
  readonly leaderId?: (saved: Saved) => string | null;
  /** The engine's settings. @param limits of the plot, tenths. @param placeOf a line in the engine's list; −1: not there */
  readonly bind: (
    saved: Saved,
    limits: { readonly startTenths: number; readonly stopTenths: number },
    placeOf: (lineId: string) => number,
  ) => Program;
};

export type ProgramRecord<Saved, Program> = SavedProgram<Saved, Program> & EngineRule<Program>;
