import type { Quantity } from './quantities.ts';

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

/** What a probe of a kind gives as its first number, and in which words that number is printed. */
const FIRST_QUANTITY: Readonly<Partial<Record<ProbeKind, Quantity>>> = {
  'steel-rod bus probe': 'factory moisture',
  'fork with comparator': 'moisture switch',
  tensiometer: 'soil tension',
  'air-humidity probe': 'soil humidity',
  thermistor: 'soil temperature',
  'digital thermometer': 'soil temperature',
};
export const firstQuantityOf = (kind: ProbeKind): Quantity => FIRST_QUANTITY[kind] ?? 'moisture';

/** Kinds that tell how wet the soil is, raw or in numbers of their own: any of them can decide a plot. */
export const DECIDING_KINDS: readonly ProbeKind[] = PROBE_KINDS.filter(
  (kind) => !['air-humidity probe', 'thermistor', 'digital thermometer'].includes(kind),
);
