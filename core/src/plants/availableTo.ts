/** Available percent said in another kind of percent, step by step, where the soil lets it. */
import { convertPercent } from '../calibration/convertPercent.ts';
import type { PercentKind } from '../quantity/percentKind.ts';
import { input, step, type Worked, type WorkedStep } from '../quantity/worked.ts';
import type { KnownSoil } from '../soils/soilKinds.ts';

/** A probe's dry end may be so many times as steep as its wet end (`assumptions.bend`). */
const MOST_BEND = 3.5;
/** What limits in span percent may stand for, percent of the available water, by how the probe may bend: least and most. */
export type Rough = { readonly start: readonly [number, number]; readonly stop: readonly [number, number] };

/** What the ends of span percent stand for. */
export type SpanEnds =
  | { readonly kind: 'nothing' }
  /** The plot's own soil, oven-dry and soaked until it dripped out: what it holds drained. */
  | { readonly kind: 'dry-drained' }
  /** Dry, what was felt to be right at a percent that was chosen, and soaked. */
  | { readonly kind: 'felt'; readonly rightPercent: number };

/** The answer of a working: its last percent; raw counts may follow. */
export const lastPercent = (of: Worked): number =>
  of.steps.filter((one) => one.unit.startsWith('%')).at(-1)?.value ?? 0;

export type Way =
  | {
      readonly kind: 'open';
      readonly turn: (available: number) => readonly WorkedStep[];
      readonly rough: (start: Worked, stop: Worked) => Rough | null;
    }
  | { readonly kind: 'closed'; readonly lacks: 'holds' | 'density' }
  /** The percent says nothing of the soil. */
  | { readonly kind: 'default' };

const notRough = () => null;

/** How available percent becomes the calibration's kind, where that is known. */
export function wayTo(kind: PercentKind, soil: KnownSoil, span: SpanEnds): Way {
  if (kind === 'available') return { kind: 'open', turn: () => [], rough: notRough };
  const { capacityVwc, wiltingVwc, bulkDensity } = soil;
  const isUnknown = capacityVwc === null || wiltingVwc === null;
  if (kind === 'span')
    return isUnknown || span.kind !== 'dry-drained' ? { kind: 'default' } : spanWay(wiltingVwc, capacityVwc);
  if (kind !== 'volumetric' && kind !== 'gravimetric') return { kind: 'default' };
  if (isUnknown) return { kind: 'closed', lacks: 'holds' };
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
  if (kind === 'volumetric')
    return { kind: 'open', turn: (available) => [toVwc(available)], rough: notRough };
  if (bulkDensity === null) return { kind: 'closed', lacks: 'density' };
  return {
    kind: 'open',
    turn: (available) => {
      const volume = toVwc(available);
      return [volume, gravimetricOf(volume.value, bulkDensity)];
    },
    rough: notRough,
  };
}

/** What a bent probe reads where the soil holds a share of its capacity: a parabola whose dry end is `bend` times as steep as its wet one, both shares. */
const bentRead = (share: number, bend: number): number =>
  (2 * bend * share + (1 - bend) * share * share) / (bend + 1);

/** The share at which a probe so bent reads a share. */
function bentShare(read: number, bend: number): number {
  if (bend === 1) return read;
  const [a, b] = [(2 * bend) / (bend + 1), (1 - bend) / (bend + 1)];
  return (-a + Math.sqrt(a * a + 4 * b * read)) / (2 * b);
}

/** From dry to drained: the available water is laid between where the most bent probe reads wilting and the soaked reference. */
function spanWay(wiltingVwc: number, capacityVwc: number): Way {
  const wilting = wiltingVwc / capacityVwc;
  const availableAt = (span: number, bend: number) =>
    Math.round((100 * (bentShare(span / 100, bend) - wilting)) / (1 - wilting));
  const range = (of: Worked): readonly [number, number] => {
    const span = lastPercent(of);
    return [availableAt(span, MOST_BEND), availableAt(span, 1)];
  };
  return {
    kind: 'open',
    turn: (available) => {
      const driest = step(
        {
          name: 'wilting, as the most bent probe reads it',
          unit: '% span',
          decimals: 1,
          formula:
            '100 × (2 × {bend} × {wilts} ÷ {holds} + (1 − {bend}) × ({wilts} ÷ {holds})²) ÷ ({bend} + 1)',
          inputs: {
            bend: input('dry end steeper than wet end, at most', MOST_BEND, 'times', 1),
            wilts: input('wilting point', wiltingVwc, '% VWC', 1),
            holds: input('soaked and drained', capacityVwc, '% VWC', 1),
          },
        },
        ({ bend, wilts, holds }) => 100 * bentRead(wilts / holds, bend),
      );
      const span = step(
        {
          name: 'of the span from oven-dry to soaked, roughly',
          unit: '% span',
          decimals: 1,
          formula: '{driest} + {share} ÷ 100 × (100 − {driest})',
          inputs: {
            driest: input('wilting, as the most bent probe reads it', driest.value, '% span', 1),
            share: input('of the available water', available, '% available'),
          },
        },
        ({ driest: from, share }) => from + (share / 100) * (100 - from),
      );
      return [driest, span];
    },
    rough: (start, stop) => ({ start: range(start), stop: range(stop) }),
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
