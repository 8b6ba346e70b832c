/** Copper wire: its cross-section, its resistance, the voltage lost on the way and the current it bears. */
import { input, step, worked, type Worked } from '../quantity/worked.ts';

/** Resistivity of copper wire at 20 °C, Ω·mm²/m. Annealed copper is 0.01724 (IEC 60028); drawn, stranded wire is a little worse. */
export const COPPER_OHM_MM2_PER_M = 0.0175;

/** Cross-sections one can buy, mm². */
export const CABLE_SIZES_MM2 = [0.08, 0.14, 0.22, 0.34, 0.5, 0.75, 1, 1.5, 2.5, 4, 6] as const;

/** Cross-section of an American wire gauge, mm²: diameter 0.127 mm × 92^((36 − n)/39). Source: ASTM B258. */
export function mm2FromAwg(awg: number): number {
  const diameterMm = 0.127 * 92 ** ((36 - awg) / 39);
  return (Math.PI / 4) * diameterMm ** 2;
}

export type CableAsked = {
  /** One way; the current comes back by the second wire. */
  readonly lengthM: number;
  readonly currentMa: number;
  readonly areaMm2: number;
};

/** Both wires of a cable, ohm. */
export const cableOhm = (of: { lengthM: number; areaMm2: number }): number =>
  (2 * of.lengthM * COPPER_OHM_MM2_PER_M) / of.areaMm2;

/** Voltage lost in both wires of a cable, V: 2 × length × I × ρ / area. */
export function workCableDrop({ lengthM, currentMa, areaMm2 }: CableAsked): Worked {
  const drop = step(
    {
      name: 'lost in both wires',
      unit: 'V',
      decimals: 3,
      formula: '2 × {length} × {current} ÷ 1000 × {rho} ÷ {area}',
      inputs: {
        length: input('length, one way', lengthM, 'm', 1),
        current: input('current', currentMa, 'mA'),
        rho: input('resistivity of copper', COPPER_OHM_MM2_PER_M, 'Ω·mm²/m', 4),
        area: input('cross-section', areaMm2, 'mm²', 2),
      },
    },
    ({ length, current, rho, area }) => ((2 * length * current) / 1000) * (rho / area),
  );
  return worked('Cable drop', [drop], {
    source: 'Resistance of a copper wire at 20 °C (IEC 60028, with a little more for stranded wire).',
    note: 'There and back: the length counts twice.',
    wouldChange: 'A thicker or shorter cable, less current.',
  });
}

/** The thinnest cable one can buy that loses no more than `mostDropV`; null when even the thickest does. */
export const thinnestCableMm2 = (of: {
  lengthM: number;
  currentMa: number;
  mostDropV: number;
}): number | null =>
  CABLE_SIZES_MM2.find((areaMm2) => (cableOhm({ ...of, areaMm2 }) * of.currentMa) / 1000 <= of.mostDropV) ??
  null;

/**
 * Current a small cable bears for long, A: a cautious 6 A per mm², for thin wires bundled in warm air. Installation tables allow more for
 * single wires; a cable's own data go first.
 */
export const cableAmps = (areaMm2: number): number => 6 * areaMm2;
