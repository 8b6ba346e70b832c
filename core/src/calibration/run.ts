/**
 * A run of calibrating one channel: what was captured so far, what it adds up to, and what stands against it. Pure: the garden keeps the run, so it can be
 * left and taken up again.
 */
import type { BandName } from '../quantity/bands.ts';
import type { Result } from '../quantity/result.ts';
import type { PercentKind } from '../quantity/percentKind.ts';
import { assumedOf, bendShare, staysIn, type Assumed } from './assumptions.ts';
import { cutsByFeel, directionByFeel, middleOfBand, rankOf, type Feel } from './bandsByFeel.ts';
import { checkPoints, checkWorth, ranked, type CheckContext, type Finding } from './checks.ts';
import { convertPercent, type ConvertIssue, type Uncertain } from './convertPercent.ts';
import type { CurveKind } from './curve.ts';
import { checkFactory, type FactoryCheck } from './factoryCheck.ts';
import { chooseKind, tryAll, type Tried } from './fitCurve.ts';
import { inStep, type InStep } from './meterPairs.ts';
import { factorySays, knownOf, methodOf, type Inputs, type KnownIssue } from './methods.ts';
import { pointOf, scatterOf, type FitPoint } from './points.ts';
import { meanOf, spanOfMeans, typedCounts, type Run, type RunPoint } from './runPoint.ts';
import { calibrate, type Calibrated } from './uncertainty.ts';

/** Weighing says a soil's water content to about one percent by volume. */
const KNOWN_CONTENT_SIGMA = 1;

export type Outcome = {
  readonly percentKind: PercentKind;
  /** What each point stands for, by its id. */
  readonly known: ReadonlyMap<string, Result<Uncertain, KnownIssue>>;
  /** The points that the fit takes, in the order of the run. */
  readonly fitPoints: readonly (FitPoint & { readonly pointId: string | null })[];
  readonly tried: readonly Tried[];
  readonly chosen: CurveKind | null;
  readonly findings: readonly Finding[];
  /** Points still missing before there can be a curve. */
  readonly missing: number;
  /** Why the kind of percent that was asked for cannot be had; the method's own is shown. */
  readonly convertIssue: ConvertIssue | null;
  readonly inStep: InStep | null;
  readonly feel: (Feel & { readonly direction: 'falling' | 'rising' }) | null;
  readonly factory: FactoryCheck | null;
  /** What the ± takes for granted, and how much of the bend may hide between the points. */
  readonly assumed: Assumed;
  readonly bendShare: number;
};

/** Everything that the captured points add up to. */
export function outcomeOf(run: Run, context: CheckContext): Outcome {
  const method = methodOf(run.method);
  const used = run.points.filter((point) => point.used && point.captures.length > 0);
  const span = spanOfMeans(used) || 1;
  const assumed = assumedOf(run.inputs);
  const scatter = scatterOf(
    used.map((point) => point.captures),
    span,
    (staysIn(run.method) ? assumed.staying : assumed.pushingIn) / 100,
  );
  const known = new Map(run.points.map((point) => [point.id, knownOf(method, run.inputs, point)]));
  const special = run.method === 'feel' || run.method === 'factory';
  const direct = used.flatMap((point) => {
    const value = known.get(point.id);
    if (!value?.ok || special) return [];
    const of = { ...value.value, temperatureC: point.temperatureC };
    const read = pointOf(readOf(point), of, span, scatter);
    const isTyped = typedCounts(point) !== null;
    const sigma = isTyped ? { ...read.sigma, repeat: 0, unsettled: 0 } : read.sigma;
    return [{ ...read, sigma, pointId: point.id }];
  });
  const felt = used.flatMap((point) =>
    point.felt ? [{ point, counts: meanOf(point), felt: point.felt }] : [],
  );
  const feel = run.method === 'feel' ? feelOf(felt) : null;
  const factory = run.method === 'factory' ? factoryOf(run.inputs, used, scatter) : null;
  const gathered =
    run.method === 'feel'
      ? feelPoints(felt, feel, span, scatter)
      : factory
        ? sheetPoints(run.inputs, factory, scatter)
        : run.method === 'cut-offs'
          ? reachingOut(direct)
          : direct;
  const ownKind: PercentKind =
    factory && factory.verdict !== 'agrees' ? 'volumetric' : method.percentKind(run.inputs);
  const turned = convertPoints(gathered, ownKind, run.convert);
  const { fitPoints, percentKind } = turned;
  const noiseCounts = noiseOfRun({ points: used });
  const tried = tryAll(fitPoints, { percentKind, noiseCounts }).filter((one) =>
    method.curves.includes(one.kind),
  );
  const gained = {
    chosen: null,
    percentKind,
    known,
    fitPoints,
    tried,
    // A point that stands for no percent counts for nothing: a weight too light, more water than there are pores.
    missing: Math.max(0, method.leastPoints - (special ? used.length : direct.length)),
    convertIssue: turned.issue,
    inStep: run.method === 'meter' ? inStep(direct) : null,
    feel,
    factory,
    assumed,
    bendShare: bendShare(run.method),
  };
  const findings = ranked(checkPoints(run, used, gained, context));
  return { ...gained, chosen: chooseWorthy(gained, noiseCounts), findings };
}

/** The kind that leave-one-out chooses, passing over one that would be refused for its ± while another is not. */
function chooseWorthy(gained: Omit<Outcome, 'findings'>, noiseCounts: number): CurveKind | null {
  let left = gained.tried;
  for (let kind = chooseKind(left); kind; kind = chooseKind(left)) {
    const made = calibratedOf(gained, kind, noiseCounts);
    if (made && !checkWorth(made).some((one) => one.level === 'refuse')) return kind;
    left = left.filter((one) => one.kind !== kind);
  }
  return chooseKind(gained.tried);
}

type Gathered = Outcome['fitPoints'];

/** The points in another kind of percent, all of them or none. */
function convertPoints(
  points: Gathered,
  from: PercentKind,
  convert: Run['convert'],
): {
  readonly fitPoints: Gathered;
  readonly percentKind: PercentKind;
  readonly issue: ConvertIssue | null;
} {
  if (!convert) return { fitPoints: points, percentKind: from, issue: null };
  const turned: Gathered[number][] = [];
  for (const point of points) {
    const value = convertPercent(point, from, convert.to, convert.soil);
    if (!value.ok) return { fitPoints: points, percentKind: from, issue: value.issue };
    turned.push({ ...point, ...value.value });
  }
  return { fitPoints: turned, percentKind: convert.to, issue: null };
}

/** The curve that a run gives in the kind that was chosen, with all that its ± rests on; null while there is none. */
export function calibratedOf(
  outcome: Pick<Outcome, 'fitPoints' | 'percentKind' | 'assumed' | 'bendShare'>,
  kind: CurveKind,
  noiseCounts: number,
): Calibrated | null {
  const { percentKind, assumed } = outcome;
  return calibrate(outcome.fitPoints, kind, {
    percentKind,
    noiseCounts,
    assumed,
    bendShare: outcome.bendShare,
  });
}

/** The curve of one kind with everything that stands against it, worst first. */
export function worthOf(
  outcome: Outcome,
  kind: CurveKind | null,
  noiseCounts: number,
): {
  readonly calibrated: Calibrated | null;
  readonly findings: readonly Finding[];
  readonly refused: boolean;
} {
  const calibrated = kind && calibratedOf(outcome, kind, noiseCounts);
  const isRefused = (found: readonly Finding[]) => found.some((one) => one.level === 'refuse');
  // Where something else stands against it already, a wide ± is only what follows from that.
  const worth = calibrated && !isRefused(outcome.findings) ? checkWorth(calibrated) : [];
  const findings = ranked([...outcome.findings, ...worth]);
  return { calibrated, findings, refused: isRefused(findings) };
}

/** Noise that a run's captures had, at least one count. */
export const noiseOfRun = (run: Pick<Run, 'points'>): number =>
  Math.max(1, ...run.points.flatMap((point) => point.captures.map((one) => one.noiseCounts)));

const readOf = (point: RunPoint) => ({ captures: point.captures, counts: meanOf(point) });

/** Two cut-offs lie within the scale, not at its ends: the straight line goes on to 0 and 100, for the numbers go on beyond them. */
function reachingOut(points: Gathered): Gathered {
  const [one, other] = points;
  if (!one || !other || one.percent === other.percent) return points;
  const perPercent = (other.counts - one.counts) / (other.percent - one.percent);
  return points.map((point) => {
    const percent = point.percent < 50 ? 0 : 100;
    return { ...point, percent, counts: point.counts + (percent - point.percent) * perPercent };
  });
}

type FeltPoint = { readonly point: RunPoint; readonly counts: number; readonly felt: BandName };

/** Cut-offs between what was felt; null while fewer than two different words were felt, or they go neither up nor down with the numbers. */
function feelOf(felt: readonly FeltPoint[]): Outcome['feel'] {
  const direction = directionByFeel(felt);
  return direction && { ...cutsByFeel(felt, direction), direction };
}

/** A scale for bands by feel: each end at the middle of the word that was felt there, so that the wettest reading is called what the finger called it. */
function feelPoints(
  felt: readonly FeltPoint[],
  feel: Outcome['feel'],
  span: number,
  scatter: number,
): Gathered {
  const sorted = [...felt].sort((a, b) => a.counts - b.counts);
  const ends = [sorted[0], sorted.at(-1)];
  if (!feel || ends[0] === ends[1]) return [];
  const words = ends.map((one) => one?.felt);
  const isOrdered = (feel.direction === 'rising') === rankOf(words[0]) < rankOf(words[1]);
  if (words[0] === words[1] || !isOrdered) return [];
  return ends.flatMap((one) => {
    if (!one) return [];
    const of = {
      percent: middleOfBand(one.felt),
      sigmaPercent: 0,
      common: [],
      temperatureC: one.point.temperatureC,
    };
    return [{ ...pointOf(readOf(one.point), of, span, scatter), pointId: one.point.id }];
  });
}

function factoryOf(inputs: Inputs, used: readonly RunPoint[], scatter: number): FactoryCheck | null {
  const sigma = (inputs.sheetSigma ?? 3) / 2;
  const span = Math.abs((inputs.highCounts ?? 1) - (inputs.lowCounts ?? 0)) || 1;
  const worth = Math.abs((inputs.highPercent ?? 100) - (inputs.lowPercent ?? 0)) / span;
  const points = used.flatMap((point) =>
    point.typed === null
      ? []
      : [
          {
            says: { percent: factorySays(inputs, meanOf(point)), sigmaPercent: sigma },
            known: {
              percent: point.typed,
              sigmaPercent: Math.hypot(
                KNOWN_CONTENT_SIGMA,
                (worth * scatter) / Math.sqrt(point.captures.length),
              ),
            },
          },
        ],
  );
  const [first, ...rest] = points;
  return first ? checkFactory([first, ...rest.slice(0, 1)]) : null;
}

/** The maker's line, put right where the check found it wrong, and only as far as it says a percent from 0 to 100. */
function sheetPoints(inputs: Inputs, check: FactoryCheck, scatter: number): Gathered {
  const { lowCounts = 0, highCounts = 1 } = inputs;
  const says = (counts: number) => check.gain * factorySays(inputs, counts) + check.offset;
  const perCount = (says(highCounts) - says(lowCounts)) / (highCounts - lowCounts || 1);
  return [lowCounts, highCounts].map((end) => {
    const said = says(end);
    const percent = Math.min(100, Math.max(0, said));
    return {
      pointId: null,
      counts: percent === said || perCount === 0 ? end : end + (percent - said) / perCount,
      percent,
      sigma: { repeat: 0, single: scatter, unsettled: 0 },
      ...sheetSigma(inputs, check, percent),
      temperatureC: null,
    };
  });
}

/** What the line may be off by at a percent: the sheet's own ±, which is one for the whole line; or where it was put right, what the soils it was put right by may be off by. */
function sheetSigma(
  inputs: Inputs,
  check: FactoryCheck,
  percent: number,
): Pick<FitPoint, 'sigmaPercent' | 'common'> {
  const sheet = (inputs.sheetSigma ?? 3) / 2;
  if (check.verdict === 'agrees') return { sigmaPercent: sheet / 4, common: [sheet] };
  const [a, b] = check.anchors;
  if (check.verdict === 'offset' || !b)
    return {
      sigmaPercent: sheet / 2,
      common: [Math.hypot(...check.anchors.map((one) => one.sigmaPercent)) / check.anchors.length],
    };
  const along = (percent - a.percent) / (b.percent - a.percent);
  return { sigmaPercent: sheet / 2, common: [(1 - along) * a.sigmaPercent, along * b.sigmaPercent] };
}
