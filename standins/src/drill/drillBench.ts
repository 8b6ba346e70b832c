/**
 * A practice bench: one capacitive stick, air, a jar, an oven-dry sample, a pot to pour into, two supplies, and a connector that gets wet when the
 * stick goes in past its line. Everything that goes wrong in earnest goes wrong here too. Pure: a step gives a new bench.
 */
import type { DrillCapture, Mistake, Slot } from '@plain-trowel/core/calibration/drill';
import { normal, type Seed } from '../random.ts';

export const DRILL_PLACES = ['air', 'jar', 'past the line', 'oven-dry sample', 'pot'] as const;
export type DrillPlace = (typeof DRILL_PLACES)[number];
export const DRILL_SUPPLIES = [3.3, 5] as const;
export type DrillSupply = (typeof DRILL_SUPPLIES)[number];

export type DrillBench = {
  readonly timeS: number;
  readonly place: DrillPlace;
  /** Reading without noise, counts. */
  readonly counts: number;
  readonly supplyV: DrillSupply;
  /** The connector is wet until then, s. */
  readonly wetUntilS: number;
  /** Water poured into the pot, ml. */
  readonly pouredMl: number;
  readonly seed: Seed;
};

/** What it reads when it has settled, at 3.3 V with a dry connector. */
const SETTLED: Readonly<Record<Exclude<DrillPlace, 'pot'>, number>> = {
  air: 2950,
  jar: 1180,
  'past the line': 980,
  'oven-dry sample': 2740,
};
const POT = { dry: 2740, soaked: 1390, soakedMl: 600 } as const;
/** Time constant in each place, s. */
const SLOW_S: Readonly<Record<DrillPlace, number>> = {
  air: 3,
  jar: 5,
  'past the line': 5,
  'oven-dry sample': 12,
  pot: 14,
};
const NOISE = 4;
/** A probe fed with 5 V and read against 3.3 V shows less; a wet connector pulls the reading down until it has dried. */
const AT_5V = 0.87;
const WET_COUNTS = -170;
const DRIES_S = 45;
export const DRILL_SPAN = SETTLED.air - SETTLED.jar;

export const newDrill = (seed: Seed): DrillBench => ({
  timeS: 0,
  place: 'oven-dry sample',
  counts: SETTLED['oven-dry sample'],
  supplyV: 3.3,
  wetUntilS: 0,
  pouredMl: 150,
  seed,
});

const potCounts = (pouredMl: number) =>
  POT.dry + Math.min(1, pouredMl / POT.soakedMl) * (POT.soaked - POT.dry);

const settledIn = (place: DrillPlace, pouredMl: number) =>
  place === 'pot' ? potCounts(pouredMl) : SETTLED[place];

const isWet = (bench: DrillBench) => bench.timeS < bench.wetUntilS;

/** Where the reading is going, with everything that is wrong at the moment. */
const targetOf = (bench: DrillBench): number =>
  settledIn(bench.place, bench.pouredMl) * (bench.supplyV === 5 ? AT_5V : 1) +
  (isWet(bench) ? WET_COUNTS : 0);

/** Lets time pass. @param durationS at most some seconds, for the drying connector is looked at once a step */
export function stepDrill(bench: DrillBench, durationS: number): DrillBench {
  const share = 1 - Math.exp(-durationS / SLOW_S[bench.place]);
  return {
    ...bench,
    timeS: bench.timeS + durationS,
    counts: bench.counts + share * (targetOf(bench) - bench.counts),
  };
}

/** One reading with its noise. */
export function readDrill(bench: DrillBench): { readonly value: number; readonly bench: DrillBench } {
  const drawn = normal(bench.seed);
  return { value: Math.round(bench.counts + NOISE * drawn.value), bench: { ...bench, seed: drawn.seed } };
}

export const moveDrill = (bench: DrillBench, place: DrillPlace): DrillBench => ({
  ...bench,
  place,
  // Past the line the water reaches the connector, and stays there for a while after.
  wetUntilS: place === 'past the line' ? bench.timeS + DRIES_S : bench.wetUntilS,
});

export const wipeConnector = (bench: DrillBench): DrillBench =>
  bench.place === 'past the line' ? bench : { ...bench, wetUntilS: bench.timeS };

export const feedDrill = (bench: DrillBench, supplyV: DrillSupply): DrillBench => ({ ...bench, supplyV });

export const pourDrill = (bench: DrillBench, volumeMl: number): DrillBench => ({
  ...bench,
  pouredMl: bench.pouredMl + volumeMl,
});

export const drips = (bench: DrillBench): boolean => bench.pouredMl >= POT.soakedMl;
export const connectorIsWet = isWet;

const DRY_PLACES: readonly DrillPlace[] = ['air', 'oven-dry sample'];
const ofAir = (place: DrillPlace) => place === 'air' || place === 'jar' || place === 'past the line';

/** A capture for a slot: what was read, what it should have been there, and what each mistake made of it. */
export function captureDrill(bench: DrillBench, slot: Slot, rawCounts: number): DrillCapture {
  const { place } = bench;
  const isDryPlace = DRY_PLACES.includes(place);
  // Of a pair that belongs together: air and jar, or dry sample and soaked pot.
  const ideal =
    slot === 'dry'
      ? ofAir(place)
        ? SETTLED.air
        : SETTLED['oven-dry sample']
      : ofAir(place)
        ? SETTLED.jar
        : POT.soaked;
  const causes: Partial<Record<Mistake, number>> = {};
  const here = settledIn(place, bench.pouredMl);
  if (isDryPlace !== (slot === 'dry')) causes['wrong-order'] = here - ideal;
  else if (place === 'past the line') causes['past-the-line'] = here - ideal;
  else if (place === 'pot') causes['not-soaked'] = here - ideal;
  if (bench.supplyV === 5) causes['other-supply'] = here * (AT_5V - 1);
  if (isWet(bench)) causes['wet-connector'] = WET_COUNTS;
  causes['too-early'] = bench.counts - targetOf(bench);
  return { rawCounts, idealCounts: ideal, causes };
}
