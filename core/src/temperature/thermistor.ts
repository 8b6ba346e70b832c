/**
 * Temperature from a thermistor in a divider.
 *
 *     1/T = A + B·ln R + C·(ln R)³        T in kelvin, R in ohm
 *
 * From three known points the three constants follow exactly; the beta equation is the same with C = 0.
 * Source: Steinhart & Hart 1968, Calibration curves for thermistors, Deep-Sea Research 15.
 */
import { fail, ok, type Result } from '../quantity/result.ts';

export const ZERO_K = 273.15;
const T25_K = 298.15;

export type SteinhartHart = { readonly a: number; readonly b: number; readonly c: number };
export type ThermistorPoint = { readonly temperatureC: number; readonly ohm: number };

/** Constants of the beta equation R = R25·e^(β(1/T − 1/298.15)). @param of both > 0 */
export const fromBeta = (of: { r25Ohm: number; betaK: number }): SteinhartHart => ({
  a: 1 / T25_K - Math.log(of.r25Ohm) / of.betaK,
  b: 1 / of.betaK,
  c: 0,
});

export type ThreePointIssue =
  | { readonly kind: 'not-positive' }
  /** Two points nearer than this many degrees, or with the same resistance, carry no curve. */
  | { readonly kind: 'too-close'; readonly apartC: number; readonly neededC: number }
  /** Warmer must be lower throughout: a point was swapped or misread. */
  | { readonly kind: 'not-falling' };

const LEAST_APART_C = 5;

/** Constants through three points, in any order. */
export function fromThreePoints(
  points: readonly [ThermistorPoint, ThermistorPoint, ThermistorPoint],
): Result<SteinhartHart, ThreePointIssue> {
  const sorted = points.toSorted((p, q) => p.temperatureC - q.temperatureC);
  const [cold, mild, warm] = sorted;
  if (!cold || !mild || !warm || sorted.some((one) => !(one.ohm > 0) || !(one.temperatureC > -ZERO_K)))
    return fail({ kind: 'not-positive' });
  const apartC = Math.min(mild.temperatureC - cold.temperatureC, warm.temperatureC - mild.temperatureC);
  if (apartC < LEAST_APART_C) return fail({ kind: 'too-close', apartC, neededC: LEAST_APART_C });
  if (!(cold.ohm > mild.ohm && mild.ohm > warm.ohm)) return fail({ kind: 'not-falling' });
  const y = sorted.map((one) => 1 / (one.temperatureC + ZERO_K));
  const l = sorted.map((one) => Math.log(one.ohm));
  const [y1 = 0, y2 = 0, y3 = 0] = y;
  const [l1 = 0, l2 = 0, l3 = 0] = l;
  const g2 = (y2 - y1) / (l2 - l1);
  const g3 = (y3 - y1) / (l3 - l1);
  const c = (g3 - g2) / (l3 - l2) / (l1 + l2 + l3);
  const b = g2 - c * (l1 * l1 + l1 * l2 + l2 * l2);
  return ok({ a: y1 - (b + l1 * l1 * c) * l1, b, c });
}

export const temperatureOfOhm = ({ a, b, c }: SteinhartHart, ohm: number): number => {
  const log = Math.log(ohm);
  return 1 / (a + b * log + c * log ** 3) - ZERO_K;
};

/** So near to an end of the converter a divider is open or shorted, share of full scale. */
const RAIL_SHARE = 0.005;

/**
 * Resistance of the thermistor from the counts of its divider, ohm; the supply is the converter's reference, so it cancels. Null within half a percent of either rail: that is an open or a shorted
 * thermistor.
 * @param side where the thermistor sits: between input and ground, or between supply and input
 */
export function ohmOfCounts(
  counts: number,
  of: { fixedOhm: number; fullScaleCounts: number; side: 'ground' | 'supply' },
): number | null {
  const share = counts / of.fullScaleCounts;
  if (!(share > RAIL_SHARE && share < 1 - RAIL_SHARE)) return null;
  return of.side === 'ground' ? (of.fixedOhm * share) / (1 - share) : (of.fixedOhm * (1 - share)) / share;
}
