/**
 * Soils and what they hold: percent by volume at field capacity and at the wilting point, bulk density in g/cm³, saturation.
 *
 * The twelve texture classes are from Saxton & Rawls 2006 (Soil Water Characteristic Estimates by Texture and Organic Matter, table 3: class centres, 2.5 %
 * organic matter). Mixes for pots vary from bag to bag; theirs are the middle of what is published for such mixes (container capacity at 1 kPa and water left
 * at 1500 kPa, after De Boodt & Verdonck 1972, and Fonteno 1996), good to about eight percent by volume. A drain test of one's own soil is better than either.
 */
import { byId } from '../quantity/byId.ts';
import type { SoilFacts } from '../calibration/convertPercent.ts';

export type SoilKind = {
  readonly id: string;
  readonly name: string;
  readonly group: 'texture' | 'mix';
  readonly capacityVwc: number;
  readonly wiltingVwc: number;
  readonly saturationVwc: number;
  readonly bulkDensity: number;
  readonly basis: string;
};

const texture = (
  id: string,
  name: string,
  wiltingVwc: number,
  capacityVwc: number,
  saturationVwc: number,
  bulkDensity: number,
): SoilKind => ({
  id,
  name,
  group: 'texture',
  capacityVwc,
  wiltingVwc,
  saturationVwc,
  bulkDensity,
  basis: 'Saxton & Rawls 2006, table 3',
});
const mix = (
  id: string,
  name: string,
  wiltingVwc: number,
  capacityVwc: number,
  saturationVwc: number,
  bulkDensity: number,
): SoilKind => ({
  id,
  name,
  group: 'mix',
  capacityVwc,
  wiltingVwc,
  saturationVwc,
  bulkDensity,
  basis: 'middle of what is published for such mixes, ± 8 % VWC',
});

export const SOIL_KINDS: readonly SoilKind[] = [
  texture('sand', 'Sand', 5, 10, 46, 1.43),
  texture('loamy-sand', 'Loamy sand', 5, 12, 46, 1.43),
  texture('sandy-loam', 'Sandy loam', 8, 18, 45, 1.46),
  texture('loam', 'Loam', 14, 28, 46, 1.43),
  texture('silt-loam', 'Silt loam', 11, 31, 48, 1.38),
  texture('silt', 'Silt', 6, 30, 48, 1.38),
  texture('sandy-clay-loam', 'Sandy clay loam', 17, 27, 43, 1.5),
  texture('clay-loam', 'Clay loam', 22, 36, 48, 1.39),
  texture('silty-clay-loam', 'Silty clay loam', 22, 38, 51, 1.3),
  texture('sandy-clay', 'Sandy clay', 25, 36, 44, 1.47),
  texture('silty-clay', 'Silty clay', 27, 41, 52, 1.26),
  texture('clay', 'Clay', 30, 42, 50, 1.33),
  mix('peat-mix', 'All-purpose mix on peat', 25, 65, 88, 0.12),
  mix('peat-perlite', 'Peat and perlite, half and half', 18, 48, 85, 0.11),
  mix('coir-mix', 'Mix on coconut fibre', 20, 60, 90, 0.09),
  mix('bark-mix', 'Mix on composted bark', 22, 45, 78, 0.22),
  mix('loam-mix', 'Potting soil with loam', 16, 42, 62, 0.9),
  mix('grit-mix', 'Gritty mix for succulents', 8, 26, 50, 1.1),
];

export const soilKind = (id: string): SoilKind | null => byId(SOIL_KINDS, id) ?? null;

/** What a plot's soil is known to hold: its own measured facts first, the table's for what is missing. */
export type KnownSoil = SoilFacts & {
  readonly saturationVwc: number | null;
  /** `own`: both ends measured; `table`: by its kind; `none`: unknown. */
  readonly from: 'own' | 'table' | 'none';
  readonly basis: string;
};

export function knownSoil(own: SoilFacts, kindId: string): KnownSoil {
  const kind = soilKind(kindId);
  const isOwn = own.capacityVwc !== null && own.wiltingVwc !== null;
  return {
    bulkDensity: own.bulkDensity ?? kind?.bulkDensity ?? null,
    // Never one end measured and the other from a table: they would belong to two soils.
    capacityVwc: isOwn ? own.capacityVwc : (kind?.capacityVwc ?? null),
    wiltingVwc: isOwn ? own.wiltingVwc : (kind?.wiltingVwc ?? null),
    saturationVwc: kind?.saturationVwc ?? null,
    from: isOwn ? 'own' : kind ? 'table' : 'none',
    basis: isOwn ? 'your own measurement' : (kind?.basis ?? 'unknown'),
  };
}
