/** Local clock times as moments, also across the nights in which the clocks are changed. */
import { zoneOffsetMs } from '../records/timeTicks.ts';

const DAY_MS = 86_400_000;

/** A local time, as if it were UTC, as a moment; null where the zone's clocks never showed it. */
export type ToMoment = (wallMs: number) => number | null;

/**
 * A zone's local times in the order in which a table holds them. Of an hour that came twice the one is meant that goes on from the time before; the offset of a day is asked of the zone once.
 * @param timeZone IANA name, or an offset such as "+02:00" @param isFalling the table has its newest row first
 */
export function momentsIn(timeZone: string, isFalling = false): ToMoment {
  const offsets = new Map<number, number>();
  const onDay = (day: number): number => {
    const known = offsets.get(day);
    if (known !== undefined) return known;
    const offset = zoneOffsetMs(day * DAY_MS, timeZone);
    offsets.set(day, offset);
    return offset;
  };
  const changes = new Map<number, number>();
  /** When within a UTC day the clocks are changed. */
  const changeOn = (day: number): number => {
    const known = changes.get(day);
    if (known !== undefined) return known;
    let [low, high] = [day * DAY_MS, (day + 1) * DAY_MS];
    while (high - low > 1000) {
      const middle = Math.floor((low + high) / 2000) * 1000;
      if (zoneOffsetMs(middle, timeZone) === onDay(day)) low = middle;
      else high = middle;
    }
    changes.set(day, high);
    return high;
  };
  const offsetAt = (ms: number): number => {
    const day = Math.floor(ms / DAY_MS);
    const [start, end] = [onDay(day), onDay(day + 1)];
    return start === end || ms < changeOn(day) ? start : end;
  };
  let lastMs: number | null = null;
  // On most days the clocks are left alone; of a day that was asked before nothing is asked again.
  let [knownDay, knownOffset] = [Number.NaN, 0];
  return (wallMs) => {
    const day = Math.floor(wallMs / DAY_MS);
    if (day === knownDay) return (lastMs = wallMs - knownOffset);
    const [early, late] = [onDay(day - 1), onDay(day + 2)];
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
    // The first of the two, in the table's direction, that does not go back behind the row before.
    const goesOn = (ms: number) => before === null || (isFalling ? ms <= before : ms >= before);
    lastMs = [one, ...more].find(goesOn) ?? one;
    return lastMs;
  };
}
