/**
 * Which numbers can be a moment of a garden's life. A clock that was never set, a value in another unit and a damaged file all give times that
 * no garden has; they are refused where they come in, because a date far outside can be neither drawn nor written to a file.
 */

/** 2000-01-01T00:00:00Z, ms since 1970. */
export const EARLIEST_MS = 946_684_800_000;
/** 2100-01-01T00:00:00Z, ms since 1970. */
export const LATEST_MS = 4_102_444_800_000;

/** Whether a time in ms since 1970 lies from 2000 up to 2100. */
export const isMoment = (ms: number): boolean => ms >= EARLIEST_MS && ms < LATEST_MS;

/** How many of a unit are one millisecond. The years 2000 to 2100 do not overlap from one unit to the next, so the size of a number tells its unit. */
const PER_MS = [1e-3, 1, 1e3, 1e6] as const;

/** A number of seconds, milliseconds, microseconds or nanoseconds since 1970 as ms since 1970; null when it is none of them between 2000 and 2100. */
export function momentOf(number: number): number | null {
  const perMs = PER_MS.find((per) => isMoment(number / per));
  return perMs === undefined ? null : number / perMs;
}

/** ISO 8601 in UTC with milliseconds. A time outside 2000 to 2100 gives the nearer end, so that no date can break a sheet or a file. */
export const isoOf = (ms: number): string =>
  new Date(Math.min(LATEST_MS - 1, Math.max(EARLIEST_MS, Number.isNaN(ms) ? EARLIEST_MS : ms))).toISOString();
