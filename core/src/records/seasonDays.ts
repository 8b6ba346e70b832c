/** A season day by day: of each local day how wet it was on average, between what, and how long in which word. */
import { bandAt, BAND_NAMES, type BandEdges, type BandName } from '../quantity/bands.ts';
import { zoneClock } from './zoneClock.ts';

export type SeasonDay = {
  /** Local midnight as if its clocks were those of UTC, ms. */
  readonly dayMs: number;
  /** Over time, not over readings, %. */
  readonly mean: number;
  readonly lowest: number;
  readonly highest: number;
  /** Share of the time that is known, by word, 0..1; together 1. */
  readonly shares: Readonly<Record<BandName, number>>;
  /** Time of the day about which anything is known, h. */
  readonly knownH: number;
};

/** Between two readings further apart nothing is known but for this long behind the first, ms: twice the hour that a thinned day keeps. */
const HOLDS_MS = 7_200_000;
const HOUR_MS = 3_600_000;

type Sum = { weight: number; sum: number; low: number; high: number; bands: Map<BandName, number> };

/**
 * Readings of any spacing up to an hour, whole or thinned. What a reading says holds until the next one, two hours at most; a stretch across midnight counts for both days.
 * @param timesMs rising @param percents of the same length, %
 */
export function seasonDays(
  timesMs: ArrayLike<number>,
  percents: ArrayLike<number>,
  edges: BandEdges,
  timeZone: string,
): SeasonDay[] {
  const { dayAt, offsetAt } = zoneClock(timeZone);
  const days = new Map<number, Sum>();
  const sumOf = (dayMs: number): Sum => {
    const known = days.get(dayMs);
    if (known) return known;
    const made: Sum = { weight: 0, sum: 0, low: Infinity, high: -Infinity, bands: new Map() };
    days.set(dayMs, made);
    return made;
  };
  for (let at = 0; at < timesMs.length; at += 1) {
    const [fromMs, percent] = [timesMs[at] ?? 0, percents[at] ?? 0];
    const toMs = Math.min(timesMs[at + 1] ?? fromMs + HOUR_MS, fromMs + HOLDS_MS);
    const own = sumOf(dayAt(fromMs));
    own.low = Math.min(own.low, percent);
    own.high = Math.max(own.high, percent);
    const word = bandAt(edges, percent * 10);
    for (let from = fromMs; from < toMs;) {
      const dayMs = dayAt(from);
      const nextMidnight = dayMs + 24 * HOUR_MS - offsetAt(from);
      const to = nextMidnight > from ? Math.min(toMs, nextMidnight) : toMs;
      const day = sumOf(dayMs);
      day.weight += to - from;
      day.sum += percent * (to - from);
      day.bands.set(word, (day.bands.get(word) ?? 0) + to - from);
      from = to;
    }
  }
  return [...days]
    .filter(([, { low, weight }]) => Number.isFinite(low) && weight > 0)
    .toSorted(([one], [other]) => one - other)
    .map(([dayMs, { weight, sum, low, high, bands }]) => ({
      dayMs,
      mean: sum / weight,
      lowest: low,
      highest: high,
      shares: Object.fromEntries(BAND_NAMES.map((name) => [name, (bands.get(name) ?? 0) / weight])) as Record<
        BandName,
        number
      >,
      knownH: weight / HOUR_MS,
    }));
}

/** The word that a day had for most of its known time. */
export const wordOfDay = ({ shares }: SeasonDay): BandName =>
  BAND_NAMES.reduce((best, name) => (shares[name] > shares[best] ? name : best));
