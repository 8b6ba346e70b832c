/** How long a board's memory stands what is written into it: the day's water, the lock and the rest go round in a ring of places. */
import type { BoardPlan } from './plan.ts';
import { flatProgram } from './flatProgram.ts';
import { isSmall } from './fits.ts';

/** Data sheets of such memories promise so many writes of a place. */
const WRITES_OF_A_PLACE = 100_000;
/** Records of a run: its start, its end, what came of the watched dose, a pulse that is counted. */
const RECORDS_OF_A_RUN = 4;
const HOURS_OF_A_DAY = 24;
const DAY_S = 86_400;
const FILES = 16;
const SMALL_MEMORY_BYTES = 1024;
const RECORD_BYTES = 4;
const LINE_BYTES = 30;
const CONTACT_BYTES = 25;
const MOST_PLACES = 64;
const LEAST_PLACES = 16;

/** Places of the ring; 0: this board keeps nothing through a reboot. */
export function keptPlaces(plan: BoardPlan, language: 'C++' | 'MicroPython'): number {
  if (plan.lines.length + plan.contacts.length === 0) return 0;
  if (language === 'MicroPython') return FILES;
  // Other boards have no such memory of their own: what is offered there wears out one block of their program memory.
  if (!isSmall(plan)) return 0;
  const places = Math.floor(
    SMALL_MEMORY_BYTES /
      (RECORD_BYTES + LINE_BYTES * Math.max(1, plan.lines.length) + CONTACT_BYTES * plan.contacts.length),
  );
  return places < LEAST_PLACES ? 0 : Math.min(MOST_PLACES, places);
}

/** At most so many records a day: one an hour, those of as many runs as the daily maximum allows, and those of contacts. */
export const recordsADay = ({ engine, contacts }: BoardPlan): number =>
  HOURS_OF_A_DAY +
  engine.lines.reduce((sum, { program, guards }) => {
    const { doseMl } = flatProgram(program);
    return sum + RECORDS_OF_A_RUN * Math.ceil(guards.dailyMaxMl / Math.max(1, doseMl));
  }, 0) +
  // On and off, as often as the pause between two stretches lets it.
  contacts.reduce((sum, { config }) => sum + 2 * Math.ceil(DAY_S / Math.max(60, config.guards.leastOffS)), 0);

/** Whole years until the first place has had all its writes, at the very most of water every day. */
export const wearYears = (plan: BoardPlan, places: number): number =>
  Math.floor((WRITES_OF_A_PLACE * places) / recordsADay(plan) / 365);
