/** Reading a readings CSV, as `readingsCsvOut` writes it or a person does. */
import { z } from '../quantity/schema.ts';
import { clockMsAt, digitsAt } from '../quantity/digits.ts';
import { isMoment, momentOf } from '../quantity/moment.ts';
import { fail, ok, type Result } from '../quantity/result.ts';
import { MOST_VALUE } from '../signal/line.ts';
import { readNumber } from '../signal/numberText.ts';
import { looksBinary } from '../signal/serialLog.ts';
import { CsvScan, unguardCell } from './csv.ts';
import { DayColumns } from './dayColumns.ts';
import { COLUMNS, FLAG_NAMES, type Column } from './readingsCsvOut.ts';
import { dayOf, FLAGS, type DayBlock } from './series.ts';

export type CsvChannel = { readonly id: string; readonly plot: string; readonly probe: string };

/** What is wrong with one row; `row` is its line in the file. */
export type RowProblem = { readonly row: number } & (
  | { readonly kind: 'decimal-comma'; readonly text: string }
  | { readonly kind: 'cell'; readonly column: 'time' | 'raw' | 'flags'; readonly text: string }
  | { readonly kind: 'time-range'; readonly text: string }
  | { readonly kind: 'value-range'; readonly text: string }
  | { readonly kind: 'columns'; readonly found: number; readonly wanted: number }
  | { readonly kind: 'unknown-channel'; readonly channel: string }
);

export type CsvIssue =
  | { readonly kind: 'empty' }
  | { readonly kind: 'binary' }
  | { readonly kind: 'missing-column'; readonly column: string }
  | { readonly kind: 'doubled-column'; readonly column: string }
  /** The first rows that are wrong, and how many more were found; beyond a thousand the search ends. */
  | { readonly kind: 'rows'; readonly problems: readonly RowProblem[]; readonly more: number }
  | { readonly kind: 'no-rows' };

/** By channel and day; times rising, equal ones in the order of the file. */
export type CsvReadings = readonly DayBlock[];

const MOST_PROBLEMS = 10;
/** After so many wrong rows the file is not the one that was meant, and is read no further. */
const MOST_WRONG = 1000;
const PROGRESS_EVERY = 20_000;

/**
 * Reads a readings CSV: all of it, or what is wrong with it. Needs `time`, `raw` and either `channel` or `plot` and `probe`. A time is ISO 8601 with its
 * offset, or seconds, ms, µs or ns since 1970, from 2000 up to 2100; a value is within ±1e9. Cannot throw.
 * @param channels the garden's channels; a row belongs to the one with its id, else to the one with its plot and probe
 * @param added flags that every reading gets beside its own: by default that it came from a file
 */
export function readReadingsCsv(
  text: string,
  channels: readonly CsvChannel[],
  onProgress?: (doneFrac: number) => void,
  added: number = FLAGS.imported,
): Result<CsvReadings, CsvIssue> {
  if (!/\S/.test(text)) return fail({ kind: 'empty' });
  if (looksBinary(text)) return fail({ kind: 'binary' });
  const { scan, columns } = opened(text);
  const doubled = columns.find((column, at) => columns.indexOf(column) !== at && isColumn(column));
  if (doubled !== undefined) return fail({ kind: 'doubled-column', column: doubled });
  const missing = missingIn(columns);
  if (missing) return fail({ kind: 'missing-column', column: missing });
  const readRow = rowReader(columns, channels);
  const found = new Map<string, DayColumns>();
  const problems: RowProblem[] = [];
  let rows = 0;
  let wrong = 0;
  while (wrong < MOST_WRONG && scan.next()) {
    if (rows % PROGRESS_EVERY === 0) onProgress?.(scan.doneFrac);
    rows += 1;
    const read = readRow(scan.line, scan.cells);
    if ('kind' in read) {
      wrong += 1;
      if (wrong <= MOST_PROBLEMS) problems.push(read);
      continue;
    }
    const to = found.get(read.channelId) ?? new DayColumns();
    found.set(read.channelId, to);
    to.add(read.timeMs, read.raw, read.flags | added);
  }
  if (rows === 0) return fail({ kind: 'no-rows' });
  onProgress?.(1);
  return wrong > 0
    ? fail({ kind: 'rows', problems, more: wrong - problems.length })
    : ok([...found].flatMap(([channelId, of]) => of.days(channelId)));
}

/** The columns that the first record names, and the records behind it. */
function opened(text: string) {
  const body = text.startsWith('\ufeff') ? text.slice(1) : text;
  const firstLine = /^\s*([^\r\n]*)/.exec(body)?.[1] ?? '';
  const scan = new CsvScan(body, firstLine.includes(';') ? ';' : ',');
  const columns = scan.next() ? scan.cells.map((cell) => cell.trim().toLowerCase()) : [];
  return { scan, columns };
}

function missingIn(columns: readonly string[]): Column | undefined {
  const has = (column: Column) => columns.includes(column);
  const needed: Column[] = ['time', 'raw', ...(has('plot') && has('probe') ? [] : (['channel'] as const))];
  return needed.find((column) => !has(column));
}

/** Whether a text begins as a readings CSV does; any other table may still be read by its columns. */
export const isReadingsCsv = (text: string): boolean => missingIn(opened(text).columns) === undefined;

const isColumn = (column: string): boolean => (COLUMNS as readonly string[]).includes(column);

const ISO_TIME = z.core.regexes.datetime({ offset: true });

function rowReader(columns: readonly string[], channels: readonly CsvChannel[]) {
  const place = Object.fromEntries(COLUMNS.map((column) => [column, columns.indexOf(column)])) as Readonly<
    Record<Column, number>
  >;
  const find = channelFinder(channels);
  const timeOf = timeReader();
  return (
    row: number,
    cells: readonly string[],
  ):
    | RowProblem
    | {
        readonly channelId: string;
        readonly timeMs: number;
        readonly raw: number;
        readonly flags: number;
      } => {
    const cell = (column: Column) => trimmed(cells[place[column]] ?? '');
    const rawText = cell('raw');
    const raw = readNumber(rawText);
    if (raw.kind === 'decimal-comma') return { kind: 'decimal-comma', row, text: rawText };
    if (cells.length !== columns.length) {
      // One column too many in a comma file is nearly always "12,5" cut in two.
      const cutInTwo =
        cells.length > columns.length &&
        cells.slice(1).some((part, at) => /^\d+$/.test(part) && /^-?\d+$/.test(cells[at] ?? ''));
      return cutInTwo
        ? { kind: 'decimal-comma', row, text: cells.join(',') }
        : { kind: 'columns', row, found: cells.length, wanted: columns.length };
    }
    if (raw.kind === 'not-finite' || (raw.kind === 'number' && Math.abs(raw.value) > MOST_VALUE))
      return { kind: 'value-range', row, text: rawText };
    if (raw.kind !== 'number') return { kind: 'cell', row, column: 'raw', text: rawText };
    const timeText = cell('time');
    const timeMs = timeOf(timeText);
    if (timeMs === null) return { kind: 'cell', row, column: 'time', text: timeText };
    if (!isMoment(timeMs)) return { kind: 'time-range', row, text: timeText };
    const flags = readFlags(cell('flags'));
    if (flags === null) return { kind: 'cell', row, column: 'flags', text: cell('flags') };
    const channelId = find(cell('channel')) ?? find(cell('plot'), cell('probe'));
    if (channelId === null)
      return {
        kind: 'unknown-channel',
        row,
        channel: cell('channel') || `${cell('plot')}, ${cell('probe')}`,
      };
    return { channelId, timeMs: Math.round(timeMs), raw: raw.value, flags };
  };
}

/** ms since 1970, wherever it lies; null for a text that is no time with its offset. */
function timeOf(text: string): number | null {
  if (/^\d+(\.\d+)?$/.test(text)) return momentOf(Number(text)) ?? Number.NEGATIVE_INFINITY;
  if (text.length > 40 || !ISO_TIME.test(text)) return null;
  const ms = Date.parse(text);
  return Number.isNaN(ms) ? null : ms;
}

/** "2026-05-03T" and "2026-05-03T06:30:05.000Z" */
const [DATE_LENGTH, EXPORTED_LENGTH] = [11, 24];

/** Reads times as `timeOf` does; of a day that was read before only the clock time is read anew, as it stands in a file of this program. */
function timeReader(): (text: string) => number | null {
  let [date, dayMs] = ['', 0];
  return (text) => {
    const isExported = text.length === EXPORTED_LENGTH && text.charAt(19) === '.' && text.charAt(23) === 'Z';
    if (isExported && date !== '' && text.startsWith(date)) {
      const ms = clockMsAt(text, DATE_LENGTH, true) + digitsAt(text, 20, 3);
      if (!Number.isNaN(ms)) return dayMs + ms;
    }
    const ms = timeOf(text);
    if (isExported && ms !== null) [date, dayMs] = [text.slice(0, DATE_LENGTH), dayOf(ms)];
    return ms;
  };
}

function readFlags(text: string): number | null {
  if (text === '') return 0;
  let flags = 0;
  for (const word of text.split(/ +/, FLAG_NAMES.length + 1)) {
    const bit = FLAG_NAMES.find(([flag]) => flag === word)?.[1];
    if (bit === undefined) return null;
    flags |= bit;
  }
  return flags;
}

/** Finds a channel by its id, or by its plot and probe. */
function channelFinder(channels: readonly CsvChannel[]) {
  const byId = new Set(channels.map((channel) => channel.id));
  const byName = new Map(channels.map((channel) => [`${channel.plot}\n${channel.probe}`, channel.id]));
  return (of: string, probe?: string): string | null =>
    probe === undefined
      ? byId.has(of)
        ? of
        : null
      : (byName.get(`${unguardCell(of)}\n${unguardCell(probe)}`) ?? null);
}

/** Trimmed where there is anything to trim. */
function trimmed(cell: string): string {
  const [first, last] = [cell.charCodeAt(0), cell.charCodeAt(cell.length - 1)];
  return first > 32 && first < 128 && last > 32 && last < 128 ? cell : cell.trim();
}
