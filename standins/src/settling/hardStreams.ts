/**
 * Made-up streams that the settling watch was not built for: heavy-tailed and correlated noise, a slow wave of temperature under everything, a daily one, coarse converter steps, a creep
 * and a stretched approach that are no exponentials, three time constants at once, soil that dries, and the plain case at the bench (into air, into water). The true curve is known, so
 * that a judgement can be judged.
 */
import { dice, type Dice, type Seed } from '../random.ts';

export const HARD_FAMILIES = [
  'bench',
  'heavy tails',
  'steps',
  'wave',
  'drift',
  'creep',
  'stretched',
  'three parts',
  'noise 0.6',
  'noise 0.9',
  'drying',
  'daily wave',
] as const;
export type HardFamily = (typeof HARD_FAMILIES)[number];

export type HardStream = {
  readonly family: HardFamily;
  readonly spanCounts: number;
  readonly everyS: number;
  readonly truth: (atS: number) => number;
  /** What would be read now if the approach under way were over: its end, and what waves or drifts beneath it. */
  readonly endAt: (atS: number) => number;
  /** What is still to go of an approach of one, so long after its beginning; all its time constants times a factor. */
  readonly shape: (aheadS: number, stretch: number) => number;
  /** Noise of a reading, standard deviation, counts, what each takes over of the one before, 0..1, and the converter's step. */
  readonly noise: { readonly counts: number; readonly correlation: number; readonly stepCounts: number };
  /** When the probe was moved or water poured, the beginning first, s. */
  readonly changesS: readonly number[];
  readonly lastsS: number;
  readonly samples: readonly { readonly atS: number; readonly value: number }[];
};

export const SPAN_COUNTS = 1800;
const SPAN = SPAN_COUNTS;
const AIR = 3000;

/** Noise with tails far above a normal one's: Student's t with three degrees of freedom, scaled to a standard deviation of one. */
function heavy(chance: Dice): number {
  const square = [0, 1, 2].reduce((sum) => sum + chance.bell() ** 2, 0);
  return chance.bell() / Math.sqrt(square / 3) / Math.sqrt(3);
}

export function hardStream(family: HardFamily, seed: Seed): HardStream {
  const chance = dice(seed);
  const correlation = family === 'noise 0.6' ? 0.6 : family === 'noise 0.9' ? 0.9 : 0;
  const isBench = family === 'bench' || family === 'heavy tails' || family === 'steps' || correlation > 0;
  const isSlow = family === 'wave' || family === 'drift' || family === 'drying' || family === 'daily wave';
  const everyS = isBench ? chance.across(0.1, 5) : chance.across(0.2, 30);
  const noise = SPAN * chance.across(0.0005, isBench ? 0.01 : 0.015);
  const tauS = isBench ? chance.across(1, 60) : chance.across(2, 300);
  const step = family === 'steps' ? SPAN * chance.across(0.002, 0.02) : 1;
  const longest = family === 'three parts' ? chance.across(100, 1500) : 0;
  const shape = (aheadS: number) => {
    switch (family) {
      case 'creep':
        return 1 / (1 + aheadS / tauS) ** 1.5;
      case 'stretched':
        return Math.exp(-Math.sqrt(aheadS / tauS));
      case 'three parts':
        return (
          0.6 * Math.exp((-aheadS * 30) / longest) +
          0.28 * Math.exp((-aheadS * 6) / longest) +
          0.12 * Math.exp(-aheadS / longest)
        );
      default:
        return Math.exp(-aheadS / tauS);
    }
  };
  const moved = SPAN * chance.between(0.3, 1);
  const settledS =
    family === 'creep'
      ? tauS * ((moved / (0.005 * SPAN)) ** (2 / 3) - 1)
      : family === 'stretched'
        ? 28 * tauS
        : family === 'three parts'
          ? 3.5 * longest
          : 6 * tauS;
  const watchedS = Math.max(settledS, 60 * everyS) * chance.between(1.5, 4);
  const calmS = isSlow ? chance.between(1200, 5400) : watchedS;
  const changesS = [0, chance.between(0.7, 1.3) * calmS];
  const lastsS = (changesS[1] ?? 0) + calmS;
  const periodS = family === 'daily wave' ? 86_400 : chance.across(900, 21_600);
  const wave = family === 'wave' || family === 'daily wave' ? SPAN * chance.between(0.02, 0.08) : 0;
  const phase = 2 * Math.PI * chance.flat();
  const slope =
    family === 'drift'
      ? (SPAN * chance.between(0.03, 0.15) * (chance.flat() < 0.5 ? -1 : 1)) / calmS
      : family === 'drying'
        ? (SPAN * chance.between(0.005, 0.02)) / 3600
        : 0;
  const [, second = 0] = changesS;
  const endAt = (atS: number) =>
    AIR -
    moved * (atS < second ? 1 : 0.4) +
    wave * Math.sin((2 * Math.PI * atS) / periodS + phase) +
    slope * atS;
  const truth = (atS: number) => {
    const sinceS = atS < second ? atS : atS - second;
    return endAt(atS) + moved * (atS < second ? 1 : -0.6) * shape(sinceS);
  };
  let carried = chance.bell();
  const samples: { atS: number; value: number }[] = [];
  for (let atS = everyS * chance.flat(); atS < lastsS; atS += everyS) {
    if (chance.flat() < 0.02) continue;
    const fresh = family === 'heavy tails' ? heavy(chance) : chance.bell();
    carried = correlation * carried + Math.sqrt(1 - correlation ** 2) * fresh;
    const off = noise * carried;
    samples.push({ atS, value: step * Math.round((truth(atS) + off) / step) });
  }
  return {
    family,
    spanCounts: SPAN,
    everyS,
    truth,
    endAt,
    shape: (aheadS, stretch) => shape(aheadS / stretch),
    noise: { counts: noise, correlation, stepCounts: step },
    changesS,
    lastsS,
    samples,
  };
}
