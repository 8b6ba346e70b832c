/**
 * Limits to begin with: from what the plant may use of the water that its soil holds, said in the calibration's own kind of percent, with the working.
 *
 *     p = p(table) + 0.04 · (5 − ET)        kept within 0.1 and 0.8
 *     start = 100 · (1 − p) % of the available water;   stop = 100 − a third of what may go, 10 at most
 *
 * Source: Allen et al. 1998, FAO-56, eq. 82 to 84 and the note to table 22. The stop limit is not the full capacity, so that the last dose does not run out
 * at the bottom. Where plant or kind of percent leave it open, a cautious default is given and called one; where the soil is not known, percent by volume or by
 * mass has no default at all, for what is wet in sand is dry in peat.
 *
 * Span percent between one's own dry and soaked soil is a share of what that soil holds after dripping out, but counts are not linear in water: a probe may be so
 * steep at its dry end (`MOST_BEND`) that a straight reading lies below wilting. The limits are put where no bend up to that one brings the start below wilting.
 */
import type { Curve } from '../calibration/curve.ts';
import { countsAtPercent } from '../calibration/curve.ts';
import { leastGapTenths } from '../control/limits.ts';
import type { PercentKind } from '../quantity/percentKind.ts';
import { percentUnit } from '../quantity/percentKind.ts';
import { input, step, worked, type Worked, type WorkedStep } from '../quantity/worked.ts';
import type { KnownSoil } from '../soils/soilKinds.ts';
import { lastPercent, wayTo, type Rough, type SpanEnds } from './availableTo.ts';
import { CAUTIOUS_FRAC, type PlantGroup } from './plantGroups.ts';

/** Refilled to this share of the available water at most. */
const STOP_AVAILABLE = 90;
/** Where span percent says nothing about the soil: wetter than most plants need, and dry enough not to drown them. */
const CAUTIOUS = { start: 40, stop: 60 } as const;
/** Around what was felt to be right, limits lie so far towards the ends of the scale, share. */
const AROUND_RIGHT = 0.2;

export type Suggested = {
  readonly kind: 'limits';
  readonly startTenths: number;
  readonly stopTenths: number;
  readonly start: Worked;
  readonly stop: Worked;
  /** What was not known, so that the suggestion is cautious; empty when it rests on plant and soil, or on what was felt. */
  readonly unknown: readonly ('plant' | 'percent')[];
  /** Null where the kind of percent is one of the soil's own. */
  readonly rough: Rough | null;
};

/** Why no limits can be suggested. */
export type NoSuggestion = { readonly kind: 'none' } & (
  | { readonly why: 'soil'; readonly lacks: 'holds' | 'density' }
  /** What this soil may give lies closer together than limits can. */
  | { readonly why: 'narrow'; readonly startPercent: number; readonly stopPercent: number }
  /** It lies where the calibration cannot read. */
  | { readonly why: 'curve'; readonly percent: number; readonly curveEnds: readonly [number, number] }
);
export type Suggestion = Suggested | NoSuggestion;

/** @param etMmPerDay the plant's demand, mm a day, ≥ 0 */
export function suggestLimits(of: {
  readonly plant: PlantGroup | null;
  readonly soil: KnownSoil;
  readonly kind: PercentKind;
  readonly span: SpanEnds;
  readonly etMmPerDay: number;
  readonly curve: Curve | null;
}): Suggestion {
  const { plant, kind, soil, curve } = of;
  const unknown = plant ? [] : (['plant'] as const);
  if (kind === 'span' && of.span.kind === 'felt') return aroundRight(of.span.rightPercent, curve);
  const path = wayTo(kind, soil, of.span);
  if (path.kind === 'default') return cautious(kind, [...unknown, 'percent'], curve);
  if (path.kind === 'closed') return { kind: 'none', why: 'soil', lacks: path.lacks };
  const about = {
    source: `Allen et al. 1998, FAO-56, eq. 82 to 84. Plant: ${plant?.basis ?? 'not chosen'}. Soil: ${soil.basis}.`,
    wouldChange: 'Another plant group, soil or weather; a drain test of your own soil.',
  };
  const steps = availableStart(plant, of.etMmPerDay);
  const finish = (title: string, own: readonly [WorkedStep, ...WorkedStep[]]) => {
    const turned = path.turn(own.at(-1)?.value ?? 0);
    return withCounts(worked(title, [...own, ...turned], about), kind, curve);
  };
  const start = finish('Suggested start limit', steps);
  const stop = finish('Suggested stop limit', [steps[0], availableStop(steps[0].value)]);
  return checked(
    { kind: 'limits', ...tenthsOf(start, stop), start, stop, unknown, rough: path.rough(start, stop) },
    curve,
  );
}

/** Limits that can be kept: start below stop, both where the calibration reads. */
function checked(of: Suggested, curve: Curve | null): Suggestion {
  const [startPercent, stopPercent] = [of.startTenths / 10, of.stopTenths / 10];
  if (of.stopTenths - of.startTenths < leastGapTenths(0))
    return { kind: 'none', why: 'narrow', startPercent, stopPercent };
  const beyond =
    curve && [startPercent, stopPercent].find((one) => one < curve.dryPercent || one > curve.wetPercent);
  return beyond != null && curve
    ? { kind: 'none', why: 'curve', percent: beyond, curveEnds: [curve.dryPercent, curve.wetPercent] }
    : of;
}

const tenthsOf = (start: Worked, stop: Worked) => {
  const tenths = (of: Worked) => Math.round(10 * lastPercent(of));
  return { startTenths: tenths(start), stopTenths: tenths(stop) };
};

function availableStart(plant: PlantGroup | null, etMmPerDay: number): [WorkedStep, WorkedStep] {
  const adjusted = step(
    {
      name: 'depletion that may be',
      unit: 'share',
      decimals: 2,
      formula: '{p} + 0.04 × (5 − {et}), within 0.1 and 0.8',
      inputs: {
        p: input(
          plant ? `depletion fraction of ${plant.name}` : 'cautious depletion fraction',
          plant?.depletionFrac ?? CAUTIOUS_FRAC,
          'share',
          2,
        ),
        et: input('demand', etMmPerDay, 'mm/day', 1),
      },
    },
    ({ p, et }) => Math.min(0.8, Math.max(0.1, p + 0.04 * (5 - et))),
  );
  const start = step(
    {
      name: 'start, of the available water',
      unit: '% available',
      formula: '100 × (1 − {p})',
      inputs: { p: input('depletion that may be', adjusted.value, 'share', 2) },
    },
    ({ p }) => 100 * (1 - p),
  );
  return [adjusted, start];
}

/** Kept for the next watering: a third of what may go, a tenth of it all at most. */
const availableStop = (depletionFrac: number): WorkedStep =>
  step(
    {
      name: 'stop, of the available water',
      unit: '% available',
      formula: '100 − 100 × {p} ÷ 3, and no more than {most}',
      inputs: {
        p: input('depletion that may be', depletionFrac, 'share', 2),
        most: input('refilled to at most', STOP_AVAILABLE, '% available'),
      },
    },
    ({ p, most }) => Math.max(most, 100 - (100 * p) / 3),
  );

/** Adds what the board compares: raw counts. The percent before it stays the answer. */
function withCounts(of: Worked, kind: PercentKind, curve: Curve | null): Worked {
  const percent = of.steps.at(-1)?.value ?? 0;
  if (!curve || of.steps.at(-1)?.unit !== percentUnit(kind)) return of;
  const counts = step(
    {
      name: 'raw counts that the board compares',
      unit: 'counts',
      formula: 'the calibration, read backwards at {percent}',
      inputs: { percent: input('limit', percent, percentUnit(kind), 1) },
    },
    ({ percent: at }) => Math.round(countsAtPercent(curve, at)),
  );
  return { ...of, steps: [...of.steps, counts] };
}

/** Limits that rest on one chosen percent each. */
function chosen(
  kind: PercentKind,
  curve: Curve | null,
  of: {
    readonly start: number;
    readonly stop: number;
    readonly names: readonly [string, string];
    readonly from: string;
  },
  about: { readonly source: string; readonly note: string; readonly wouldChange: string },
) {
  const one = (title: string, percent: number) =>
    withCounts(
      worked(
        title,
        [
          step(
            {
              name: of.from,
              unit: percentUnit(kind),
              formula: '{percent}',
              inputs: { percent: input(of.from, percent, percentUnit(kind)) },
            },
            ({ percent: value }) => value,
          ),
        ],
        about,
      ),
      kind,
      curve,
    );
  const [start, stop] = [one(of.names[0], of.start), one(of.names[1], of.stop)];
  return { kind: 'limits' as const, ...tenthsOf(start, stop), start, stop, rough: null };
}

const cautious = (kind: PercentKind, unknown: Suggested['unknown'], curve: Curve | null): Suggestion =>
  checked(
    {
      ...chosen(
        kind,
        curve,
        { ...CAUTIOUS, names: ['Cautious start limit', 'Cautious stop limit'], from: 'cautious default' },
        {
          source: 'A cautious default, measured by nobody: too little is known here to work a limit out.',
          note: 'Look at the plant for a fortnight and move the limits.',
          wouldChange: 'A calibration by mixing, pot weighing or a drain test; a plant group and a soil.',
        },
      ),
      unknown,
    },
    curve,
  );

/** What was felt to be right lies between the limits: start below it, stop above. */
function aroundRight(right: number, curve: Curve | null): Suggestion {
  const of = {
    start: right - AROUND_RIGHT * right,
    stop: right + AROUND_RIGHT * (100 - right),
    names: ['Start limit below what was right', 'Stop limit above it'],
    from: 'a fifth of the way from “just right” to the end of the scale',
  } as const;
  return checked(
    {
      ...chosen('span', curve, of, {
        source: 'Your own reference: the soil that you found just right.',
        note: 'Watch the plant for a week and move them.',
        wouldChange: 'Another “just right” reference.',
      }),
      unknown: [],
    },
    curve,
  );
}

/** Ranges that makers pass on to each other for span percent. Nobody measured them for this probe; they are offered as what they are. */
export const RULES_OF_THUMB: readonly {
  readonly id: string;
  readonly name: string;
  readonly startTenths: number;
  readonly stopTenths: number;
}[] = [
  { id: 'vegetables', name: 'Vegetables: water below 40, stop at 70', startTenths: 400, stopTenths: 700 },
  {
    id: 'houseplants',
    name: 'Most house plants: water below 30, stop at 60',
    startTenths: 300,
    stopTenths: 600,
  },
  { id: 'succulents', name: 'Succulents: water below 15, stop at 35', startTenths: 150, stopTenths: 350 },
  {
    id: 'moisture-lovers',
    name: 'Ferns and seedlings: water below 50, stop at 75',
    startTenths: 500,
    stopTenths: 750,
  },
  { id: 'lawn', name: 'Lawn: water below 30, stop at 55', startTenths: 300, stopTenths: 550 },
];
