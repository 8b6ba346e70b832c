/** How long a board's memory stands what is written into it: the day's water, the lock and the rest go round in a ring of places. */
import type { BoardPlan } from './plan.ts';
import { flatProgram } from './flatProgram.ts';
import { isSmall } from './fits.ts';

/** Data sheets of such memories promise so many writes of a place. */
const WRITES_OF_A_PLACE = 100_000;
/** Records of a run: its start, its end, what came of the watched dose, a pulse that is counted. */
const RECORDS_OF_A_RUN = 4;
const HOURS_OF_A_DAY = 24;
const FILES = 16;
const SMALL_MEMORY_BYTES = 1024;
const RECORD_BYTES = 4;
const LINE_BYTES = 30;
const MOST_PLACES = 64;
const LEAST_PLACES = 16;

/** Places of the ring; 0: this board keeps nothing through a reboot. */
export function keptPlaces(plan: BoardPlan, language: 'C++' | 'MicroPython'): number {
  if (plan.lines.length === 0) return 0;
  if (language === 'MicroPython') return FILES;
  // Other boards have no such memory of their own: what is offered there wears out one block of their program memory.
  if (!isSmall(plan)) return 0;
  const places = Math.floor(SMALL_MEMORY_BYTES / (RECORD_BYTES + LINE_BYTES * plan.lines.length));
  return places < LEAST_PLACES ? 0 : Math.min(MOST_PLACES, places);
}

/** At most so many records a day: one an hour, and those of as many runs as the daily maximum allows. */
export const recordsADay = ({ engine }: BoardPlan): number =>
  engine.lines.reduce((sum, { program, guards }) => {
    const { doseMl } = flatProgram(program);
    return sum + RECORDS_OF_A_RUN * Math.ceil(guards.dailyMaxMl / Math.max(1, doseMl));
  }, HOURS_OF_A_DAY);

/** Whole years until the first place has had all its writes, at the very most of water every day. */
export const wearYears = (plan: BoardPlan, places: number): number =>
  Math.floor((WRITES_OF_A_PLACE * places) / recordsADay(plan) / 365);
