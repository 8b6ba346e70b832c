/** What a chart draws paler than a probe's own readings: those of stand-in boards in a log that also has real ones, and those that stand beside recorded ones. */
import { FLAGS, type Series } from './series.ts';
import { gapFinder, traceOf, type TracePoint } from './trace.ts';

export type SourceTraces = {
  readonly own: readonly TracePoint[];
  /** Never joined to the own ones. Empty where all readings are of one kind: then there is nothing to tell apart. */
  readonly standIn: readonly TracePoint[];
};

/**
 * Traces of a series by where its readings come from, each with its own gaps: in one stretch of time there may be both.
 * @param series without readings that stand beside others
 * @param values what is drawn of each, same length
 * @param isGap whether a gap lies before the row at a place, among those of its own source; null: told from the distances
 * @param isChange whether the line is broken there for another reason
 */
export function tracesBySource(
  { timesMs, flags }: Series,
  values: ArrayLike<number>,
  buckets: number,
  isGap: ((at: number) => boolean) | null = null,
  isChange: (at: number) => boolean = () => false,
): SourceTraces {
  const rows: Record<'own' | 'standIn', number[]> = { own: [], standIn: [] };
  for (let at = 0; at < flags.length; at += 1)
    rows[((flags[at] ?? 0) & FLAGS.simulated) === 0 ? 'own' : 'standIn'].push(at);
  // A year of them is drawn while somebody waits: what is of one source is not picked apart.
  if (rows.own.length === 0 || rows.standIn.length === 0) {
    const isApart = isGap ?? gapFinder(timesMs);
    return { own: traceOf(timesMs, values, buckets, (at) => isApart(at) || isChange(at)), standIn: [] };
  }
  const trace = (of: readonly number[]): TracePoint[] => {
    const times = picked(timesMs, of);
    const within = isGap ? null : gapFinder(times);
    /** Whether something holds for a row of these, or for one of the others since the row before. */
    const since = (place: number, holds: (at: number) => boolean) => {
      for (let at = (of[place - 1] ?? -1) + 1; at <= (of[place] ?? -1); at += 1) if (holds(at)) return true;
      return false;
    };
    return traceOf(
      times,
      picked(values, of),
      buckets,
      (place) => (isGap ? isGap(of[place] ?? -1) : within?.(place) === true) || since(place, isChange),
    );
  };
  return { own: trace(rows.own), standIn: trace(rows.standIn) };
}

/** The values at some places. */
function picked(values: ArrayLike<number>, places: readonly number[]): Float64Array {
  const chosen = new Float64Array(places.length);
  for (let at = 0; at < chosen.length; at += 1) chosen[at] = values[places[at] ?? -1] ?? Number.NaN;
  return chosen;
}

/**
 * The readings that stand beside recorded ones, as points that nothing joins; at most four for each of the buckets.
 * @param all with the readings that stand beside others
 * @param valueOf what is drawn of raw values, same length
 */
export function besideTrace(
  all: Series,
  valueOf: (raw: Float64Array) => ArrayLike<number>,
  buckets: number,
): readonly TracePoint[] {
  const rows = [...all.flags.keys()].filter((at) => ((all.flags[at] ?? 0) & FLAGS.beside) !== 0);
  const values = valueOf(picked(all.raw, rows));
  return traceOf(picked(all.timesMs, rows), values, buckets, () => false).filter(({ y }) => y !== null);
}
