/** Local clock times as moments, also across the nights in which the clocks are changed. */
import { DAY_MS } from '../records/series.ts';
import { zoneClock } from '../records/zoneClock.ts';

/** A local time, as if it were UTC, as a moment; null where the zone's clocks never showed it. @param of what the row is of, where rows of several things share a time */
export type ToMoment = (wallMs: number, of?: string) => number | null;

/**
 * A zone's local times in the order in which a table holds them. Of an hour that came twice the one is meant that goes on from the time before; the offset of a day is asked of the zone once.
 * @param timeZone IANA name, or an offset such as "+02:00" @param isFalling the table has its newest row first
 * @param startsFurther where the first time is of an hour that came twice, it is not the one by which the table goes on
 */
export function momentsIn(timeZone: string, isFalling = false, startsFurther = false): ToMoment {
  const { offsetAt, offsetOn } = zoneClock(timeZone);
  let lastMs: number | null = null;
  /** What had a row at that moment: the same thing a second time is an hour later. */
  let seen = new Set<string>();
  const taken = (ms: number, of: string): number => {
    if (ms !== lastMs) seen = new Set();
    seen.add(of);
    lastMs = ms;
    return ms;
  };
  // On most days the clocks are left alone; of a day that was asked before nothing is asked again.
  let [knownDay, knownOffset] = [Number.NaN, 0];
  return (wallMs, of = '') => {
    const day = Math.floor(wallMs / DAY_MS);
    if (day === knownDay) return (lastMs = wallMs - knownOffset);
    const [early, late] = [offsetOn(day - 1), offsetOn(day + 2)];
    if (early === late) {
      [knownDay, knownOffset] = [day, early];
      return (lastMs = wallMs - early);
    }
    const found = new Set(
      [early, late].map((offset) => wallMs - offset).filter((ms) => wallMs - ms === offsetAt(ms)),
    );
    const [one, ...more] = [...found].toSorted((a, b) => (isFalling ? b - a : a - b));
    if (one === undefined) return null;
    const before = lastMs;
    if (before === null && startsFurther) return taken(more[0] ?? one, of);
    // The first of the two, in the table's direction, that does not go back behind the row before.
    const goesOn = (ms: number) =>
      before === null || (ms === before ? !seen.has(of) : isFalling ? ms < before : ms > before);
    return taken([one, ...more].find(goesOn) ?? one, of);
  };
}
