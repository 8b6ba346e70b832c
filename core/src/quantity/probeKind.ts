/** Kinds that give a raw number to be calibrated. */
export const ANALOG_KINDS = [
  'capacitive stick',
  'resistive fork',
  'home-made electrodes',
  'analog volumetric probe',
] as const;
export const PROBE_KINDS = [
  ...ANALOG_KINDS,
  'digital capacitive probe',
  'steel-rod bus probe',
  '4–20 mA soil probe',
  'fork with comparator',
  'tensiometer',
  'air-humidity probe',
  'thermistor',
  'digital thermometer',
] as const;
export type ProbeKind = (typeof PROBE_KINDS)[number];
