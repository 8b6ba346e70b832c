/**
 * One line of a board's serial output, read without knowing the board.
 *
 * Understood: a bare number; `name:value` or `name=value` pairs; columns split by comma, semicolon, tab or blanks, with or
 * without a header line; one JSON object a line. Each may carry a time stamp. Anything else is counted and shown with its
 * reason, never guessed at: a number read from half a line looks right and is wrong.
 */
import { readLineJson } from './lineJson.ts';
import { readNumber } from './numberText.ts';
import { stampFromField, stampFromNumber, takeStamp, type TimeStamp } from './timeStamp.ts';

export type NamedValue = { readonly name: string; readonly value: number };

export type NotUnderstood =
  'garbage' | 'too-long' | 'bad-json' | 'decimal-comma' | 'not-finite' | 'absurd' | 'no-number';

export type LineResult =
  | { readonly kind: 'values'; readonly values: readonly NamedValue[]; readonly stamp: TimeStamp | null }
  | { readonly kind: 'header'; readonly names: readonly string[] }
  | { readonly kind: 'blank' }
  | { readonly kind: 'not-understood'; readonly reason: NotUnderstood };

/** What the parser remembers between lines: the header of a column stream. */
export type LineParserState = { readonly header: readonly string[] | null };

export const initialLineParser: LineParserState = { header: null };

/** The name given to a bare number. */
export const BARE_NAME = 'value';
/** No board's line is longer; what is longer is noise, and is cut here so that no line can hold the page up. */
export const MOST_LINE_CHARS = 4096;
/** Values beyond ± this are no reading: the widest converter has 2^24 counts, and stored counts end here too. */
export const MOST_VALUE = 1e9;

const misread = (reason: NotUnderstood) => ({ kind: 'not-understood', reason }) as const;

/** Reads one line; the state only changes on a header line. Cannot throw. */
export function parseLine(
  state: LineParserState,
  line: string,
): { state: LineParserState; result: LineResult } {
  const text = line.trim();
  if (text === '') return { state, result: BLANK };
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
    return { state: { header: cells }, result: { kind: 'header', names: cells } };
  return { state, result: parseColumns(cells, text, state.header) };
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
  /(?<![\w./#-])([A-Za-z_][\w./#-]{0,59}(?: [A-Za-z_][\w./#-]{0,59}){0,3})[ \t]{0,8}[:=][ \t]{0,8}([^\s,;|]{1,60})(?![^\s,;|])(?:[ \t]{0,8}(?:%|°?[A-Za-zµΩ/%]{1,12})(?=$|[\s,;|]))?/g;

function parsePairs({ stamp: front, rest }: { stamp: TimeStamp | null; rest: string }): LineResult {
  let stamp = front;
  const values: NamedValue[] = [];
  const taken = new Map<string, number>();
  let wrong: NotUnderstood | null = null;
  let isLeft = false;
  let end = 0;
  PAIR.lastIndex = 0;
  for (let match = PAIR.exec(rest); match; match = PAIR.exec(rest)) {
    const [all, name = '', raw = ''] = match;
    isLeft ||= hasWords(rest, end, match.index);
    if (end > 0 && CUT_DECIMAL.test(rest.slice(end, match.index))) wrong ??= 'decimal-comma';
    end = match.index + all.length;
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
      else values.push({ name: distinct(taken, name), value: read.value });
    } else wrong ??= whole.kind === 'not-finite' || read.kind === 'not-finite' ? 'not-finite' : 'no-number';
  }
  if (wrong) return misread(wrong);
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
    else if (cells.length === 2 && at === 1 && values.length === 1 && isUnit(cell)) continue;
    else return misread('no-number');
  }
  if (values.length === 0) return misread('no-number');
  const [only] = values;
  const isBare = values.length === 1 && names === null && !/[\t;,]/.test(stamp ? takeStamp(text).rest : text);
  return {
    kind: 'values',
    values: isBare && only ? [{ name: BARE_NAME, value: only.value }] : values,
    stamp,
  };
}

const isUnit = (cell: string) => /^(?:%|°?[A-Za-zµΩ/]{1,8})$/.test(cell);

function wholeStamp(cell: string, cells: number): TimeStamp | null {
  const { stamp, rest } = takeStamp(cell);
  if (stamp && rest === '') return stamp;
  return cells > 1 ? stampFromNumber(cell) : null;
}
