/** Which channel of a garden the name of a column means, as far as the name tells. */
import type { Quantity } from '../quantity/quantities.ts';
import { splitUnit } from './numberForm.ts';
import { unitOf, type Recorded } from './units.ts';

/** A channel as tables may name it. */
export type NamedChannel = Recorded & {
  readonly id: string;
  readonly quantity: Quantity;
  /** Empty for what a board measures itself. */
  readonly plot: string;
  /** The label of its probe; empty without one. */
  readonly probe: string;
  readonly board: string;
  /** What it is called on the screen, and the name that its board prints. */
  readonly names: readonly string[];
  /** The moisture that its plot goes by: what the bare name of the plot means. */
  readonly decides: boolean;
};

export type Match =
  | { readonly kind: 'one'; readonly id: string }
  /** Any of these could be meant. */
  | { readonly kind: 'several'; readonly ids: readonly string[] }
  | { readonly kind: 'none' };

const WORDS_OF: readonly (readonly [RegExp, readonly Quantity[]])[] = [
  [/^(?:temp|temps|temperature|temperatur|celsius|thermo)$/, ['soil temperature', 'air temperature']],
  [/^(?:tension|suction|kpa|tensiometer|matric)$/, ['soil tension']],
  [/^(?:ec|conductivity|salinity)$/, ['conductivity']],
  [/^(?:ph)$/, ['pH']],
  [/^(?:humidity|humid|rh|hum)$/, ['soil humidity', 'other']],
  [/^(?:battery|bat|batt|vbat|voltage|akku)$/, ['battery voltage']],
  [/^(?:light|lux|ldr|brightness)$/, ['light']],
  [/^(?:rain)$/, ['rain']],
  [/^(?:distance|dist)$/, ['distance', 'level']],
  [/^(?:level|tank)$/, ['level', 'distance']],
  [/^(?:weight|mass)$/, ['weight']],
  [/^(?:factory)$/, ['factory moisture']],
  [
    /^(?:moisture|moist|raw|counts|adc|wetness|vwc|soilmoisture|feuchte)$/,
    ['moisture', 'factory moisture', 'soil tension', 'moisture switch'],
  ],
];
const AIR = /^(?:air|ambient|room|outside|indoor|shade)$/;
/** Words that say nothing of which channel it is. */
const FILLERS =
  /^(?:soil|sensor|probe|value|reading|plot|the|of|in|bed|pot|channel|avg|average|mean|col|data)$/;

/** A name without its unit: "Soil temp (°F)" is "Soil temp" and "°F". */
function nameAndUnit(header: string): { readonly name: string; readonly unit: string | null } {
  const text = header.trim();
  const closed = /^(.*?)[\s_]*[([]\s*([^)\]]{1,12}?)\s*[)\]]\s*$/.exec(text);
  const inside = closed ? unitOf(closed[2] ?? '') : null;
  if (closed && inside !== null) return { name: closed[1] ?? '', unit: inside };
  // Behind the last blank, comma, slash or underscore: "temp_F", "Lawn, %", "battery mV".
  const tail = /^(.+?)[\s_,/]+([^\s_,/]+(?:\/[a-z]+)?)$/i.exec(text);
  const last = tail && (tail[2] ?? '').length <= 6 ? unitOf(tail[2] ?? '') : null;
  if (tail && last !== null && last !== 'raw counts' && last !== 'm' && last !== 'g')
    return { name: tail[1] ?? '', unit: last };
  const stuck = /^(.*[^\s%])(%|°[CF])$/.exec(text);
  const mark = stuck ? unitOf(stuck[2] ?? '') : null;
  return stuck && mark !== null ? { name: stuck[1] ?? '', unit: mark } : { name: text, unit: null };
}

/** The name of a column, and the unit that its name or every one of its numbers says. */
export function columnOf(
  header: string,
  cells: readonly string[],
): { readonly name: string; readonly unit: string | null } {
  const { name, unit } = nameAndUnit(header);
  const units = new Set(cells.flatMap((cell) => splitUnit(cell)?.unit ?? []));
  const [only = ''] = units;
  return { name, unit: unit ?? (units.size === 1 ? unitOf(only) : null) };
}

/** Lower-case words and numbers of a name; "chilliCrate_M2" is chilli, crate, m2. */
export const wordsOf = (name: string): readonly string[] =>
  name
    .replaceAll(/([a-z])([A-Z])/g, '$1 $2')
    .normalize('NFKD')
    .replaceAll(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter((word) => word !== '');

/** How a name points at a channel: 3 by its very name, 2 by all of its words, 1 by some beside words that nobody knows, 0 not at all. */
function pointsAt(
  words: readonly string[],
  channel: NamedChannel,
  places: readonly (readonly string[])[],
): number {
  const joined = words.join(' ');
  const place = channel.decides ? [`${channel.plot} ${channel.probe}`] : [];
  const own = [channel.id, ...channel.names, ...place].map((one) => wordsOf(one).join(' '));
  if (joined !== '' && own.includes(joined)) return 3;
  const left = new Set(words);
  const takes = (name: string): boolean => {
    const parts = wordsOf(name);
    if (parts.length === 0 || !parts.every((part) => words.includes(part))) return false;
    for (const part of parts) left.delete(part);
    return true;
  };
  const [byPlot, byProbe, byBoard] = [takes(channel.plot), takes(channel.probe), takes(channel.board)];
  const said = [...left].flatMap((word) => WORDS_OF.filter(([form]) => form.test(word)));
  const isAir = [...left].some((word) => AIR.test(word));
  for (const word of left)
    if (FILLERS.test(word) || AIR.test(word) || WORDS_OF.some(([form]) => form.test(word))) left.delete(word);
  if (said.some(([, quantities]) => !quantities.includes(channel.quantity))) return 0;
  if (isAir && channel.quantity === 'soil temperature') return 0;
  // What is said of a plot is not said of a board.
  const isElsewhere =
    channel.plot === '' && places.some((parts) => parts.every((part) => words.includes(part)));
  if (isElsewhere) return 0;
  // "Lemon" may be the lemon barrel: a question.
  const isPart =
    channel.plot !== '' &&
    channel.decides &&
    left.size > 0 &&
    [...left].every((word) => wordsOf(channel.plot).includes(word));
  if (!byPlot && !byProbe && isPart) return 1;
  // Nothing but what it measures: any channel that measures it may be meant.
  const isBare = !byPlot && !byProbe && !byBoard && left.size === 0 && said.length > 0;
  const isNamed = byPlot || byProbe || isBare || (channel.plot === '' && (byBoard || said.length > 0));
  if (!isNamed) return 0;
  // Without a word for what it measures, a plot's or probe's name means the moisture that the plot goes by.
  if (said.length === 0 && !channel.decides) return 0;
  // A plot's second probe is not meant by the plot alone.
  if (byPlot && !byProbe && !channel.decides && channel.quantity === 'moisture') return 0;
  return left.size === 0 ? 2 : 1;
}

/** The channel that a column's name means. Words that nobody knows make it a question, not an answer. */
export function matchChannel(name: string, channels: readonly NamedChannel[]): Match {
  const words = wordsOf(name);
  if (words.length === 0) return { kind: 'none' };
  const places = channels
    .flatMap(({ plot, probe }) => [wordsOf(plot), wordsOf(probe)])
    .filter((parts) => parts.length > 0);
  const scored = channels.map((channel) => ({ channel, score: pointsAt(words, channel, places) }));
  const best = Math.max(0, ...scored.map(({ score }) => score));
  if (best === 0) return { kind: 'none' };
  const found = scored.filter(({ score }) => score === best).map(({ channel }) => channel);
  // "Chilli crate north" is not "Chilli crate": the longest name that fits is meant.
  const length = (channel: NamedChannel) =>
    wordsOf(`${channel.plot} ${channel.probe}`).filter((word) => words.includes(word)).length;
  const longest = Math.max(...found.map(length));
  const meant = best === 3 ? found : found.filter((channel) => length(channel) === longest);
  const [only] = meant;
  return best > 1 && only && meant.length === 1
    ? { kind: 'one', id: only.id }
    : { kind: 'several', ids: meant.map(({ id }) => id) };
}
