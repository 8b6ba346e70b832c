/** Units as tables write them, and how a number in one becomes a number in the unit that a channel is recorded in. */

/** Spellings by unit, lower case. Percent of what is never said, so it is a unit that turns into nothing. */
const SPELLINGS: Readonly<Record<string, readonly string[]>> = {
  'raw counts': ['counts', 'count', 'raw', 'adc', 'raw counts', 'lsb'],
  '%': ['%', 'percent', 'pct', 'prozent', 'vwc', '% vwc', '%vwc'],
  '% RH': ['%rh', '% rh', 'rh', 'rh%', 'rh %'],
  '°C': ['°c', 'c', 'degc', 'deg c', 'cel', 'celsius', '℃', '°', 'degrees c'],
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

/** What a channel's recorded numbers are: in a unit, or what its board prints, which a correction turns into one. */
export type Recorded = {
  readonly unit: string;
  /** Recorded × gain + offset is in this unit; null where nothing turns it. */
  readonly meant: { readonly unit: string; readonly gain: number; readonly offset: number } | null;
};

/** The unit of numbers that only their board's correction gives a meaning. */
export const PRINTED = 'as the board prints it';

const into = (from: string, to: string): Turned | null =>
  from === to ? AS_IS : (TURNS.find(([one, other]) => one === from && other === to)?.[2] ?? null);

/** The units in which a table may have the numbers of a channel, its own first. */
export const unitsFor = ({ unit, meant }: Recorded): string[] => {
  const also = (one: string) => TURNS.filter(([, to]) => to === one).map(([from]) => from);
  return [unit, ...also(unit), ...(meant ? [meant.unit, ...also(meant.unit)] : [])];
};

/** How numbers in a table's unit become those that a channel records; null where nothing makes the one of the other. No unit is the channel's own. */
export function turnInto(from: string | null, { unit, meant }: Recorded): Turned | null {
  if (from === null || unit === 'as printed') return AS_IS;
  const straight = into(from, unit);
  if (straight || !meant || meant.gain === 0) return straight;
  const turn = into(from, meant.unit);
  return turn && { times: turn.times / meant.gain, plus: (turn.plus - meant.offset) / meant.gain };
}

/** A value turned, without the digits that only binary fractions add. */
export const turned = (value: number, { times, plus }: Turned): number =>
  times === 1 && plus === 0 ? value : Number((value * times + plus).toPrecision(9));
