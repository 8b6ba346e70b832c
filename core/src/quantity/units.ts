/** The units that a person reads and types. Stored are °C, ml and cm whatever they are; here they are turned round, at the edge of the screen. */
import { z } from './schema.ts';

export const unitsSchema = z.strictObject({
  temperature: z.enum(['C', 'F']),
  volume: z.enum(['l', 'gal']),
  length: z.enum(['cm', 'in']),
});
export type Units = z.infer<typeof unitsSchema>;

export const METRIC: Units = { temperature: 'C', volume: 'l', length: 'cm' };

/** US liquid gallon and inch, exact. Source: NIST Handbook 44, appendix C. */
export const LITRES_PER_GALLON = 3.785_411_784;
export const CM_PER_INCH = 2.54;
const F_PER_C = 1.8;
const F_AT_0_C = 32;

/** How a metric number is shown and taken in. */
export type ShownUnit = {
  readonly unit: string;
  /** Decimals that make up for a larger unit. */
  readonly moreDecimals: number;
  readonly show: (metric: number) => number;
  readonly store: (shown: number) => number;
};

const asIs = (unit: string): ShownUnit => ({
  unit,
  moreDecimals: 0,
  show: (metric) => metric,
  store: (shown) => shown,
});
const times = (unit: string, perMetric: number, moreDecimals: number): ShownUnit => ({
  unit,
  moreDecimals,
  show: (metric) => metric * perMetric,
  store: (shown) => shown / perMetric,
});

const FAHRENHEIT: ShownUnit = {
  unit: '°F',
  moreDecimals: 0,
  show: (celsius) => celsius * F_PER_C + F_AT_0_C,
  store: (shown) => (shown - F_AT_0_C) / F_PER_C,
};
const FAHRENHEIT_APART = times('°F', F_PER_C, 0);
const GALLONS = times('gal', 1 / LITRES_PER_GALLON, 1);
const INCHES = times('in', 1 / CM_PER_INCH, 1);

/**
 * The unit that a person has chosen in place of a metric one; any other unit as it is.
 * @param apart the number is a difference of two temperatures, which has no zero to move
 */
export function shownUnit(units: Units, metric: string, apart = false): ShownUnit {
  if (metric === '°C' && units.temperature === 'F') return apart ? FAHRENHEIT_APART : FAHRENHEIT;
  if (metric === 'l' && units.volume === 'gal') return GALLONS;
  if (metric === 'cm' && units.length === 'in') return INCHES;
  return asIs(metric);
}
