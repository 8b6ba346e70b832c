/**
 * What is wrong with a stream, as far as the stream alone can tell: open, shorted, clipped, stuck, unplugged just now, hum, a leap that no soil makes,
 * jumping to and fro, a daily wave. A fault is data; its sentence and the next step are the interface's.
 */
import { medianOf, noiseOf } from '../signal/noise.ts';
import type { Stretch } from '../signal/streamBuffer.ts';
import { dailyWave } from './dailyWave.ts';
import { findHum } from './hum.ts';

export type StreamFault =
  /** At the upper end of the scale: a plug that is out, a cut wire. `sinceMs`: it was not so before. */
  | { readonly kind: 'open'; readonly sinceMs: number | null }
  /** At the lower end: a short, or no supply. */
  | { readonly kind: 'short'; readonly sinceMs: number | null }
  /** Some of the readings are cut off at an end of the scale. */
  | { readonly kind: 'clipped'; readonly end: 'top' | 'bottom'; readonly shareFrac: number }
  /** The same number for a long time, from a probe that used to have noise. */
  | { readonly kind: 'stuck'; readonly forS: number; readonly counts: number }
  /** A ripple of one period. */
  | { readonly kind: 'hum'; readonly periodS: number; readonly amplitudeCounts: number }
  /** A leap within one or two readings that stays, faster than a probe in soil answers. */
  | { readonly kind: 'leap'; readonly atMs: number; readonly byCounts: number }
  /** Leaps in both directions: poor contact, or water coming and going in a plug. */
  | { readonly kind: 'jumping'; readonly leaps: number; readonly byCounts: number }
  /** Wetter than the wet reference by far: water above the line. */
  | { readonly kind: 'beyond-wet'; readonly byFrac: number }
  /** A wave of a day's length: temperature, not water. */
  | { readonly kind: 'daily-wave'; readonly amplitudeCounts: number; readonly days: number };

export type ProbeScale = {
  readonly lowCounts: number;
  readonly highCounts: number;
  /** Way from dry to wet, counts, > 0. */
  readonly spanCounts: number;
  /** What it reads dry and in open water, where that was captured; null where its wet end is something else. */
  readonly references: { readonly dry: number; readonly wet: number } | null;
};

/** The newest readings that decide, and how long the same number must stand to be called stuck. */
const NEWEST = 12;
const STUCK_S = 20;
const STUCK_READINGS = 30;
/** A leap: this share of the span, and this many times the noise. */
const LEAP_FRAC = 0.06;
const LEAP_NOISES = 10;
/** Beyond the wet reference by this share of the span: no soil is wetter than water. */
const BEYOND_FRAC = 0.12;
const CLIPPED_FRAC = 0.04;

/**
 * The faults of a stretch, most serious first.
 * @param stretch readings in order of time; fewer than four tell nothing
 * @param handled times at which a person poured water or moved the probe, ms: a leap then is no fault
 */
export function streamFaults(
  stretch: Stretch,
  scale: ProbeScale,
  handled: readonly number[] = [],
): StreamFault[] {
  const { timesMs, values } = stretch;
  if (values.length < 4) return [];
  const rail = railFault(stretch, scale);
  if (rail) return [rail];
  const faults: StreamFault[] = [];
  const clipped = clippedFault(values, scale);
  if (clipped) faults.push(clipped);
  const stuck = stuckFault(stretch);
  if (stuck) faults.push(stuck);
  const leaps = findLeaps(stretch, scale.spanCounts).filter(
    (leap) => !handled.some((atMs) => leap.atMs >= atMs - 2000 && leap.atMs <= atMs + 15_000),
  );
  const [last] = leaps.slice(-1);
  const isBothWays = leaps.some((one) => one.byCounts > 0) && leaps.some((one) => one.byCounts < 0);
  if (leaps.length >= 3 && isBothWays)
    faults.push({
      kind: 'jumping',
      leaps: leaps.length,
      byCounts: medianOf(leaps.map((one) => Math.abs(one.byCounts))),
    });
  else if (last) faults.push({ kind: 'leap', ...last });
  const beyond = beyondWet(values, scale);
  if (beyond) faults.push(beyond);
  const hum = findHum(timesMs, values, scale.spanCounts);
  if (hum) faults.push({ kind: 'hum', ...hum });
  const wave = dailyWave(timesMs, values);
  if (wave) faults.push({ kind: 'daily-wave', ...wave });
  return faults;
}

/** A daily wave in a whole record, as a fault; null where there is none. Takes tens of milliseconds for days of readings. */
export function waveFault({ timesMs, values }: Stretch): StreamFault | null {
  const wave = dailyWave(timesMs, values);
  return wave && { kind: 'daily-wave', ...wave };
}

function railFault({ timesMs, values }: Stretch, scale: ProbeScale): StreamFault | null {
  const newest = [...values.slice(-4)];
  const isTop = newest.every((value) => value > scale.highCounts);
  const isBottom = newest.every((value) => value < scale.lowCounts);
  if (!isTop && !isBottom) return null;
  const beyond = (value: number) => (isTop ? value > scale.highCounts : value < scale.lowCounts);
  const lastGood = values.findLastIndex((value) => !beyond(value));
  const sinceMs = lastGood < 0 ? null : (timesMs[lastGood + 1] ?? null);
  return { kind: isTop ? 'open' : 'short', sinceMs };
}

function clippedFault(values: Float64Array, scale: ProbeScale): StreamFault | null {
  const newest = values.slice(-60);
  const share = (is: (value: number) => boolean) => newest.filter(is).length / newest.length;
  const top = share((value) => value > scale.highCounts);
  const bottom = share((value) => value < scale.lowCounts);
  const shareFrac = Math.max(top, bottom);
  // A single wild reading at the rail is a spike, not clipping.
  return shareFrac > CLIPPED_FRAC && shareFrac * newest.length >= 3
    ? { kind: 'clipped', end: top >= bottom ? 'top' : 'bottom', shareFrac }
    : null;
}

function stuckFault({ timesMs, values }: Stretch): StreamFault | null {
  const counts = values[values.length - 1] ?? 0;
  const lastOther = values.findLastIndex((value) => value !== counts);
  const same = values.length - 1 - lastOther;
  const forS = ((timesMs[values.length - 1] ?? 0) - (timesMs[lastOther + 1] ?? 0)) / 1000;
  if (same < STUCK_READINGS || forS < STUCK_S) return null;
  // A coarse converter on a calm probe repeats itself; only one that had noise before can have stuck.
  const before = [...values.slice(Math.max(0, lastOther - 60), lastOther + 1)];
  return before.length >= NEWEST && noiseOf(before) >= 0.3 ? { kind: 'stuck', forS, counts } : null;
}

type Leap = { readonly atMs: number; readonly byCounts: number };

/** Steps between flat pieces: the medians of three readings on either side differ by far more than the noise, and both sides are flat. */
function findLeaps({ timesMs, values }: Stretch, spanCounts: number): Leap[] {
  const from = Math.max(0, values.length - 400);
  const noise = noiseOf([...values.slice(from)]);
  const least = Math.max(LEAP_FRAC * spanCounts, LEAP_NOISES * noise);
  const leaps: Leap[] = [];
  for (let at = from + 3; at + 3 <= values.length; at += 1) {
    const before = [...values.slice(at - 3, at)];
    const after = [...values.slice(at, at + 3)];
    const byCounts = medianOf(after) - medianOf(before);
    const flat = (side: readonly number[]) =>
      Math.max(...side) - Math.min(...side) < Math.max(0.25 * Math.abs(byCounts), 4 * noise);
    if (Math.abs(byCounts) < least || !flat(before) || !flat(after)) continue;
    leaps.push({ atMs: timesMs[at] ?? 0, byCounts });
    at += 3;
  }
  return leaps;
}

function beyondWet(values: Float64Array, { references, spanCounts }: ProbeScale): StreamFault | null {
  if (!references) return null;
  const direction = Math.sign(references.wet - references.dry);
  const now = medianOf([...values.slice(-NEWEST)]);
  const byFrac = (direction * (now - references.wet)) / spanCounts;
  return byFrac > BEYOND_FRAC ? { kind: 'beyond-wet', byFrac } : null;
}
