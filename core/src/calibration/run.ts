/**
 * A run of calibrating one channel: what was captured so far, what it adds up to, and what stands against it. Pure: the garden keeps the run, so it can be
 * left and taken up again.
 */
import type { BandName } from '../quantity/bands.ts';
import type { Result } from '../quantity/result.ts';
import type { PercentKind } from '../quantity/percentKind.ts';
import { cutsByFeel, type Feel } from './bandsByFeel.ts';
import { checkPoints, type CheckContext, type Finding } from './checks.ts';
import { convertPercent, type ConvertIssue, type Uncertain } from './convertPercent.ts';
import type { CurveKind } from './curve.ts';
import { checkFactory, type FactoryCheck } from './factoryCheck.ts';
import { chooseKind, tryAll, type Tried } from './fitCurve.ts';
import { inStep, type InStep } from './meterPairs.ts';
import { factorySays, knownOf, methodOf, type Inputs, type KnownIssue } from './methods.ts';
import { pointOf, repeatSigma, widthOf, type FitPoint } from './points.ts';
import type { Run, RunPoint } from './runPoint.ts';
import { calibrate, type Calibrated } from './uncertainty.ts';

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
  readonly feel: Feel | null;
  readonly factory: FactoryCheck | null;
};

/** Everything that the captured points add up to. */
export function outcomeOf(run: Run, context: CheckContext): Outcome {
  const method = methodOf(run.method);
  const used = run.points.filter((point) => point.used && point.captures.length > 0);
  const span = widthOf(used.flatMap((point) => point.captures.map((one) => one.rawCounts))) || 1;
  const known = new Map(run.points.map((point) => [point.id, knownOf(method, run.inputs, point)]));
  const special = run.method === 'feel' || run.method === 'factory';
  const direct = used.flatMap((point) => {
    const value = known.get(point.id);
    if (!value?.ok || special) return [];
    const of = { ...value.value, temperatureC: point.temperatureC };
    return [{ ...pointOf(point.captures, of, span), pointId: point.id }];
  });
  const feel = run.method === 'feel' ? feelOf(used) : null;
  const factory = run.method === 'factory' ? factoryOf(run.inputs, used) : null;
  const gathered = feel
    ? feelPoints(used, feel.direction, span)
    : factory
      ? sheetPoints(run.inputs, factory)
      : direct;
  const ownKind: PercentKind =
    factory && factory.verdict !== 'agrees' ? 'volumetric' : method.percentKind(run.inputs);
  const turned = convertPoints(gathered, ownKind, run.convert);
  const { fitPoints, percentKind } = turned;
  const noiseCounts = Math.max(1, ...used.flatMap((point) => point.captures.map((one) => one.noiseCounts)));
  const tried = tryAll(fitPoints, { percentKind, noiseCounts }).filter((one) =>
    method.curves.includes(one.kind),
  );
  return {
    percentKind,
    known,
    fitPoints,
    tried,
    chosen: chooseKind(tried),
    findings: checkPoints(run, used, fitPoints, tried, context),
    missing: Math.max(0, method.leastPoints - used.length),
    convertIssue: turned.issue,
    inStep: run.method === 'meter' ? inStep(direct) : null,
    feel,
    factory,
  };
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
export function calibratedOf(outcome: Outcome, kind: CurveKind, noiseCounts: number): Calibrated | null {
  return calibrate(outcome.fitPoints, kind, { percentKind: outcome.percentKind, noiseCounts });
}

/** Noise that a run's captures had, at least one count. */
export const noiseOfRun = (run: Run): number =>
  Math.max(1, ...run.points.flatMap((point) => point.captures.map((one) => one.noiseCounts)));

const meanOf = (point: RunPoint) =>
  point.captures.reduce((sum, one) => sum + one.rawCounts, 0) / point.captures.length;

const ORDER: Readonly<Record<BandName, number>> = { dry: 0, low: 1, right: 2, wet: 3, flooded: 4 };

function feelOf(used: readonly RunPoint[]): (Feel & { readonly direction: 'falling' | 'rising' }) | null {
  const found = used.flatMap((point) => (point.felt ? [{ counts: meanOf(point), felt: point.felt }] : []));
  if (found.length < 2) return null;
  const middle = (of: (one: (typeof found)[number]) => number) =>
    found.reduce((sum, one) => sum + of(one), 0) / found.length;
  const [counts, order] = [middle((one) => one.counts), middle((one) => ORDER[one.felt])];
  const together = found.reduce((sum, one) => sum + (one.counts - counts) * (ORDER[one.felt] - order), 0);
  const direction = together < 0 ? 'falling' : 'rising';
  return { ...cutsByFeel(found, direction), direction };
}

/** A scale for bands by feel: zero at the driest reading that was felt, a hundred at the wettest. */
function feelPoints(
  used: readonly RunPoint[],
  direction: 'falling' | 'rising',
  span: number,
): (FitPoint & { pointId: string | null })[] {
  const sorted = [...used].sort((a, b) => meanOf(a) - meanOf(b));
  const [low, high] = [sorted[0], sorted.at(-1)];
  if (!low || !high || low === high) return [];
  return [low, high].map((point, at) => ({
    ...pointOf(
      point.captures,
      {
        percent: (at === 0) === (direction === 'rising') ? 0 : 100,
        sigmaPercent: 0,
        common: [],
        temperatureC: point.temperatureC,
      },
      span,
    ),
    pointId: point.id,
  }));
}

function factoryOf(inputs: Inputs, used: readonly RunPoint[]): FactoryCheck | null {
  const sigma = (inputs.sheetSigma ?? 3) / 2;
  const span = Math.abs((inputs.highCounts ?? 1) - (inputs.lowCounts ?? 0)) || 1;
  const worth = Math.abs((inputs.highPercent ?? 100) - (inputs.lowPercent ?? 0)) / span;
  const points = used.flatMap((point) =>
    point.typed === null
      ? []
      : [
          {
            says: {
              percent: factorySays(inputs, meanOf(point)),
              sigmaPercent: Math.hypot(sigma, worth * repeatSigma(point.captures, span)),
            },
            known: { percent: point.typed, sigmaPercent: 1 },
          },
        ],
  );
  const [first, ...rest] = points;
  return first ? checkFactory([first, ...rest.slice(0, 1)]) : null;
}

/** The maker's line, put right where the check found it wrong. */
function sheetPoints(inputs: Inputs, check: FactoryCheck): (FitPoint & { pointId: string | null })[] {
  return (['low', 'high'] as const).map((end) => ({
    pointId: null,
    counts: inputs[`${end}Counts`] ?? 0,
    percent: check.gain * (inputs[`${end}Percent`] ?? (end === 'low' ? 0 : 100)) + check.offset,
    sigma: { repeat: 0, single: 0, unsettled: 0 },
    sigmaPercent: (inputs.sheetSigma ?? 3) / 2,
    common: [],
    temperatureC: null,
  }));
}
