/**
 * Lines as people print them: words, numbers and units in any order, such as "Moisture is 433", "Sensor 1: 432 Sensor 2: 512", "A0 = 512 | 10%".
 *
 * Every number gets the words in front of it for a name and the unit behind it; a word that stands for a value ("pump: OFF") is dropped, not the line. Numbers that are
 * part of something else (an address, a version, a time, hexadecimal digits) are none, and what a board says while it starts is no reading at all.
 */

export type ProseValue = {
  readonly name: string;
  readonly value: number;
  /** As printed: "%", "V", "°C"; absent where there is none. */
  readonly unit?: string;
};

/** What boards say of themselves. A number beside these is a version, a size or an address. */
const OF_THE_BOARD =
  /\b(?:boot\w*|rst|reset\w*|version|ver|firmware|build|compiled|copyright|connect\w*|disconnect\w*|ssid|rssi|wifi|wi-fi|ip|mac|http|mqtt|error|err|fail\w*|exception|assert\w*|guru|panic|backtrace|flash|heap|chip|cpu|crc|load|entry|baud\w*|setup|init\w*|ready|started|starting|waiting|listening|timeout|retry|attempt|serial|port)\b/i;

const HEXADECIMAL = /\b0x[0-9a-f]/i;

/** Units that stand behind a number, with or without a blank. */
export const UNITS: ReadonlySet<string> = new Set(
  '% %RH %rh RH ‰ percent Percent pct C F K °C °F *C *F ° deg degC degF V mV volts volt A mA Ohm ohm ohms Ω kΩ MΩ kOhm k raw counts count adc ADC lux lx Hz kHz hPa kPa Pa bar mbar cbar ml mL l L cm mm m s sec ms us µs min dB dBm ppm mS uS µS pF nF g kg'.split(
    ' ',
  ),
);

/** Words that only lead from a name to its number. */
const FILLERS = new Set('is are was at of now reads equals to'.split(' '));
/** Words that a sentence begins with. */
const OPENERS = new Set('the an my your current currently'.split(' '));
/** Behind these a small number is which one, not how much. */
const NUMBERED =
  /^(?:sensor|probe|plant|pot|plot|channel|chan|ch|pin|zone|soil|bed|no|nr|num|number|input|tank)$/i;

type Token =
  | {
      readonly kind: 'number';
      readonly text: string;
      readonly unit: string | null;
      readonly end: number;
      readonly at: number;
    }
  | { readonly kind: 'word'; readonly text: string; readonly at: number; readonly end: number }
  | { readonly kind: 'mark'; readonly text: string; readonly at: number; readonly end: number };

// A number, which nothing like it goes on behind; perhaps "of full scale" (512/1023). Then words, then what begins with a digit and is neither.
const TOKEN =
  /([+-]?\d{1,15}(?:\.\d{1,9}|,\d{1,2})?)(?:\s?\/\s?(?:100|255|1023|1024|4095|4096|16383|32767|65535)(?!\d))?(?!\d|[.:/,-]\d)|([\p{L}_#][\p{L}\p{N}_.#/-]{0,59})|(\d[\p{L}\p{N}_.:/,-]{0,59})|([^\s\p{L}\p{N}])/gu;
const UNIT_BEHIND = /^[ \t]{0,2}(%RH|%rh|[°*][CF]?|[%‰Ω]|[\p{L}µ][\p{L}Ω%]{0,7})(?![\p{L}\p{N}_])/u;

const unitOf = (printed: string): string =>
  /^p(?:er)?c(?:en)?t$/i.test(printed) ? '%' : printed.replace('*', '°');

/** The line in words, numbers and marks; a number glued to letters that are no unit is a word. */
function tokensOf(text: string): Token[] {
  const tokens: Token[] = [];
  TOKEN.lastIndex = 0;
  for (let match = TOKEN.exec(text); match; match = TOKEN.exec(text)) {
    const [all, number, word, glued] = match;
    const at = match.index;
    const before = text[at - 1] ?? ' ';
    if (number !== undefined && !/[\p{L}\p{N}_./]/u.test(before)) {
      const behind = text.slice(at + all.length, at + all.length + 12);
      const unit = UNIT_BEHIND.exec(behind);
      const known = unit?.[1] !== undefined && UNITS.has(unit[1]) ? unit : null;
      const isGlued = /^[\p{L}\p{N}_]/u.test(behind) && !known;
      if (!isGlued) {
        const end = at + all.length + (known?.[0].length ?? 0);
        tokens.push({ kind: 'number', text: number, unit: known ? unitOf(known[1] ?? '') : null, at, end });
        TOKEN.lastIndex = end;
        continue;
      }
    }
    const end = at + all.length;
    if (number !== undefined || word !== undefined || glued !== undefined)
      tokens.push({ kind: 'word', text: all, at, end });
    else tokens.push({ kind: 'mark', text: all, at, end });
  }
  return tokens;
}

/** Words between a reading and whose it is. */
const FROM = new Set(['from', 'of', 'at', 'on', 'in', 'by', 'for']);

/** Marks that end a name: what stands behind them belongs to the next number. */
const ENDS = new Set([',', ';', '|', '(', '[', '{', '\t']);

/** Whether a colon or an equals sign stands before the second number. */
function isNamed(tokens: readonly Token[]): boolean {
  const next = tokens.findIndex((token, at) => at > 0 && token.kind === 'number');
  return tokens
    .slice(0, Math.max(0, next))
    .some((token) => token.kind === 'mark' && (token.text === ':' || token.text === '='));
}

/** Whether the number at a place is part of a name: "Sensor 1:", "probe 2 = 512", "Pot 3 433". */
function isPartOfName(tokens: readonly Token[], at: number): boolean {
  const [before, own, behind] = [tokens[at - 1], tokens[at], tokens[at + 1]];
  if (own?.kind !== 'number' || own.unit !== null) return false;
  // "1 moisture: 2600": in front of a name a small count says which one.
  if (at === 0) return /^\d{1,2}$/.test(own.text) && behind?.kind === 'word' && isNamed(tokens);
  if (before?.kind !== 'word') return false;
  if (!/^\d{1,3}$/.test(own.text)) return false;
  if (behind?.kind === 'mark' && (behind.text === ':' || behind.text === '=')) return true;
  const next = behind?.kind === 'word' && FILLERS.has(behind.text.toLowerCase()) ? tokens[at + 2] : behind;
  // "512 from sensor 2": behind the reading it says whose it was.
  const isLast = !tokens.slice(at + 1).some((token) => token.kind !== 'mark');
  const link = tokens[at - 2];
  // Without such a word in between, as in "soil 512 bed 498", it is a reading of its own.
  const isLinked =
    link?.kind === 'number'
      ? at === 2
      : link?.kind === 'mark'
        ? link.text === '('
        : link?.kind === 'word' && FROM.has(link.text.toLowerCase());
  const isBehind = isLast && isLinked && tokens.slice(0, at).some((token) => token.kind === 'number');
  return NUMBERED.test(before.text) && (next?.kind === 'number' || isBehind);
}

/** A name out of the words in front of a number; empty where there are none. */
function nameFrom(words: readonly string[]): string {
  const kept = [...words];
  while (kept.length > 0 && FILLERS.has((kept.at(-1) ?? '').toLowerCase())) kept.pop();
  const leads = (word: string) => OPENERS.has(word.toLowerCase()) || FILLERS.has(word.toLowerCase());
  while (kept.length > 0 && leads(kept[0] ?? '')) kept.shift();
  return kept
    .slice(-4)
    .join(' ')
    .replace(/^[#./-]+|[./-]+$/g, '')
    .slice(0, 60);
}

/**
 * @returns every number of the line with its name, in the order they stand; null when there is none, or when the line is what a board says of itself.
 * A comma inside a number is a decimal comma. Names that stand twice are not told apart here.
 */
export function readProse(text: string): ProseValue[] | null {
  if (OF_THE_BOARD.test(text) || HEXADECIMAL.test(text)) return null;
  const tokens = tokensOf(text);
  const values: ProseValue[] = [];
  let words: string[] = [];
  let last = '';
  for (const [at, token] of tokens.entries()) {
    if (token.kind === 'word') {
      words.push(token.text);
      continue;
    }
    if (token.kind === 'mark') {
      // A word behind a colon was a value: "pump: OFF".
      if (ENDS.has(token.text)) {
        if (words.length > 0 && values.length > 0) words = [];
        else if (token.text === ',' || token.text === ';' || token.text === '|') words = [];
      }
      continue;
    }
    if (isPartOfName(tokens, at)) {
      words.push(token.text);
      continue;
    }
    const value = Number(token.text.replace(',', '.'));
    if (!Number.isFinite(value)) return null;
    const name = nameFrom(words) || last;
    values.push({ name, value, ...(token.unit === null ? {} : { unit: token.unit }) });
    last = name;
    words = [];
  }
  if (values.length === 0) return null;
  // Of two sensors that print alike, the number behind tells them apart.
  const whose = /\S+ \d{1,3}$/.exec(words.join(' '))?.[0];
  const [first] = values;
  if (values.length === 1 && first && first.name !== '' && whose !== undefined)
    return [{ ...first, name: `${first.name} ${whose}` }];
  // "433 is the moisture": with one number the words may stand behind it.
  const [only] = values;
  if (values.length === 1 && only?.name === '' && words.length > 0)
    return [{ ...only, name: nameFrom(words) }];
  return values;
}
