/**
 * What stands against a calibration. A refusal cannot be passed over: the numbers would mean nothing. A warning is kept with the calibration.
 */
import type { ProbeKind } from '../quantity/probeKind.ts';
import type { CurveKind } from './curve.ts';
import { TEMPERATURE_SPAN_C, temperatureSpan, type Tried } from './fitCurve.ts';
import { methodOf } from './methods.ts';
import { widthOf, type FitPoint } from './points.ts';
import { meanOf, spanOfMeans, typedCounts, type Run, type RunPoint } from './runPoint.ts';
import { bandOf, PARTS, type Calibrated, type Part } from './uncertainty.ts';
import { hasStopped } from '../settling/settlingWatch.ts';

export type Finding = { readonly level: 'refuse' | 'warn'; readonly pointIds: readonly string[] } & (
  | {
      readonly kind: 'span-too-small';
      readonly spanCounts: number;
      readonly neededCounts: number;
      /** One of the two was typed, so no probe can have stood still. */
      readonly isTyped: boolean;
    }
  | { readonly kind: 'at-the-rail'; readonly counts: number }
  | { readonly kind: 'not-monotone'; readonly curves: readonly CurveKind[] }
  | { readonly kind: 'out-of-order' }
  | { readonly kind: 'runs-the-other-way' }
  | { readonly kind: 'used-twice' }
  | { readonly kind: 'mixed-boards' }
  | { readonly kind: 'mixed-supplies'; readonly lowV: number; readonly highV: number }
  | { readonly kind: 'not-settled'; readonly points: number }
  | { readonly kind: 'once-only'; readonly points: number }
  | { readonly kind: 'repeats-apart'; readonly counts: number; readonly spanCounts: number }
  | { readonly kind: 'same-readings' }
  | { readonly kind: 'one-word' }
  | { readonly kind: 'no-order' }
  | { readonly kind: 'too-uncertain' | 'uncertain'; readonly shareOfScale: number; readonly mostly: Part }
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
export const REPEATS_FRAC = 0.05;
/** A ± beyond this share of the scale tells hardly dry from wet; beyond the smaller one it has to be wanted, in writing. */
export const MOST_SHARE = 0.25;
export const WANTED_SHARE = 0.15;
const WEEK_MS = 7 * 86_400_000;
/** References older than this when the calibration is made belong to another season. */
export const OLD_WEEKS = 6;

/** What the points came to, as far as the checks look at it. */
export type Gained = {
  readonly fitPoints: readonly FitPoint[];
  readonly tried: readonly Tried[];
  readonly missing: number;
};

/** @param used points with a capture that are not left out */
export function checkPoints(
  run: Run,
  used: readonly RunPoint[],
  { fitPoints, tried, missing }: Gained,
  context: CheckContext,
): readonly Finding[] {
  if (used.length === 0) return [];
  return [
    ...checkSpan(used),
    ...checkRails(used, context),
    ...(run.method === 'feel'
      ? checkFeel(used, fitPoints, missing)
      : checkOrder(used, fitPoints, tried, context)),
    ...checkTwice(used),
    ...checkPlace(used),
    ...checkCare(run, used, context),
    ...checkWarmth(fitPoints),
    ...(fitPoints.some((point) => point.percent > 100)
      ? [{ level: 'warn', kind: 'beyond-hundred', pointIds: [] } as const]
      : []),
  ];
}

/** Whether a curve says enough to go by: its ± beside the scale it stands on, where it is widest. */
export function checkWorth(calibrated: Calibrated): readonly Finding[] {
  const { dryPercent, wetPercent } = calibrated.curve;
  const worst = bandOf(calibrated, 11).reduce((worst, one) =>
    one.plusMinus > worst.plusMinus ? one : worst,
  );
  const shareOfScale = worst.plusMinus / (wetPercent - dryPercent);
  const mostly = PARTS.reduce((most, part) => (worst.parts[part] > worst.parts[most] ? part : most));
  const found = { shareOfScale, mostly, pointIds: [] };
  // Written so that what is no number is refused as well.
  if (!(shareOfScale <= MOST_SHARE)) return [{ level: 'refuse', kind: 'too-uncertain', ...found }];
  return shareOfScale > WANTED_SHARE ? [{ level: 'warn', kind: 'uncertain', ...found }] : [];
}

/** Warnings that a person may pass over only by writing down why; they stay as a mark on everything that goes by the calibration. */
export const NEEDS_REASON: readonly Finding['kind'][] = ['uncertain', 'runs-the-other-way'];
export const needsReason = (findings: readonly Finding[]): boolean =>
  findings.some((one) => NEEDS_REASON.includes(one.kind));

/** Worst first: refusals, then what needs a reason, then what may be a mistake, then what is merely worth knowing. */
const RANK: readonly Finding['kind'][] = [
  'used-twice',
  'repeats-apart',
  'span-too-small',
  'at-the-rail',
  'mixed-boards',
  'mixed-supplies',
  'not-monotone',
  'one-word',
  'no-order',
  'too-uncertain',
  'runs-the-other-way',
  'out-of-order',
  'uncertain',
  'same-readings',
  'not-settled',
  'beyond-hundred',
  'temperatures-apart',
  'old',
  'once-only',
  'mind-the-line',
  'no-temperature',
];
export const ranked = (findings: readonly Finding[]): readonly Finding[] =>
  [...findings].sort(
    (a, b) =>
      Number(a.level === 'warn') - Number(b.level === 'warn') || RANK.indexOf(a.kind) - RANK.indexOf(b.kind),
  );

const captures = (used: readonly RunPoint[]) =>
  used.flatMap((point) => point.captures.map((capture) => ({ ...capture, pointId: point.id })));
const ids = (points: readonly RunPoint[]) => points.map((point) => point.id);

function checkSpan(used: readonly RunPoint[]): Finding[] {
  if (used.length < 2) return [];
  const all = captures(used);
  const spanCounts = spanOfMeans(used);
  const neededCounts = LEAST_SPAN_IN_NOISE * Math.max(1, ...all.map((one) => one.noiseCounts));
  const isTyped = used.some((point) => typedCounts(point) !== null);
  return spanCounts < neededCounts
    ? [{ level: 'refuse', kind: 'span-too-small', spanCounts, neededCounts, isTyped, pointIds: ids(used) }]
    : [];
}

function checkRails(used: readonly RunPoint[], { fullScaleCounts }: CheckContext): Finding[] {
  if (fullScaleCounts === null) return [];
  return used.flatMap((point): Finding[] => {
    const all = [...point.captures.map(({ rawCounts }) => rawCounts), meanOf(point)];
    const at = all.find(
      (counts) => counts <= RAIL_FRAC * fullScaleCounts || counts >= (1 - RAIL_FRAC) * fullScaleCounts,
    );
    return at === undefined
      ? []
      : [{ level: 'refuse', kind: 'at-the-rail', counts: at, pointIds: [point.id] }];
  });
}

/** Times its standard deviation by which a difference is more than chance. */
const CLEARLY = 2;

/** Which ways the counts go from a drier to a wetter point, over all pairs that differ by more than chance in both. */
function clearWays(sorted: readonly FitPoint[]): ReadonlySet<number> {
  const ways = sorted.flatMap((dry, at) =>
    sorted.slice(at + 1).map((wet) => {
      const moved = wet.counts - dry.counts;
      const off = [dry, wet].flatMap(({ sigma }) => [sigma.repeat, sigma.unsettled]);
      const isWetter = wet.percent - dry.percent > CLEARLY * Math.hypot(wet.sigmaPercent, dry.sigmaPercent);
      return isWetter && Math.abs(moved) > CLEARLY * Math.hypot(...off) ? Math.sign(moved) : 0;
    }),
  );
  return new Set(ways);
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
  const ways = clearWays(sorted);
  if (ways.has(1) && ways.has(-1)) found.push({ level: 'warn', kind: 'out-of-order', pointIds: ids(used) });
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

/** A finger that found one word only, or now more and now less with the same numbers, has shown no order. */
function checkFeel(used: readonly RunPoint[], fitPoints: readonly FitPoint[], missing: number): Finding[] {
  if (missing > 0) return [];
  if (new Set(used.map((point) => point.felt)).size < 2)
    return [{ level: 'refuse', kind: 'one-word', pointIds: ids(used) }];
  return fitPoints.length < 2 ? [{ level: 'refuse', kind: 'no-order', pointIds: ids(used) }] : [];
}

export type Timed = { readonly takenAt: string; readonly windowS?: number };
/** Two captures share most of their readings: nothing can have changed between them. */
export function sharesReadings(one: Timed, other: Timed): boolean {
  const apartS = Math.abs(Date.parse(one.takenAt) - Date.parse(other.takenAt)) / 1000;
  return apartS < Math.max(1, 0.5 * Math.min(one.windowS ?? 0, other.windowS ?? 0));
}

/** The same readings, standing for two conditions, or twice for one. */
function checkTwice(used: readonly RunPoint[]): Finding[] {
  // A number that was typed stands for itself, whatever the probe read meanwhile.
  const read = used.filter((point) => typedCounts(point) === null);
  const between = read.flatMap((point, at) =>
    read.slice(at + 1).flatMap((other): Finding[] => {
      const same = point.captures.some((one) => other.captures.some((two) => sharesReadings(one, two)));
      return same ? [{ level: 'refuse', kind: 'used-twice', pointIds: [point.id, other.id] }] : [];
    }),
  );
  const again = used.filter((point) =>
    point.captures.some((one, at) => point.captures.slice(at + 1).some((two) => sharesReadings(one, two))),
  );
  return again.length > 0
    ? [...between, { level: 'warn', kind: 'same-readings', pointIds: ids(again) }]
    : between;
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
  // A number that was typed was not captured with any care or without.
  const read = used.filter((point) => typedCounts(point) === null);
  const unsettled = read.filter((point) => point.captures.some((one) => !hasStopped(one.settling?.verdict)));
  if (unsettled.length > 0)
    found.push({ level: 'warn', kind: 'not-settled', points: unsettled.length, pointIds: ids(unsettled) });
  const once = read.filter((point) => point.captures.length === 1);
  if (!methodOf(run.method).openEnded && once.length > 0)
    found.push({ level: 'warn', kind: 'once-only', points: once.length, pointIds: ids(once) });
  const spanCounts = spanOfMeans(used);
  for (const point of read) {
    const counts = widthOf(point.captures.map((one) => one.rawCounts));
    if (counts > REPEATS_FRAC * spanCounts && used.length > 1)
      found.push({ level: 'refuse', kind: 'repeats-apart', counts, spanCounts, pointIds: [point.id] });
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
