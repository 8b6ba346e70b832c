/** Where a soil's own marks stand on a scale of percent: wilting, capacity, and the pores that cannot hold more. */
import type { ScaleMarks } from '../quantity/bands.ts';
import type { PercentKind } from '../quantity/percentKind.ts';
import type { KnownSoil } from './soilKinds.ts';

export type SoilMarks = ScaleMarks & {
  /** All pores full: no soil can read more. */
  readonly poresTenths: number | null;
};

const UNKNOWN: SoilMarks = { wiltingTenths: null, capacityTenths: null, poresTenths: null };

/** In tenths of a percent of the kind; null where soil or kind leave it open. Span and factory percent know nothing of the soil. */
export function soilMarks(kind: PercentKind, soil: KnownSoil): SoilMarks {
  if (kind === 'available') return { wiltingTenths: 0, capacityTenths: 1000, poresTenths: null };
  const perVolume = kind === 'volumetric' ? 1 : kind === 'gravimetric' ? soil.bulkDensity : null;
  if (perVolume === null || !(perVolume > 0)) return UNKNOWN;
  const tenths = (vwc: number | null) => (vwc === null ? null : Math.round((10 * vwc) / perVolume));
  return {
    wiltingTenths: tenths(soil.wiltingVwc),
    capacityTenths: tenths(soil.capacityVwc),
    poresTenths: tenths(soil.saturationVwc),
  };
}
