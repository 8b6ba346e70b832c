/**
 * One line of a board's serial output, read without knowing the board.
 *
 * Understood: a bare number; `name:value` or `name=value` pairs; columns split by comma, semicolon, tab or blanks, with or
 * without a header line; one JSON object a line. Each may carry a time stamp. Anything else is counted and shown with its
 * reason, never guessed at: a number read from half a line looks right and is wrong.
 */
import { readLineJson } from './lineJson.ts';
import { readProse, UNITS, type ProseValue } from './lineProse.ts';
import { readNumber } from './numberText.ts';
import { readPicked, type PickedNumber } from './pickedNumber.ts';
import { stampFromField, stampFromNumber, takeStamp, type TimeStamp } from './timeStamp.ts';

export type NamedValue = {
  readonly name: string;
  readonly value: number;
  /** As printed: "%", "V"; absent where none was. */
  readonly unit?: string;
};

export type NotUnderstood =
  'garbage' | 'too-long' | 'bad-json' | 'decimal-comma' | 'not-finite' | 'absurd' | 'no-number';

export type LineResult =
  | {
      readonly kind: 'values';
      readonly values: readonly NamedValue[];
      readonly stamp: TimeStamp | null;
      /** It can be read in another way as well, and only a person knows: "2600,5" is one number or two. */
      readonly asks?: 'comma';
    }
  | { readonly kind: 'header'; readonly names: readonly string[] }
  | { readonly kind: 'blank' }
  | { readonly kind: 'not-understood'; readonly reason: NotUnderstood };

/** What a comma between digits is: a decimal comma, or the border of two columns; null while nobody has said and no line has shown it. */
export type CommaIs = 'decimal' | 'border' | null;

/** What the parser remembers between lines: the header of a column stream, and what its commas are. */
export type LineParserState = {
  readonly header: readonly string[] | null;
  readonly comma: CommaIs;
  /** Numbers that a person has pointed at in lines that nothing else reads. */
  readonly picked: readonly PickedNumber[];
};

export const initialLineParser: LineParserState = { header: null, comma: null, picked: [] };

/** The name given to a bare number. */
export const BARE_NAME = 'value';
/** No board's line is longer; what is longer is noise, and is cut here so that no line can hold the page up. */
export const MOST_LINE_CHARS = 4096;
/** Values beyond ± this are no reading: the widest converter has 2^24 counts, and stored counts end here too. */
export const MOST_VALUE = 1e9;

const misread = (reason: NotUnderstood) => ({ kind: 'not-understood', reason }) as const;

/** Reads one line; the state changes on a header line, and where a line shows what a comma is. Cannot throw. */
export function parseLine(
  state: LineParserState,
  line: string,
): { state: LineParserState; result: LineResult } {
  const strict = parseStrictly(state, line);
  if (strict.result.kind !== 'not-understood' || !LOOSELY.has(strict.result.reason)) return strict;
  return readLoosely(state, line.trim()) ?? pointedAt(state, line.trim()) ?? strict;
}

/** The numbers of a line that a person has pointed at. */
function pointedAt(
  state: LineParserState,
  text: string,
): { state: LineParserState; result: LineResult } | null {
  const values = readPicked(text, state.picked);
  return values.length === 0 || values.some(({ value }) => wrongValue(value))
    ? null
    : { state, result: { kind: 'values', values, stamp: null } };
}

/** What may be words beside numbers, or decimal commas, after all. */
const LOOSELY: ReadonlySet<NotUnderstood> = new Set(['no-number', 'decimal-comma', 'bad-json', 'not-finite']);

/** What a program says about itself, not about its probes: no columns, so it is no header of a table either. */
const OF_A_PROGRAM = /^# [^,;\t=]*$/;

function parseStrictly(state: LineParserState, line: string): { state: LineParserState; result: LineResult } {
  const text = line.trim();
  if (text === '' || OF_A_PROGRAM.test(text)) return { state, result: BLANK };
  if (text.length > MOST_LINE_CHARS) return { state, result: misread('too-long') };
  const marks = marksOf(text);
  // Control and replacement characters are what a wrong speed produces.
  if (marks.control) return { state, result: misread('garbage') };
  if (text.startsWith('{')) return { state, result: parseJson(text) };
  if (!marks.other) {
    const bare = bareNumber(text);
    if (bare) return { state, result: bare };
  }
  if (!marks.digit && marks.separator === null)
    return {
      state,
      result: misread(
        readNumber(text).kind === 'not-finite' || NOT_FINITE_PAIR.test(text) ? 'not-finite' : 'no-number',
      ),
    };
  if (marks.pair) {
    const simple = simplePair(text);
    if (simple) return { state, result: simple };
    const front = takeStamp(text);
    if (hasPair(front.rest)) return { state, result: parsePairs(front) };
  }
  const cells = splitColumns(text, marks.separator);
  // Words split by blanks alone are a sentence, not a header.
  if (marks.letter && marks.separator !== null && isHeader(cells))
    return { state: { ...state, header: cells }, result: { kind: 'header', names: cells } };
  const commas = commaPair(text, marks, state);
  if (commas === 'decimal')
    return { state, result: bareNumber(text.replace(',', '.')) ?? misread('no-number') };
  const result = parseColumns(cells, text, state.header);
  return {
    state,
    result: commas === 'asks' && result.kind === 'values' ? { ...result, asks: 'comma' } : result,
  };
}

/** "2600,5": a decimal comma, two columns, or not to be told by the line alone. */
function commaPair(
  text: string,
  { separator }: Marks,
  { comma, header }: LineParserState,
): 'decimal' | 'border' | 'asks' {
  if (separator !== ',' || !/^-?\d{1,9},\d{1,3}$/.test(text)) return 'border';
  if (comma !== null) return comma;
  return header?.length === 2 ? 'border' : 'asks';
}

/** A second, patient look at a line that is no plain number, pair, column or object: brackets around it, an uptime in front, decimal commas, words. */
function readLoosely(
  state: LineParserState,
  text: string,
): { state: LineParserState; result: LineResult } | null {
  // Half of a line looks right and is wrong.
  if (!isBalanced(text)) return null;
  const { stamp, rest } = takeFront(text);
  const inner = unwrapped(rest);
  if (inner !== rest) {
    const again = parseStrictly(state, inner);
    if (again.result.kind === 'values')
      return { state, result: { ...again.result, stamp: again.result.stamp ?? stamp } };
  }
  const cells = /[;\t]/.test(text) ? text.split(/[;\t]/).map((cell) => cell.trim()) : [];
  if (cells.some((cell) => readNumber(cell).kind === 'decimal-comma')) {
    // Between semicolons or tabs a comma can only be a decimal one.
    const result = parseColumns(
      cells.map((cell) => cell.replace(/^([+-]?\d+),(\d+)$/, '$1.$2')),
      inner,
      state.header,
    );
    if (result.kind === 'values')
      return { state: { ...state, comma: 'decimal' }, result: { ...result, stamp: result.stamp ?? stamp } };
  }
  const found = readProse(inner);
  if (!found) return null;
  const values = named(found);
  return values.some(({ value }) => wrongValue(value))
    ? null
    : { state, result: { kind: 'values', values, stamp } };
}

/** Whether every bracket that opens also closes. */
function isBalanced(text: string): boolean {
  const open: string[] = [];
  for (const [mark] of text.matchAll(/[()[\]{}]/g)) {
    const at = ')]}'.indexOf(mark);
    if (at < 0) open.push(mark);
    else if (open.pop() !== '([{'[at]) return false;
  }
  return open.length === 0;
}

/** An uptime in front of words, in brackets or bare: "[0.500]" in seconds, "[12345]" or "12345" in ms. What is smaller says which one, not when. */
const UPTIME = /^(?:\[\s*(\d{1,9}(?:\.\d{1,6})?)\s*\]|(\d{4,10})(?=[\s:,;]))[\s:,;]*(?=.*\p{L})/u;

function takeFront(text: string): { stamp: TimeStamp | null; rest: string } {
  const front = takeStamp(text);
  if (front.stamp) return front;
  const [all = '', bracketed, plain] = UPTIME.exec(text) ?? [];
  const number = bracketed ?? plain;
  if (number === undefined) return front;
  const isSeconds = number.includes('.');
  if (!isSeconds && Number(number) < 1000) return front;
  return {
    stamp: { kind: 'uptime', ms: isSeconds ? Number(number) * 1000 : Number(number) },
    rest: text.slice(all.length),
  };
}

/** Without the brackets around a list or the braces and quotes of an object that is no JSON: "(538, 22.5)", "{'soil': 512}". */
function unwrapped(text: string): string {
  const [first, last] = [text.at(0) ?? '', text.at(-1) ?? ''];
  if ((first === '(' && last === ')') || (first === '[' && last === ']')) return text.slice(1, -1).trim();
  if (first === '{' && last === '}') return text.slice(1, -1).replace(/['"]/g, '').trim();
  return text;
}

/** Each value under a name of its own: a percent beside a number of the same name is that name's percent. */
function named(found: readonly ProseValue[]): NamedValue[] {
  const taken = new Map<string, number>();
  return found.map(({ name, value, unit }, at) => {
    const base = name !== '' ? name : found.length === 1 ? BARE_NAME : `column ${at + 1}`;
    const hasTwin = found.some((one, other) => other !== at && one.name === name && one.unit !== '%');
    const own = unit === '%' && hasTwin ? `${base} %` : base;
    return { name: distinct(taken, own), value, ...(unit === undefined ? {} : { unit }) };
  });
}

const BLANK = { kind: 'blank' } as const;

type Marks = {
  /** Characters that no text has. */
  readonly control: boolean;
  readonly digit: boolean;
  readonly letter: boolean;
  /** A letter with a colon or an equals sign somewhere behind it. */
  readonly pair: boolean;
  /** The first of tab, semicolon and comma that occurs at all. */
  readonly separator: '\t' | ';' | ',' | null;
  /** Anything that is not a digit, a sign or a point. */
  readonly other: boolean;
};

/** What a line is made of, in one pass: most lines are short and there are very many, so that each further search is felt. */
function marksOf(text: string): Marks {
  let [control, digit, letter, pair] = [false, false, false, false];
  let [tab, semicolon, comma, other] = [false, false, false, false];
  for (let at = 0; at < text.length; at += 1) {
    const code = text.charCodeAt(at);
    if (code >= 48 && code <= 57) {
      digit = true;
      continue;
    }
    if (code === 43 || code === 45 || code === 46) continue;
    other = true;
    if ((code >= 97 && code <= 122) || (code >= 65 && code <= 90) || code === 95) letter = true;
    else if (code === 58 || code === 61) pair ||= letter;
    else if (code === 9) tab = true;
    else if (code === 59) semicolon = true;
    else if (code === 44) comma = true;
    else if (code < 9 || (code > 13 && code < 32) || code === 0xfffd) control = true;
  }
  return {
    control,
    digit,
    letter,
    pair,
    separator: tab ? '\t' : semicolon ? ';' : comma ? ',' : null,
    other,
  };
}

/** A name or several with "nan" or "inf" for a value, and not a digit on the line. */
const NOT_FINITE_PAIR = /[:=]\s*[+-]?(?:nan|inf|infinity)\b/i;
const SIMPLE_PAIR = /^([A-Za-z_]\w{0,59})[:=](-?\d{1,15}(?:\.\d{1,9})?)$/;

/** The commonest line of all, "c2=1512"; null for every other. */
function simplePair(text: string): LineResult | null {
  const [, name, number] = SIMPLE_PAIR.exec(text) ?? [];
  if (name === undefined || number === undefined || stampFromField(name, number)) return null;
  const value = Number(number);
  const wrong = wrongValue(value);
  return wrong ? misread(wrong) : { kind: 'values', values: [{ name, value }], stamp: null };
}

/** A line that is one plain number; null when its digits, signs and points make none. */
function bareNumber(text: string): LineResult | null {
  const read = readNumber(text);
  if (read.kind !== 'number') return null;
  const wrong = wrongValue(read.value);
  return wrong
    ? misread(wrong)
    : { kind: 'values', values: [{ name: BARE_NAME, value: read.value }], stamp: null };
}

/** A letter somewhere in front of a colon or an equals sign. */
function hasPair(text: string): boolean {
  const letter = text.search(/[A-Za-z_]/);
  return letter >= 0 && /[:=]/.test(text.slice(letter));
}

function parseJson(text: string): LineResult {
  const fields = readLineJson(text);
  if (!fields) return misread('bad-json');
  let stamp: TimeStamp | null = null;
  const values: NamedValue[] = [];
  for (const [name, value] of fields) {
    const asStamp = stampFromField(name, value);
    if (asStamp) stamp ??= asStamp;
    else if (typeof value === 'number') {
      const wrong = wrongValue(value);
      if (wrong) return misread(wrong);
      values.push({ name, value });
    }
  }
  return values.length > 0 ? { kind: 'values', values, stamp } : misread('no-number');
}

const wrongValue = (value: number): NotUnderstood | null =>
  !Number.isFinite(value) ? 'not-finite' : Math.abs(value) > MOST_VALUE ? 'absurd' : null;

// A name of one to four words, ":" or "=", a value up to the next separator, perhaps a unit. It begins where a word begins, and no word or value is
// longer than 60, so that the search stays linear in the length of the line.
const PAIR =
  /(?<![\w./#-])([A-Za-z_][\w./#-]{0,59}(?: [A-Za-z_][\w./#-]{0,59}){0,3})[ \t]{0,8}[:=][ \t]{0,8}([^\s,;|]{1,60})(?![^\s,;|])(?:[ \t]{0,8}(%|°?[A-Za-zµΩ/%]{1,12})(?=$|[\s,;|]))?/g;

function parsePairs({ stamp: front, rest }: { stamp: TimeStamp | null; rest: string }): LineResult {
  let stamp = front;
  const values: NamedValue[] = [];
  const taken = new Map<string, number>();
  let wrong: NotUnderstood | null = null;
  let isLeft = false;
  let end = 0;
  PAIR.lastIndex = 0;
  for (let match = PAIR.exec(rest); match; match = PAIR.exec(rest)) {
    const [all, name = '', raw = '', apart] = match;
    isLeft ||= hasWords(rest, end, match.index);
    if (end > 0 && CUT_DECIMAL.test(rest.slice(end, match.index))) wrong ??= 'decimal-comma';
    end = match.index + all.length;
    // Behind the value stands a unit, or the first word of the next name.
    if (apart !== undefined && !UNITS.has(apart)) {
      end -= apart.length;
      PAIR.lastIndex = end;
    }
    const asStamp = stampFromField(name, raw);
    if (asStamp) {
      stamp ??= asStamp;
      continue;
    }
    const whole = readNumber(raw);
    const read = whole.kind === 'number' ? whole : readNumber(raw.replace(/(?:%|°?[A-Za-zµΩ]{1,12})$/, ''));
    if (read.kind === 'number') {
      const absurd = wrongValue(read.value);
      if (absurd) wrong ??= absurd;
      else {
        const printed = apart ?? /(?:%|°?[A-Za-zµΩ]{1,12})$/.exec(raw)?.[0];
        const unit = printed !== undefined && UNITS.has(printed) ? printed : undefined;
        values.push({
          name: distinct(taken, name),
          value: read.value,
          ...(unit === undefined ? {} : { unit }),
        });
      }
    } else wrong ??= whole.kind === 'not-finite' || read.kind === 'not-finite' ? 'not-finite' : 'no-number';
  }
  // A sensor that gave nothing this time is a gap; what the others gave counts.
  if (wrong && !(wrong === 'not-finite' && values.length > 0)) return misread(wrong);
  if (end > 0 && CUT_DECIMAL.test(rest.slice(end))) return misread('decimal-comma');
  if (isLeft || hasWords(rest, end, rest.length) || values.length === 0) return misread('no-number');
  return { kind: 'values', values, stamp };
}

/** What is left of "12,5" behind a pair that took the 12. */
const CUT_DECIMAL = /^\s*,\d+/;

/** Whether anything but blanks and separators stands in a stretch. */
function hasWords(text: string, from: number, to: number): boolean {
  for (let at = from; at < to; at += 1) {
    const mark = text[at];
    if (mark !== ' ' && mark !== ',' && mark !== ';' && mark !== '|' && mark !== '\t') return true;
  }
  return false;
}

/** The same name a second time on a line gets a number behind it. */
function distinct(taken: Map<string, number>, name: string): string {
  const same = (taken.get(name) ?? 0) + 1;
  taken.set(name, same);
  return same === 1 ? name : `${name} (${same})`;
}

/** The first separator that occurs decides, in the order tab, semicolon, comma; blanks only without any of them. */
function splitColumns(text: string, separator: Marks['separator']): string[] {
  if (separator !== null)
    return text
      .split(separator)
      .map((cell) => (cell.includes('"') ? cell.trim().replace(/^"(.*)"$/, '$1') : cell.trim()));
  const { stamp, rest } = takeStamp(text);
  const cells = rest.split(/\s+/);
  return stamp ? [text.slice(0, text.length - rest.length).trim(), ...cells] : cells;
}

const HEADER_CELL = /^[A-Za-z_][\w./#%°()-]*(?: [\w./#%°()-]+)?$/;

function isHeader(cells: readonly string[]): boolean {
  return (
    cells.length > 1 &&
    cells.every(
      (cell) => cell.length <= 32 && HEADER_CELL.test(cell) && readNumber(cell).kind === 'not-a-number',
    )
  );
}

function parseColumns(cells: readonly string[], text: string, header: readonly string[] | null): LineResult {
  const names = header?.length === cells.length ? header : null;
  let stamp: TimeStamp | null = null;
  const values: NamedValue[] = [];
  let unit: string | null = null;
  for (let at = 0; at < cells.length; at += 1) {
    const cell = cells[at] ?? '';
    if (cell === '') continue; // a missing value in a table is a gap, not a fault
    const named = names?.[at];
    const asStamp =
      (named ? stampFromField(named, cell) : null) ?? (at === 0 ? wholeStamp(cell, cells.length) : null);
    if (asStamp) {
      stamp ??= asStamp;
      continue;
    }
    const read = readNumber(cell);
    if (read.kind === 'number') {
      const wrong = wrongValue(read.value);
      if (wrong) return misread(wrong);
      values.push({ name: named ?? `column ${at + 1}`, value: read.value });
    } else if (read.kind !== 'not-a-number') return misread(read.kind);
    else if (cells.length === 2 && at === 1 && values.length === 1 && isUnit(cell)) unit = cell;
    else return misread('no-number');
  }
  if (values.length === 0) return misread('no-number');
  const [only] = values;
  const isBare = values.length === 1 && names === null && !/[\t;,]/.test(stamp ? takeStamp(text).rest : text);
  return {
    kind: 'values',
    values:
      isBare && only ? [{ name: BARE_NAME, value: only.value, ...(unit === null ? {} : { unit }) }] : values,
    stamp,
  };
}

const isUnit = (cell: string) => /^(?:%|°?[A-Za-zµΩ/]{1,8})$/.test(cell);

function wholeStamp(cell: string, cells: number): TimeStamp | null {
  const { stamp, rest } = takeStamp(cell);
  if (stamp && rest === '') return stamp;
  return cells > 1 ? stampFromNumber(cell) : null;
}
