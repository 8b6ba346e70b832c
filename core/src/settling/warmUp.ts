/**
 * How long after its supply is switched on a probe's reading is good. Measured from a stream in which the board also prints whether the supply is on:
 * each switching on gives one warm-up, and the longest of them with a margin is what a sketch must wait.
 */
import { fail, ok, type Result } from '../quantity/result.ts';
import { input, step, worked, type Worked } from '../quantity/worked.ts';
import { medianOf, noiseOf } from '../signal/noise.ts';
import type { Stretch } from '../signal/streamBuffer.ts';

export type WarmUpRun = {
  readonly onMs: number;
  /** Time from switching on until the reading stays within the tolerance of its end, s. */
  readonly warmUpS: number;
  readonly endCounts: number;
  readonly readings: number;
};

export type WarmUpIssue =
  | { readonly kind: 'never-switched' }
  /** Fewer than so many readings while the supply was on. */
  | { readonly kind: 'too-few'; readonly readings: number; readonly needed: number }
  /** Still further from its end than the tolerance in the last third of the time. */
  | { readonly kind: 'still-moving' };

const LEAST_READINGS = 9;

/** Stretches of the probe's readings from each switching on to the switching off after it. A supply counts as on from half of its highest value. */
export function poweredStretches(power: Stretch, probe: Stretch): { onMs: number; stretch: Stretch }[] {
  const half = Math.max(...power.values, 0) / 2;
  const edges: { onMs: number; offMs: number }[] = [];
  for (let at = 1; at < power.values.length; at += 1) {
    const was = (power.values[at - 1] ?? 0) > half;
    const is = (power.values[at] ?? 0) > half;
    const timeMs = power.timesMs[at] ?? 0;
    if (!was && is) edges.push({ onMs: timeMs, offMs: Infinity });
    const last = edges.at(-1);
    if (was && !is && last?.offMs === Infinity) last.offMs = timeMs;
  }
  return edges.map(({ onMs, offMs }) => {
    const inside = (timeMs: number) => timeMs >= onMs && timeMs < offMs;
    const places = [...probe.timesMs.keys()].filter((at) => inside(probe.timesMs[at] ?? 0));
    return {
      onMs,
      stretch: {
        timesMs: Float64Array.from(places, (at) => probe.timesMs[at] ?? 0),
        values: Float64Array.from(places, (at) => probe.values[at] ?? 0),
      },
    };
  });
}

/**
 * Warm-up of one switching on. The end is the median of the last third; noise is kept out by a running median of five.
 * @param toleranceCounts how near to the end is near enough, counts, > 0; twice the noise at least is taken
 */
export function warmUpOf(
  { onMs, stretch }: { onMs: number; stretch: Stretch },
  toleranceCounts: number,
): Result<WarmUpRun, WarmUpIssue> {
  const values = [...stretch.values];
  const readings = values.length;
  if (readings < LEAST_READINGS) return fail({ kind: 'too-few', readings, needed: LEAST_READINGS });
  const tail = values.slice(-Math.ceil(readings / 3));
  const endCounts = medianOf(tail);
  const tolerance = Math.max(toleranceCounts, 2 * noiseOf(tail));
  const smooth = values.map((_, at) => medianOf(values.slice(Math.max(0, at - 2), at + 3)));
  const lastOff = smooth.findLastIndex((value) => Math.abs(value - endCounts) > tolerance);
  if (lastOff >= readings - tail.length) return fail({ kind: 'still-moving' });
  const goodMs = stretch.timesMs[lastOff + 1] ?? onMs;
  return ok({ onMs, warmUpS: lastOff < 0 ? 0 : (goodMs - onMs) / 1000, endCounts, readings });
}

/** A sketch should wait the longest of the runs and a quarter more. @param runs at least one */
export function workWarmUp(runs: readonly WarmUpRun[]): Worked {
  const longest = Math.max(...runs.map((run) => run.warmUpS));
  const wait = step(
    {
      name: 'wait after switching on',
      unit: 's',
      decimals: 1,
      formula: '{longest} × {margin}',
      inputs: {
        longest: input(`longest of ${runs.length} runs`, longest, 's', 1),
        margin: input('margin', 1.25, '', 2),
      },
    },
    ({ longest: longestS, margin }) => longestS * margin,
  );
  return worked('Warm-up', [wait], {
    source:
      'From each switching on until the running median of five readings stays within the tolerance of its end.',
    note: 'A reading taken sooner is wrong, always in the same direction. The board prints one reading per line, so the time is no finer than its lines.',
    wouldChange: 'A larger capacitor at the probe, a colder day, another supply voltage.',
  });
}
