/** All readings of a table by its layout, or what is wrong with its rows. Cannot throw. */
import { CsvScan } from '../records/csv.ts';
import { DayColumns } from '../records/dayColumns.ts';
import { FLAGS, type DayBlock } from '../records/series.ts';
import { MOST_VALUE } from '../signal/line.ts';
import { firstHourOf, type FirstHour } from './firstHour.ts';
import { isReadable, roleColumns, rowName, type Layout } from './layout.ts';
import { isNothing, numberBy, splitUnit, type Decimal } from './numberForm.ts';
import { rowTimes, type TimeProblem } from './rowTime.ts';
import { turned, turnInto, type Recorded, type Turned } from './units.ts';

/** What is wrong with one row; `line` is its line in the file. */
export type TableProblem = { readonly line: number } & (
  | { readonly kind: TimeProblem; readonly text: string }
  | { readonly kind: 'number' | 'value-range'; readonly column: string; readonly text: string }
  | { readonly kind: 'columns'; readonly found: number; readonly wanted: number }
);

/** One reading as it was understood, for a look before anything is kept. */
export type ReadCell = {
  readonly line: number;
  readonly timeMs: number;
  readonly channelId: string;
  readonly raw: number;
};

export type TableRead = {
  /** By channel and day, times rising; equal ones in the order of the table. */
  readonly days: readonly DayBlock[];
  readonly readings: number;
  readonly rows: number;
  /** Cells in which nothing was measured. */
  readonly nothing: number;
  /** Rows of names that are taken in nowhere. */
  readonly otherNames: ReadonlyMap<string, number>;
  readonly first: readonly ReadCell[];
  readonly problems: readonly TableProblem[];
  /** Wrong rows beyond those. */
  readonly more: number;
  readonly fromMs: number | null;
  readonly toMs: number | null;
  /** Which hour the first row was taken for, where its hour came twice. */
  readonly firstHour: FirstHour;
};

export type RecordedAs = Recorded & { readonly id: string };

const FIRST = 40;
const MOST_PROBLEMS = 10;
const MOST_NAMES = 200;
const PROGRESS_EVERY = 20_000;

/**
 * @param channels of the garden, with the unit of their recorded numbers
 * @param most rows that are read at most, for a look at the first ones
 */
export function readTable(
  text: string,
  layout: Layout,
  channels: readonly RecordedAs[],
  { onProgress, most = Infinity }: { onProgress?: (doneFrac: number) => void; most?: number } = {},
): TableRead {
  const kept = new Map<string, DayColumns>();
  const targetsOf = targetsIn(layout, channels, kept);
  const body = withoutMark(text);
  const isChatter = chatterOf(layout);
  const isRow = (line: number, cells: readonly string[]) => line > layout.headerLine && !isChatter(cells);
  const firstHour = firstHourOf(body, layout, isRow);
  const timeOf = rowTimes(layout, firstHour === 'further');
  const otherNames = new Map<string, number>();
  const [first, problems]: [ReadCell[], TableProblem[]] = [[], []];
  let [rows, nothing, wrong, readings, fromMs, toMs] = [0, 0, 0, 0, Infinity, -Infinity];
  const wrongRow = (problem: TableProblem) => {
    wrong += 1;
    if (problems.length < MOST_PROBLEMS) problems.push(problem);
  };
  // A file that was cut off ends within a row.
  const isWhole = /[\r\n]$/.test(text);
  const readRow = (line: number, cells: readonly string[], isLast: boolean): void => {
    const isOdd = cells.length !== layout.columns.length && !isShort(cells, layout);
    if (isOdd || (isLast && !isWhole && cells.length < layout.columns.length)) {
      wrongRow({ kind: 'columns', line, found: cells.length, wanted: layout.columns.length });
      return;
    }
    const timeMs = timeOf(cells);
    if (typeof timeMs !== 'number') {
      wrongRow({ kind: timeMs.problem, line, text: timeMs.text });
      return;
    }
    const targets = targetsOf(cells);
    for (const { at, column, channelId, turn, to } of targets.known) {
      const cell = cells[at] ?? '';
      const raw = readCell(cell, turn, layout.decimal);
      if (raw === 'nothing') nothing += 1;
      else if (typeof raw === 'string') {
        wrongRow({ kind: raw, line, column, text: cell });
        return;
      } else {
        to.add(timeMs, raw, FLAGS.imported);
        readings += 1;
        if (timeMs < fromMs) fromMs = timeMs;
        if (timeMs > toMs) toMs = timeMs;
        if (first.length < FIRST) first.push({ line, timeMs, channelId, raw });
      }
    }
    const { other } = targets;
    if (other !== null && (otherNames.size < MOST_NAMES || otherNames.has(other)))
      otherNames.set(other, (otherNames.get(other) ?? 0) + 1);
  };
  const scan = new CsvScan(isReadable(layout) ? body : '', layout.delimiter);
  while (rows < most && scan.next()) {
    const { line, cells } = scan;
    if (!isRow(line, cells)) continue;
    if (rows % PROGRESS_EVERY === 0) onProgress?.(scan.doneFrac);
    rows += 1;
    readRow(line, cells, scan.doneFrac === 1);
  }
  onProgress?.(1);
  return {
    days: [...kept].flatMap(([channelId, of]) => of.days(channelId)),
    readings,
    rows,
    nothing,
    otherNames,
    first,
    problems,
    more: wrong - problems.length,
    fromMs: readings === 0 ? null : fromMs,
    toMs: readings === 0 ? null : toMs,
    firstHour,
  };
}

export const withoutMark = (text: string): string => (text.startsWith('\ufeff') ? text.slice(1) : text);

/** Tells comments, and the header again, as a logger writes it at each of its starts. */
function chatterOf({ columns }: Layout): (cells: readonly string[]) => boolean {
  const names = columns.map(({ name }) => name);
  const isHeader = (cells: readonly string[]) =>
    cells.length === names.length && cells.every((one, at) => one.trim() === names[at]);
  const hasDigit = startsWithDigit(names[0] ?? '');
  return (cells) => {
    const cell = cells[0] ?? '';
    // Most rows begin with their time.
    if (!hasDigit && startsWithDigit(cell)) return false;
    return cell.trimStart().startsWith('#') || isHeader(cells);
  };
}

function startsWithDigit(text: string): boolean {
  const code = text.charCodeAt(0);
  return code >= 48 && code <= 57;
}

/** A spreadsheet leaves out empty cells at the end of a row, or writes one too many. */
function isShort(cells: readonly string[], { columns }: Layout): boolean {
  if (cells.length > columns.length) return cells.slice(columns.length).every((cell) => cell.trim() === '');
  return columns
    .slice(cells.length)
    .every(({ role }) => role.kind === 'leave-out' || role.kind === 'channel');
}

/** Where the number of a cell goes. */
type Target = {
  readonly at: number;
  /** Its name. */
  readonly column: string;
  readonly channelId: string;
  readonly turn: Turned;
  readonly to: DayColumns;
};
type Targets = {
  readonly known: readonly Target[];
  /** A name that is taken in nowhere. */ readonly other: string | null;
};

/** Which cells of a row are readings, and of what. @param kept gets the rows of each channel */
function targetsIn(
  layout: Layout,
  channels: readonly RecordedAs[],
  kept: Map<string, DayColumns>,
): (cells: readonly string[]) => Targets {
  const recorded = new Map(channels.map((channel) => [channel.id, channel]));
  const target = (at: number, column: string, channelId: string, unit: string | null): Target[] => {
    const channel = recorded.get(channelId);
    const turn = channel ? turnInto(unit, channel) : null;
    if (!turn) return [];
    const to = kept.get(channelId) ?? new DayColumns();
    kept.set(channelId, to);
    return [{ at, column, channelId, turn, to }];
  };
  const wide = layout.columns.flatMap(({ name, role }, at) =>
    role.kind === 'channel' ? target(at, name, role.channelId, role.unit) : [],
  );
  const always: Targets = { known: wide, other: null };
  const nameAt = roleColumns(layout, 'name');
  const [valueAt] = roleColumns(layout, 'value');
  if (valueAt === undefined || nameAt.length === 0) return () => always;
  const column = layout.columns[valueAt]?.name ?? '';
  const byName = new Map(
    Object.entries(layout.names).flatMap(([name, { channelId, unit }]) =>
      target(valueAt, column, channelId, unit).map((one): [string, Targets] => [
        name,
        { known: [...wide, one], other: null },
      ]),
    ),
  );
  return (cells) => {
    const name = rowName(cells, nameAt);
    return byName.get(name) ?? { known: wide, other: name };
  };
}

const PLAIN = /^-?\d{1,15}(?:\.\d{1,12})?$/;

function readCell(
  cell: string,
  turn: Turned,
  decimal: Decimal,
): number | 'nothing' | 'number' | 'value-range' {
  const isPlain = decimal === '.' && PLAIN.test(cell);
  const number = isPlain ? cell : (splitUnit(cell)?.number ?? null);
  if (number === null) return isNothing(cell) ? 'nothing' : 'number';
  const value = isPlain ? Number(number) : numberBy(number, decimal);
  if (value === null) return 'number';
  const raw = turned(value, turn);
  return Math.abs(raw) > MOST_VALUE ? 'value-range' : raw;
}
