/**
 * What stands against a calibration. A refusal cannot be passed over: the numbers would mean nothing. A warning is kept with the calibration.
 */
import type { ProbeKind } from '../quantity/probeKind.ts';
import type { CurveKind } from './curve.ts';
import { TEMPERATURE_SPAN_C, temperatureSpan, type Tried } from './fitCurve.ts';
import { methodOf } from './methods.ts';
import { widthOf, type FitPoint } from './points.ts';
import type { Run, RunPoint } from './runPoint.ts';
import { hasStopped } from '../settling/settlingWatch.ts';

export type Finding = { readonly level: 'refuse' | 'warn'; readonly pointIds: readonly string[] } & (
  | { readonly kind: 'span-too-small'; readonly spanCounts: number; readonly neededCounts: number }
  | { readonly kind: 'at-the-rail'; readonly counts: number }
  | { readonly kind: 'not-monotone'; readonly curves: readonly CurveKind[] }
  | { readonly kind: 'out-of-order' }
  | { readonly kind: 'runs-the-other-way' }
  | { readonly kind: 'used-twice' }
  | { readonly kind: 'mixed-boards' }
  | { readonly kind: 'mixed-supplies'; readonly lowV: number; readonly highV: number }
  | { readonly kind: 'not-settled'; readonly points: number }
  | { readonly kind: 'once-only'; readonly points: number }
  | { readonly kind: 'repeats-apart'; readonly counts: number }
  | { readonly kind: 'old'; readonly weeks: number }
  | { readonly kind: 'no-temperature' }
  | { readonly kind: 'temperatures-apart'; readonly spanC: number }
  | { readonly kind: 'mind-the-line' }
  | { readonly kind: 'beyond-hundred' }
);

export type CheckContext = {
  readonly probeKind: ProbeKind | null;
  /** Of the converter; null for a number that the probe works out by itself, whose ends are no rails. */
  readonly fullScaleCounts: number | null;
  readonly nowMs: number;
};

/** References closer than this many times the noise cannot carry a scale: each percent would be noise. */
export const LEAST_SPAN_IN_NOISE = 10;
/** A reference this near to an end of the converter, share of full scale, is at the rail. */
const RAIL_FRAC = 0.002;
const SUPPLY_V = 0.05;
/** Repeats of one condition that lie further apart than this share of the span were not the same condition. */
const REPEATS_FRAC = 0.05;
const WEEK_MS = 7 * 86_400_000;
/** References older than this when the calibration is made belong to another season. */
export const OLD_WEEKS = 6;

/** @param used points with a capture that are not left out; @param fitPoints what the fit made of them */
export function checkPoints(
  run: Run,
  used: readonly RunPoint[],
  fitPoints: readonly FitPoint[],
  tried: readonly Tried[],
  context: CheckContext,
): readonly Finding[] {
  if (used.length === 0) return [];
  return [
    ...checkSpan(used),
    ...checkRails(used, context),
    ...checkOrder(used, fitPoints, tried, context),
    ...checkTwice(used),
    ...checkPlace(used),
    ...checkCare(run, used, context),
    ...checkWarmth(fitPoints),
    ...(fitPoints.some((point) => point.percent > 100)
      ? [{ level: 'warn', kind: 'beyond-hundred', pointIds: [] } as const]
      : []),
  ];
}

const captures = (used: readonly RunPoint[]) =>
  used.flatMap((point) => point.captures.map((capture) => ({ ...capture, pointId: point.id })));
const ids = (points: readonly RunPoint[]) => points.map((point) => point.id);

function checkSpan(used: readonly RunPoint[]): Finding[] {
  if (used.length < 2) return [];
  const all = captures(used);
  const spanCounts = widthOf(all.map((one) => one.rawCounts));
  const neededCounts = LEAST_SPAN_IN_NOISE * Math.max(1, ...all.map((one) => one.noiseCounts));
  return spanCounts < neededCounts
    ? [{ level: 'refuse', kind: 'span-too-small', spanCounts, neededCounts, pointIds: ids(used) }]
    : [];
}

function checkRails(used: readonly RunPoint[], { fullScaleCounts }: CheckContext): Finding[] {
  if (fullScaleCounts === null) return [];
  return used.flatMap((point): Finding[] => {
    const at = point.captures.find(
      ({ rawCounts }) =>
        rawCounts <= RAIL_FRAC * fullScaleCounts || rawCounts >= (1 - RAIL_FRAC) * fullScaleCounts,
    );
    return at ? [{ level: 'refuse', kind: 'at-the-rail', counts: at.rawCounts, pointIds: [point.id] }] : [];
  });
}

/** Wetter must be one way along the counts, and the way that such probes usually run. */
function checkOrder(
  used: readonly RunPoint[],
  fitPoints: readonly FitPoint[],
  tried: readonly Tried[],
  { probeKind }: CheckContext,
): Finding[] {
  const found: Finding[] = [];
  const sorted = [...fitPoints].sort((a, b) => a.percent - b.percent);
  const turns = sorted.slice(1).map((point, at) => Math.sign(point.counts - (sorted[at]?.counts ?? 0)));
  const isUneven = turns.some((turn) => turn > 0) && turns.some((turn) => turn < 0);
  if (isUneven && sorted.length > 2) found.push({ level: 'warn', kind: 'out-of-order', pointIds: ids(used) });
  const turning = tried.filter((one) => !one.curve.ok && one.curve.issue.kind === 'not-monotone');
  if (turning.length > 0 && turning.length === tried.filter((one) => !tooFew(one)).length)
    found.push({
      level: 'refuse',
      kind: 'not-monotone',
      curves: turning.map((one) => one.kind),
      pointIds: ids(used),
    });
  const usuallyFalls =
    probeKind === 'capacitive stick' ||
    probeKind === 'resistive fork' ||
    probeKind === 'home-made electrodes';
  const [driest, wettest] = [sorted[0], sorted.at(-1)];
  if (usuallyFalls && driest && wettest && driest.percent < wettest.percent && wettest.counts > driest.counts)
    found.push({ level: 'warn', kind: 'runs-the-other-way', pointIds: ids(used) });
  return found;
}

const tooFew = (one: Tried) => !one.curve.ok && one.curve.issue.kind === 'too-few';

/** The same moment, or the very same value, standing for two conditions. */
function checkTwice(used: readonly RunPoint[]): Finding[] {
  return used.flatMap((point, at) =>
    used.slice(at + 1).flatMap((other): Finding[] => {
      const same = point.captures.some((one) =>
        other.captures.some((two) => Math.abs(Date.parse(one.takenAt) - Date.parse(two.takenAt)) < 1000),
      );
      return same ? [{ level: 'refuse', kind: 'used-twice', pointIds: [point.id, other.id] }] : [];
    }),
  );
}

/** All references of one calibration belong to one board and one supply. */
function checkPlace(used: readonly RunPoint[]): Finding[] {
  const all = captures(used);
  const found: Finding[] = [];
  if (new Set(all.map((one) => one.boardId)).size > 1)
    found.push({ level: 'refuse', kind: 'mixed-boards', pointIds: ids(used) });
  const volts = all.map((one) => one.supplyV);
  if (widthOf(volts) > SUPPLY_V)
    found.push({
      level: 'refuse',
      kind: 'mixed-supplies',
      lowV: Math.min(...volts),
      highV: Math.max(...volts),
      pointIds: ids(used),
    });
  return found;
}

function checkCare(run: Run, used: readonly RunPoint[], context: CheckContext): Finding[] {
  const found: Finding[] = [];
  const unsettled = used.filter((point) => point.captures.some((one) => !hasStopped(one.settling?.verdict)));
  if (unsettled.length > 0)
    found.push({ level: 'warn', kind: 'not-settled', points: unsettled.length, pointIds: ids(unsettled) });
  const once = used.filter((point) => point.captures.length === 1);
  if (!methodOf(run.method).openEnded && once.length > 0)
    found.push({ level: 'warn', kind: 'once-only', points: once.length, pointIds: ids(once) });
  const span = widthOf(captures(used).map((one) => one.rawCounts));
  for (const point of used) {
    const counts = widthOf(point.captures.map((one) => one.rawCounts));
    if (counts > REPEATS_FRAC * span && used.length > 1)
      found.push({ level: 'warn', kind: 'repeats-apart', counts, pointIds: [point.id] });
  }
  const oldest = Math.min(...captures(used).map((one) => Date.parse(one.takenAt)));
  const weeks = Math.floor((context.nowMs - oldest) / WEEK_MS);
  if (weeks >= OLD_WEEKS) found.push({ level: 'warn', kind: 'old', weeks, pointIds: ids(used) });
  const inWater = used.filter((point) => point.condition === 'water');
  if (inWater.length > 0 && context.probeKind === 'capacitive stick')
    found.push({ level: 'warn', kind: 'mind-the-line', pointIds: ids(inWater) });
  return found;
}

function checkWarmth(fitPoints: readonly FitPoint[]): Finding[] {
  const spanC = temperatureSpan(fitPoints);
  if (spanC > TEMPERATURE_SPAN_C) return [{ level: 'warn', kind: 'temperatures-apart', spanC, pointIds: [] }];
  return fitPoints.length > 0 && fitPoints.every((point) => point.temperatureC === null)
    ? [{ level: 'warn', kind: 'no-temperature', pointIds: [] }]
    : [];
}
