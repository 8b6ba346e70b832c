/**
 * Made-up streams that the settling watch was not built for: heavy-tailed noise, a slow wave of temperature under everything, coarse converter steps, a creep
 * that is no exponential, and the plain case at the bench (into air, into water). The true curve is known, so that a judgement can be judged.
 */
import { dice, type Dice, type Seed } from '../random.ts';

export const HARD_FAMILIES = ['bench', 'heavy tails', 'steps', 'wave', 'drift', 'creep'] as const;
export type HardFamily = (typeof HARD_FAMILIES)[number];

export type HardStream = {
  readonly family: HardFamily;
  readonly spanCounts: number;
  readonly everyS: number;
  readonly truth: (atS: number) => number;
  /** When the probe was moved or water poured, the beginning first, s. */
  readonly changesS: readonly number[];
  readonly lastsS: number;
  readonly samples: readonly { readonly atS: number; readonly value: number }[];
};

const SPAN = 1800;
const AIR = 3000;

/** Noise with tails far above a normal one's: Student's t with three degrees of freedom, scaled to a standard deviation of one. */
function heavy(chance: Dice): number {
  const square = [0, 1, 2].reduce((sum) => sum + chance.bell() ** 2, 0);
  return chance.bell() / Math.sqrt(square / 3) / Math.sqrt(3);
}

export function hardStream(family: HardFamily, seed: Seed): HardStream {
  const chance = dice(seed);
  const isBench = family === 'bench' || family === 'heavy tails' || family === 'steps';
  const everyS = isBench ? chance.across(0.1, 5) : chance.across(0.2, 30);
  const noise = SPAN * chance.across(0.0005, isBench ? 0.01 : 0.015);
  const tauS = isBench ? chance.across(1, 60) : chance.across(2, 300);
  const step = family === 'steps' ? SPAN * chance.across(0.002, 0.02) : 1;
  const shape = (aheadS: number) =>
    family === 'creep' ? 1 / (1 + aheadS / tauS) ** 1.5 : Math.exp(-aheadS / tauS);
  const moved = SPAN * chance.between(0.3, 1);
  const settledS = family === 'creep' ? tauS * ((moved / (0.005 * SPAN)) ** (2 / 3) - 1) : 6 * tauS;
  const watchedS = Math.max(settledS, 60 * everyS) * chance.between(1.5, 4);
  const calmS = family === 'wave' || family === 'drift' ? chance.between(1200, 5400) : watchedS;
  const changesS = [0, chance.between(0.7, 1.3) * calmS];
  const lastsS = (changesS[1] ?? 0) + calmS;
  const periodS = chance.across(900, 21_600);
  const wave = family === 'wave' ? SPAN * chance.between(0.02, 0.08) : 0;
  const phase = 2 * Math.PI * chance.flat();
  const slope =
    family === 'drift' ? (SPAN * chance.between(0.03, 0.15) * (chance.flat() < 0.5 ? -1 : 1)) / calmS : 0;
  const truth = (atS: number) => {
    const [, second = 0] = changesS;
    const from = atS < second ? AIR : AIR - moved;
    const to = atS < second ? AIR - moved : AIR - moved * 0.4;
    const sinceS = atS < second ? atS : atS - second;
    return (
      to + (from - to) * shape(sinceS) + wave * Math.sin((2 * Math.PI * atS) / periodS + phase) + slope * atS
    );
  };
  const samples: { atS: number; value: number }[] = [];
  for (let atS = everyS * chance.flat(); atS < lastsS; atS += everyS) {
    if (chance.flat() < 0.02) continue;
    const off = noise * (family === 'heavy tails' ? heavy(chance) : chance.bell());
    samples.push({ atS, value: step * Math.round((truth(atS) + off) / step) });
  }
  return { family, spanCounts: SPAN, everyS, truth, changesS, lastsS, samples };
}
