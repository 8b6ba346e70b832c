/** Kinds that give a raw number to be calibrated. */
export const ANALOG_KINDS = [
  'capacitive stick',
  'resistive fork',
  'home-made electrodes',
  'analog volumetric probe',
] as const;
export const PROBE_KINDS = [
  ...ANALOG_KINDS,
  'steel-rod bus probe',
  'thermistor',
  'digital thermometer',
] as const;
export type ProbeKind = (typeof PROBE_KINDS)[number];
