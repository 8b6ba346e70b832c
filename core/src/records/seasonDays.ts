/** A season day by day: of each local day how wet it was on average, between what, and how long in which word. */
import { bandAt, BAND_NAMES, type BandEdges, type BandName } from '../quantity/bands.ts';
import { readCurves, type Curve } from '../calibration/curve.ts';
import { FLAGS, type Series } from './series.ts';
import type { ZoneClock } from './zoneClock.ts';

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

/** Between two readings further apart nothing is known but for this long behind the first, ms. */
const HOLDS_MS = 7_200_000;
/** Behind the last reading of all. */
const LAST_HOLDS_MS = 3_600_000;
const HOUR_MS = 3_600_000;

type DaySum = { weight: number; sum: number; low: number; high: number; bands: Map<BandName, number> };

/** What is known so far of readings from one source. */
type Sum = {
  readonly days: Map<number, DaySum>;
  last: { readonly ms: number; readonly percent: number } | null;
};

/** What is known so far of a plot's days, to be gone on with; plain data, which may come from a worker. Probes and stand-in boards apart, for which of them counts is seen at the end. */
export type Season = { readonly probes: Sum; readonly standIns: Sum };

export const noSeason = (): Season => ({
  probes: { days: new Map(), last: null },
  standIns: { days: new Map(), last: null },
});

/**
 * Goes on with a season by the readings that follow, of any spacing up to an hour. What a reading says holds until the next one, two hours at most; a stretch across midnight counts for both days.
 * Every reading is to be among them: of an hour's highest nobody knows how long it was so.
 */
export function addToSeason(
  season: Season,
  { timesMs, raw, flags }: Series,
  curve: Curve,
  edges: BandEdges,
  clock: ZoneClock,
): void {
  const percents = readCurves(curve, raw);
  for (let at = 0; at < raw.length; at += 1) {
    const sum = ((flags[at] ?? 0) & FLAGS.simulated) === 0 ? season.probes : season.standIns;
    const [ms, percent] = [timesMs[at] ?? 0, percents[at] ?? 0];
    hold(sum, Math.min(ms, (sum.last?.ms ?? ms) + HOLDS_MS), edges, clock);
    const day = dayOfSum(sum, clock.dayAt(ms));
    day.low = Math.min(day.low, percent);
    day.high = Math.max(day.high, percent);
    sum.last = { ms, percent };
  }
}

/** The days of a season, by probes where there are some; the last reading of all holds for an hour. */
export function seasonOf(season: Season, edges: BandEdges, clock: ZoneClock): SeasonDay[] {
  const sum = structuredClone(season.probes.last ? season.probes : season.standIns);
  if (sum.last) hold(sum, sum.last.ms + LAST_HOLDS_MS, edges, clock);
  return [...sum.days]
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

function dayOfSum({ days }: Sum, dayMs: number): DaySum {
  const known = days.get(dayMs);
  if (known) return known;
  const made: DaySum = { weight: 0, sum: 0, low: Infinity, high: -Infinity, bands: new Map() };
  days.set(dayMs, made);
  return made;
}

/** The last reading holds up to a moment. */
function hold(sum: Sum, toMs: number, edges: BandEdges, { dayAt, offsetAt }: ZoneClock): void {
  if (!sum.last) return;
  const { ms: fromMs, percent } = sum.last;
  const word = bandAt(edges, percent * 10);
  for (let from = fromMs; from < toMs;) {
    const dayMs = dayAt(from);
    const nextMidnight = dayMs + 24 * HOUR_MS - offsetAt(from);
    const to = nextMidnight > from ? Math.min(toMs, nextMidnight) : toMs;
    const day = dayOfSum(sum, dayMs);
    day.weight += to - from;
    day.sum += percent * (to - from);
    day.bands.set(word, (day.bands.get(word) ?? 0) + to - from);
    from = to;
  }
}

/** The word that a day had for most of its known time. */
export const wordOfDay = ({ shares }: SeasonDay): BandName =>
  BAND_NAMES.reduce((best, name) => (shares[name] > shares[best] ? name : best));
