/**
 * Preferred values of resistors, IEC 60063. E12 and E24 are the historical two-digit tables; E96 follows 10^(n/96) rounded to three digits.
 */
const E24 = [
  1.0, 1.1, 1.2, 1.3, 1.5, 1.6, 1.8, 2.0, 2.2, 2.4, 2.7, 3.0, 3.3, 3.6, 3.9, 4.3, 4.7, 5.1, 5.6, 6.2, 6.8,
  7.5, 8.2, 9.1,
] as const;

export const E_SERIES = {
  E12: E24.filter((_, at) => at % 2 === 0),
  E24: [...E24],
  E96: Array.from({ length: 96 }, (_, n) => Math.round(10 ** (n / 96) * 100) / 100),
} as const;

export type ESeries = keyof typeof E_SERIES;
export const E_SERIES_NAMES = ['E12', 'E24', 'E96'] as const satisfies readonly ESeries[];

/** Two resistances closer than this are the same value; decades multiply with rounding errors far below it. */
const SAME = 1e-9;

/** All values of a series from `leastOhm` to `mostOhm`, both ends included, rising. Both must be positive. */
export function eValues(series: ESeries, leastOhm: number, mostOhm: number): number[] {
  if (!(leastOhm > 0 && mostOhm < Infinity))
    throw new RangeError(`eValues: ${leastOhm} to ${mostOhm} ohm; pass a positive, finite stretch`);
  const values: number[] = [];
  const last = Math.floor(Math.log10(mostOhm)) + 1;
  for (let decade = Math.floor(Math.log10(leastOhm)) - 1; decade <= last; decade += 1)
    for (const base of E_SERIES[series]) {
      const ohm = Number((base * 10 ** decade).toPrecision(6));
      if (ohm >= leastOhm * (1 - SAME) && ohm <= mostOhm * (1 + SAME)) values.push(ohm);
    }
  return values;
}

/** The smallest value of the series that is not below `ohm`; a value of the series is kept. */
export function nextUp(series: ESeries, ohm: number): number {
  const decade = 10 ** Math.floor(Math.log10(ohm) + SAME);
  const base = E_SERIES[series].find((one) => one * decade >= ohm * (1 - SAME)) ?? 10;
  return Number((base * decade).toPrecision(6));
}

/** The largest value of the series that is not above `ohm`; a value of the series is kept. */
export function nextDown(series: ESeries, ohm: number): number {
  const decade = 10 ** Math.floor(Math.log10(ohm) + SAME);
  const base = E_SERIES[series].findLast((one) => one * decade <= ohm * (1 + SAME)) ?? 1;
  return Number((base * decade).toPrecision(6));
}
