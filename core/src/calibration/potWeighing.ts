/**
 * Pot weighing: the planted pot dries on a scale while its probe is read. What is lost is water, so no soil has to be dug out.
 *
 *     water = weight − pot − plant − dry soil
 *
 * Where the dry soil is not known, the water of the soaked, drained pot and of the pot at wilting stand for 100 and 0 % available.
 * Masses in g, volume in ml. Source: Allen et al. 1998, FAO-56 ch. 8 (available water); weighing lysimetry in miniature.
 */
import { fail, ok, type Result } from '../quantity/result.ts';
import type { Uncertain } from './convertPercent.ts';
import type { PercentKind } from '../quantity/percentKind.ts';

export type PotInputs = {
  /** Pot, saucer, stake, probe, g. */
  readonly tareG: number;
  /** What the plant weighs, g; a guess is worth giving. */
  readonly plantG: number;
  /** Oven-dry mass of the soil in the pot, g; null when unknown. */
  readonly drySoilG: number | null;
  /** Volume of the soil in the pot, ml; null when unknown. */
  readonly volumeMl: number | null;
  /** The pot soaked and drained for some hours, and the pot when the plant first hung its leaves (or as dry as it may get), g. */
  readonly soakedG: number | null;
  readonly driestG: number | null;
  readonly scaleStepG: number;
};

export type PotIssue =
  | { readonly kind: 'nothing-known' }
  | { readonly kind: 'lighter-than-dry'; readonly byG: number }
  | { readonly kind: 'no-water-between' };

/** The best kind of percent that the weights carry. */
export function potKind(
  inputs: PotInputs,
): Extract<PercentKind, 'volumetric' | 'gravimetric' | 'available'> | null {
  if (inputs.drySoilG !== null && inputs.drySoilG > 0)
    return inputs.volumeMl !== null && inputs.volumeMl > 0 ? 'volumetric' : 'gravimetric';
  return inputs.soakedG !== null && inputs.driestG !== null ? 'available' : null;
}

/** A growing plant and a dried-out root ball: the plant's share of the weight is known to a fifth. */
const PLANT_SIGMA_FRAC = 0.2;
/** The volume of a root ball is known to a twentieth, its dry mass to one part in thirty. */
const VOLUME_SIGMA_FRAC = 0.05;
const DRY_SIGMA_FRAC = 0.03;

/** Percent of the pot at a weight, with what it may be off by. @param weightG the whole pot, g */
export function percentOfPot(inputs: PotInputs, weightG: number): Result<Uncertain, PotIssue> {
  const kind = potKind(inputs);
  const scaleSigma = inputs.scaleStepG / Math.sqrt(12);
  if (kind === null) return fail({ kind: 'nothing-known' });
  if (kind === 'available') {
    const range = (inputs.soakedG ?? 0) - (inputs.driestG ?? 0);
    if (!(range > 4 * scaleSigma)) return fail({ kind: 'no-water-between' });
    const percent = (100 * (weightG - (inputs.driestG ?? 0))) / range;
    const sigmaPercent = (100 * scaleSigma) / range;
    const share = percent / 100;
    return ok({ percent, sigmaPercent, common: [share * sigmaPercent, (1 - share) * sigmaPercent] });
  }
  const drySoilG = inputs.drySoilG ?? 0;
  const waterG = weightG - inputs.tareG - inputs.plantG - drySoilG;
  const plantSigma = PLANT_SIGMA_FRAC * inputs.plantG;
  if (waterG < -2 * Math.hypot(scaleSigma, plantSigma))
    return fail({ kind: 'lighter-than-dry', byG: -waterG });
  const whole = kind === 'gravimetric' ? drySoilG : (inputs.volumeMl ?? 1);
  const percent = (100 * waterG) / whole;
  return ok({
    percent,
    sigmaPercent: (100 * scaleSigma) / whole,
    common: [
      (100 * plantSigma) / whole,
      (kind === 'gravimetric' ? DRY_SIGMA_FRAC : VOLUME_SIGMA_FRAC) * percent,
    ],
  });
}
