/** Units as tables write them, and how a number in one becomes a number in the unit that a channel is recorded in. */

/** Spellings by unit, lower case. Percent of what is never said, so it is a unit that turns into nothing. */
const SPELLINGS: Readonly<Record<string, readonly string[]>> = {
  'raw counts': ['counts', 'count', 'raw', 'adc', 'raw counts', 'lsb'],
  '%': ['%', 'percent', 'pct', 'prozent', 'vwc', '% vwc', '%vwc'],
  '% RH': ['%rh', '% rh', 'rh', 'rh%', 'rh %'],
  '°C': ['°c', 'c', 'degc', 'deg c', 'celsius', '℃', '°', 'degrees c'],
  '°F': ['°f', 'f', 'degf', 'deg f', 'fahrenheit', '℉', 'degrees f'],
  K: ['k', 'kelvin'],
  V: ['v', 'volt', 'volts'],
  mV: ['mv', 'millivolt', 'millivolts'],
  kPa: ['kpa', '-kpa'],
  hPa: ['hpa', 'mbar'],
  cbar: ['cbar', 'cb', 'centibar'],
  bar: ['bar'],
  'µS/cm': ['µs/cm', 'μs/cm', 'us/cm', 'us'],
  'mS/cm': ['ms/cm', 'ds/m'],
  'mg/kg': ['mg/kg', 'ppm'],
  g: ['g', 'gram', 'grams'],
  kg: ['kg'],
  pH: ['ph'],
  lux: ['lux', 'lx'],
  cm: ['cm'],
  mm: ['mm'],
  m: ['m', 'metre', 'meter'],
};

const UNIT_BY_SPELLING = new Map(
  Object.entries(SPELLINGS).flatMap(([unit, spellings]) => spellings.map((one) => [one, unit] as const)),
);

/** The unit that a text means; null for a text that is none of them. */
export const unitOf = (text: string): string | null =>
  UNIT_BY_SPELLING.get(text.trim().toLowerCase().replace(/\s+/g, ' ')) ?? null;

export type Turned = { readonly times: number; readonly plus: number };

const AS_IS: Turned = { times: 1, plus: 0 };
/** From the first unit into the second. Degrees: BIPM SI brochure, NIST SP 811. */
const TURNS: readonly (readonly [from: string, to: string, turn: Turned])[] = [
  ['°F', '°C', { times: 5 / 9, plus: -160 / 9 }],
  ['K', '°C', { times: 1, plus: -273.15 }],
  ['mV', 'V', { times: 0.001, plus: 0 }],
  ['hPa', 'kPa', { times: 0.1, plus: 0 }],
  ['cbar', 'kPa', AS_IS],
  ['bar', 'kPa', { times: 100, plus: 0 }],
  ['mS/cm', 'µS/cm', { times: 1000, plus: 0 }],
  ['kg', 'g', { times: 1000, plus: 0 }],
  ['%', '% RH', AS_IS],
  ['%', '% factory', AS_IS],
];

/** The units in which a table may have the numbers of a channel, its own first. */
export const unitsFor = (recorded: string): string[] => [
  recorded,
  ...TURNS.filter(([, to]) => to === recorded).map(([from]) => from),
];

/** How numbers in a table's unit become those that a channel records; null where nothing makes the one of the other. */
export function turnInto(from: string | null, recorded: string): Turned | null {
  if (from === null || from === recorded || recorded === 'as printed') return AS_IS;
  return TURNS.find(([one, to]) => one === from && to === recorded)?.[2] ?? null;
}

/** A value turned, without the digits that only binary fractions add. */
export const turned = (value: number, { times, plus }: Turned): number =>
  times === 1 && plus === 0 ? value : Number((value * times + plus).toPrecision(9));
