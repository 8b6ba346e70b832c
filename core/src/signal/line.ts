/**
 * One line of a board's serial output, read without knowing the board.
 *
 * Understood: a bare number; `name:value` or `name=value` pairs; columns split by comma, semicolon, tab or blanks, with or
 * without a header line; one JSON object a line. Each may carry a time stamp. Anything else is counted and shown with its
 * reason, never guessed at: a number read from half a line looks right and is wrong.
 */
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
  if (text === '') return { state, result: { kind: 'blank' } };
  if (text.length > MOST_LINE_CHARS) return { state, result: misread('too-long') };
  // Control and replacement characters are what a wrong speed produces.
  if (/[\u0000-\u0008\u000e-\u001f\ufffd]/.test(text)) return { state, result: misread('garbage') };
  if (text.startsWith('{')) return { state, result: parseJson(text) };
  if (hasPair(takeStamp(text).rest)) return { state, result: parsePairs(text) };
  const cells = splitColumns(text);
  // Words split by blanks alone are a sentence, not a header.
  if (/[\t;,]/.test(text) && isHeader(cells))
    return { state: { header: cells }, result: { kind: 'header', names: cells } };
  return { state, result: parseColumns(cells, text, state.header) };
}

/** A letter somewhere in front of a colon or an equals sign. */
function hasPair(text: string): boolean {
  const letter = text.search(/[A-Za-z_]/);
  return letter >= 0 && /[:=]/.test(text.slice(letter));
}

function parseJson(text: string): LineResult {
  let parsed: unknown;
  try {
    parsed = JSON.parse(text);
  } catch {
    return misread('bad-json');
  }
  const fields = flatten(parsed as Record<string, unknown>);
  let stamp: TimeStamp | null = null;
  const values: NamedValue[] = [];
  for (const [name, value] of fields) {
    if (typeof value !== 'number' && typeof value !== 'string') continue;
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

/** Two levels are enough for `{"c2":{"raw":1512}}`; deeper nesting is no probe's reading. */
function flatten(object: Record<string, unknown>): (readonly [string, unknown])[] {
  return Object.entries(object).flatMap(([name, value]) =>
    typeof value === 'object' && value !== null && !Array.isArray(value)
      ? Object.entries(value).map(([inner, held]) => [`${name}.${inner}`, held as unknown] as const)
      : [[name, value] as const],
  );
}

// A name of one to four words, ":" or "=", a value up to the next separator, perhaps a unit. It begins where a word begins, and no word or value is
// longer than 60, so that the search stays linear in the length of the line.
const PAIR =
  /(?<![\w./#-])([A-Za-z_][\w./#-]{0,59}(?: [A-Za-z_][\w./#-]{0,59}){0,3})[ \t]{0,8}[:=][ \t]{0,8}([^\s,;|]{1,60})(?![^\s,;|])(?:[ \t]{0,8}(?:%|°?[A-Za-zµΩ/%]{1,12})(?=$|[\s,;|]))?/g;

function parsePairs(text: string): LineResult {
  const { stamp: front, rest } = takeStamp(text);
  let stamp = front;
  const values: NamedValue[] = [];
  const taken = new Map<string, number>();
  const reasons: NotUnderstood[] = [];
  const left = rest.replace(PAIR, (_, name: string, raw: string) => {
    const asStamp = stampFromField(name, raw);
    if (asStamp) {
      stamp ??= asStamp;
      return '';
    }
    const read = readNumber(raw.replace(/(?:%|°?[A-Za-zµΩ]{1,12})$/, ''));
    const whole = readNumber(raw);
    if (read.kind === 'number') {
      const wrong = wrongValue(read.value);
      if (wrong) reasons.push(wrong);
      else values.push({ name: distinct(taken, name), value: read.value });
    } else
      reasons.push(whole.kind === 'not-finite' || read.kind === 'not-finite' ? 'not-finite' : 'no-number');
    return '';
  });
  const [reason] = reasons;
  if (reason) return misread(reason);
  if (/^\s*,\d+/.test(left)) return misread('decimal-comma');
  if (/[^\s,;|]/.test(left) || values.length === 0) return misread('no-number');
  return { kind: 'values', values, stamp };
}

/** The same name a second time on a line gets a number behind it. */
function distinct(taken: Map<string, number>, name: string): string {
  const same = (taken.get(name) ?? 0) + 1;
  taken.set(name, same);
  return same === 1 ? name : `${name} (${same})`;
}

/** The first separator that occurs decides, in the order tab, semicolon, comma; blanks only without any of them. */
function splitColumns(text: string): string[] {
  const separator = ['\t', ';', ','].find((mark) => text.includes(mark));
  if (separator) return text.split(separator).map((cell) => cell.trim().replace(/^"(.*)"$/, '$1'));
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
  for (const [at, cell] of cells.entries()) {
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
