/** The stretch of time that a log shows: moved, zoomed, set by days of the garden's own zone. */
import { EARLIEST_MS, LATEST_MS } from '../quantity/moment.ts';
import { zoneOffsetMs } from './timeTicks.ts';

/** From a moment up to another, which is not of it any more; ms since 1970. */
export type Stretch = { readonly fromMs: number; readonly toMs: number };

/** Shorter than a minute shows nothing that a live sheet does not; longer than thirty years nobody has. */
export const LEAST_MS = 60_000;
const MOST_MS = 30 * 366 * 86_400_000;

const lengthOf = ({ fromMs, toMs }: Stretch): number => toMs - fromMs;

/** Kept within the times that a record can have, its length unchanged where that is possible. */
function within({ fromMs, toMs }: Stretch): Stretch {
  const length = Math.min(Math.max(toMs - fromMs, LEAST_MS), MOST_MS, LATEST_MS - EARLIEST_MS);
  const from = Math.min(Math.max(fromMs, EARLIEST_MS), LATEST_MS - length);
  return { fromMs: from, toMs: from + length };
}

/** Moved by a share of its own length; later where it is positive. */
export const moved = (stretch: Stretch, share: number): Stretch => {
  const by = share * lengthOf(stretch);
  return within({ fromMs: stretch.fromMs + by, toMs: stretch.toMs + by });
};

/** Longer or shorter by a factor around a place in it (0 its beginning, 1 its end), which stays where it is. */
export function zoomed(stretch: Stretch, factor: number, place: number): Stretch {
  const length = Math.min(Math.max(lengthOf(stretch) * factor, LEAST_MS), MOST_MS);
  const atMs = stretch.fromMs + place * lengthOf(stretch);
  return within({ fromMs: atMs - place * length, toMs: atMs + (1 - place) * length });
}

/** The midnight that begins a day, "2026-05-01", in a zone; NaN for what is no day. */
export function dayStartMs(day: string, timeZone: string): number {
  const asUtc = /^\d{4}-\d\d-\d\d$/.test(day) ? Date.parse(`${day}T00:00:00Z`) : NaN;
  if (Number.isNaN(asUtc)) return NaN;
  // The offset of the zone at that very midnight: once from near it, once from there.
  const near = asUtc - zoneOffsetMs(asUtc, timeZone);
  return asUtc - zoneOffsetMs(near, timeZone);
}

/** The day of a moment in a zone, "2026-05-01". */
export const dayIn = (timeMs: number, timeZone: string): string =>
  new Date(timeMs + zoneOffsetMs(timeMs, timeZone)).toISOString().slice(0, 10);

/** From the beginning of one day to the end of another, whichever comes first; null where one of them is none. */
export function daysStretch(first: string, last: string, timeZone: string): Stretch | null {
  const [one, other] = [first, last].sort() as [string, string];
  const fromMs = dayStartMs(one, timeZone);
  const lastMs = dayStartMs(other, timeZone);
  if (Number.isNaN(fromMs) || Number.isNaN(lastMs)) return null;
  // A day with a change of clocks has 23 or 25 hours: it ends where the next day begins.
  const next = dayStartMs(dayIn(lastMs + 36 * 3_600_000, timeZone), timeZone);
  return within({ fromMs, toMs: next });
}
