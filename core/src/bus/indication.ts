/**
 * What a bus probe says of salt, acid and nutrients is an indication: it is worked out inside the probe from conductivity, and without water
 * around the rods there is nothing to conduct. Below these moistures (the probe's own percent) the numbers mean nothing.
 * Basis: cautious defaults; conductivity needs a connected film of water, which most potting soils lose at about 10 to 15 % by volume, and what is
 * derived from it needs more.
 */
import type { BusQuantity } from './registers.ts';

const NEEDS_MOISTURE: Partial<Record<BusQuantity, number>> = {
  conductivity: 15,
  pH: 25,
  nitrogen: 25,
  phosphorus: 25,
  potassium: 25,
};

/** Moisture below which a quantity means nothing, % as the probe gives it; null when it stands for itself. */
export const needsMoisture = (quantity: BusQuantity): number | null => NEEDS_MOISTURE[quantity] ?? null;

export type Meaning = 'measured' | 'indication' | 'too-dry' | 'moisture-unknown';

/** @param moisturePercent as the same probe gave it in the same reading; null when it gives none */
export function meaningOf(quantity: BusQuantity, moisturePercent: number | null): Meaning {
  const needed = needsMoisture(quantity);
  if (needed === null) return 'measured';
  if (moisturePercent === null) return 'moisture-unknown';
  return moisturePercent < needed ? 'too-dry' : 'indication';
}

/** Milligrams per litre of soil from milligrams per kilogram of dry soil. @param bulkDensityKgPerL dry mass per volume, > 0; potting mix 0.2 to 0.6, garden soil 1.0 to 1.5 */
export const mgPerLFromMgPerKg = (mgPerKg: number, bulkDensityKgPerL: number): number =>
  mgPerKg * bulkDensityKgPerL;

/** The way back. */
export const mgPerKgFromMgPerL = (mgPerL: number, bulkDensityKgPerL: number): number =>
  mgPerL / bulkDensityKgPerL;
