/**
 * Limits to begin with: from what the plant may use of the water that its soil holds, said in the calibration's own kind of percent, with the working.
 *
 *     p = p(table) + 0.04 · (5 − ET)        kept within 0.1 and 0.8
 *     start = 100 · (1 − p) % of the available water;   stop = 90 %
 *
 * Source: Allen et al. 1998, FAO-56, eq. 82 to 84 and the note to table 22. The stop limit is not the full capacity, so that the last dose does not run out
 * at the bottom. Where plant, soil or kind of percent leave it open, a cautious default is given and called one.
 */
import type { Curve } from '../calibration/curve.ts';
import { countsAtPercent } from '../calibration/curve.ts';
import { convertPercent } from '../calibration/convertPercent.ts';
import type { PercentKind } from '../quantity/percentKind.ts';
import { percentUnit } from '../quantity/percentKind.ts';
import { input, step, worked, type Worked, type WorkedStep } from '../quantity/worked.ts';
import type { KnownSoil } from '../soils/soilKinds.ts';
import { CAUTIOUS_FRAC, type PlantGroup } from './plantGroups.ts';

/** Refilled to this share of the available water. */
const STOP_AVAILABLE = 90;
/** Where span percent says nothing about the soil: wetter than most plants need, and dry enough not to drown them. */
const CAUTIOUS = { start: 40, stop: 60 } as const;

export type Suggestion = {
  readonly startTenths: number;
  readonly stopTenths: number;
  readonly start: Worked;
  readonly stop: Worked;
  /** What was not known, so that the suggestion is cautious; empty when it rests on plant and soil. */
  readonly unknown: readonly ('plant' | 'soil' | 'percent')[];
};

/** @param etMmPerDay the plant's demand, mm a day, ≥ 0 */
export function suggestLimits(of: {
  readonly plant: PlantGroup | null;
  readonly soil: KnownSoil;
  readonly kind: PercentKind;
  /** Span percent between the plot's own oven-dry and soaked soil means a share of saturation, roughly. */
  readonly isSoilSpan: boolean;
  readonly etMmPerDay: number;
  readonly curve: Curve | null;
}): Suggestion {
  const { plant, kind } = of;
  const unknown: ('plant' | 'soil' | 'percent')[] = plant ? [] : ['plant'];
  const start = availableStart(plant, of.etMmPerDay);
  const stop = step(
    {
      name: 'stop, of the available water',
      unit: '% available',
      formula: '{stop}',
      inputs: { stop: input('refilled to', STOP_AVAILABLE, '% available') },
    },
    ({ stop: value }) => value,
  );
  const path = wayTo(kind, of.soil, of.isSoilSpan);
  const about = {
    source: `Allen et al. 1998, FAO-56, eq. 82 to 84. Plant: ${plant?.basis ?? 'not chosen'}. Soil: ${of.soil.basis}.`,
    wouldChange: 'Another plant group, soil or weather; a drain test of your own soil.',
  };
  if (path.kind === 'closed') {
    unknown.push(path.lacks);
    return cautious(kind, unknown, of.curve);
  }
  const finish = (title: string, steps: readonly [WorkedStep, ...WorkedStep[]]) => {
    const turned = path.turn(steps[steps.length - 1]?.value ?? 0);
    return withCounts(worked(title, [...steps, ...turned], about), kind, of.curve);
  };
  const startWorked = finish('Suggested start limit', start);
  const stopWorked = finish('Suggested stop limit', [stop]);
  return { ...tenthsOf(startWorked, stopWorked), start: startWorked, stop: stopWorked, unknown };
}

const tenthsOf = (start: Worked, stop: Worked) => {
  const percentOf = (of: Worked) => of.steps.filter((one) => one.unit.startsWith('%')).at(-1)?.value ?? 0;
  const tenths = (percent: number) => Math.round(10 * Math.min(100, Math.max(0, percent)));
  return { startTenths: tenths(percentOf(start)), stopTenths: tenths(percentOf(stop)) };
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

type Way =
  | { readonly kind: 'open'; readonly turn: (available: number) => readonly WorkedStep[] }
  | { readonly kind: 'closed'; readonly lacks: 'soil' | 'percent' };

/** How available percent becomes the calibration's kind, where that is known. */
function wayTo(kind: PercentKind, soil: KnownSoil, isSoilSpan: boolean): Way {
  if (kind === 'available') return { kind: 'open', turn: () => [] };
  if (kind === 'factory' || (kind === 'span' && !isSoilSpan)) return { kind: 'closed', lacks: 'percent' };
  const { capacityVwc, wiltingVwc, bulkDensity, saturationVwc } = soil;
  if (capacityVwc === null || wiltingVwc === null) return { kind: 'closed', lacks: 'soil' };
  const toVwc = (available: number) =>
    step(
      {
        name: 'by volume',
        unit: '% VWC',
        decimals: 1,
        formula: '{wilting} + {share} ÷ 100 × ({capacity} − {wilting})',
        inputs: {
          wilting: input('wilting point', wiltingVwc, '% VWC', 1),
          capacity: input('field capacity', capacityVwc, '% VWC', 1),
          share: input('of the available water', available, '% available'),
        },
      },
      ({ wilting, capacity, share }) => wilting + (share / 100) * (capacity - wilting),
    );
  if (kind === 'volumetric') return { kind: 'open', turn: (available) => [toVwc(available)] };
  if (kind === 'gravimetric') {
    if (bulkDensity === null) return { kind: 'closed', lacks: 'soil' };
    return {
      kind: 'open',
      turn: (available) => {
        const volume = toVwc(available);
        return [volume, gravimetricOf(volume.value, bulkDensity)];
      },
    };
  }
  if (saturationVwc === null) return { kind: 'closed', lacks: 'soil' };
  return {
    kind: 'open',
    turn: (available) => {
      const volume = toVwc(available);
      return [volume, spanOf(volume.value, saturationVwc)];
    },
  };
}

const gravimetricOf = (vwc: number, bulkDensity: number): WorkedStep =>
  step(
    {
      name: 'by mass',
      unit: '% GWC',
      decimals: 1,
      formula: '{vwc} ÷ {density}',
      inputs: {
        vwc: input('by volume', vwc, '% VWC', 1),
        density: input('bulk density', bulkDensity, 'g/cm³', 2),
      },
    },
    ({ vwc: theta }) => {
      const turned = convertPercent(
        { percent: theta, sigmaPercent: 0, common: [] },
        'volumetric',
        'gravimetric',
        {
          bulkDensity,
          capacityVwc: null,
          wiltingVwc: null,
        },
      );
      return turned.ok ? turned.value.percent : Number.NaN;
    },
  );

const spanOf = (vwc: number, saturationVwc: number): WorkedStep =>
  step(
    {
      name: 'of the span from oven-dry to soaked, roughly',
      unit: '% span',
      decimals: 1,
      formula: '100 × {vwc} ÷ {saturation}',
      inputs: {
        vwc: input('by volume', vwc, '% VWC', 1),
        saturation: input('soaked soil holds', saturationVwc, '% VWC', 1),
      },
    },
    ({ vwc: theta, saturation }) => (100 * theta) / saturation,
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

function cautious(kind: PercentKind, unknown: Suggestion['unknown'], curve: Curve | null): Suggestion {
  const one = (title: string, percent: number) =>
    withCounts(
      worked(
        title,
        [
          step(
            {
              name: 'cautious default',
              unit: percentUnit(kind),
              formula: '{percent}',
              inputs: { percent: input('chosen for want of better', percent, percentUnit(kind)) },
            },
            ({ percent: value }) => value,
          ),
        ],
        {
          source: 'A cautious default, measured by nobody: too little is known here to work a limit out.',
          note: 'Look at the plant for a fortnight and move the limits.',
          wouldChange: 'A calibration by mixing, pot weighing or a drain test; a plant group and a soil.',
        },
      ),
      kind,
      curve,
    );
  const start = one('Cautious start limit', CAUTIOUS.start);
  const stop = one('Cautious stop limit', CAUTIOUS.stop);
  return { ...tenthsOf(start, stop), start, stop, unknown };
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
