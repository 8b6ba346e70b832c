/** Rows of a table from its beginning and from all along it: what a guess goes by, without reading a million rows. */
import { csvRecords } from '../records/csv.ts';
import { readDateCell } from './dateText.ts';
import type { Delimiter } from './layout.ts';
import { isNothing, numberBy, splitUnit } from './numberForm.ts';
import { unitOf } from './units.ts';

export type SampleRow = { readonly line: number; readonly cells: readonly string[] };

export type Sample = {
  readonly delimiter: Delimiter;
  /** Its rows have more filled cells than it has names: numbers with decimal commas were cut in two. */
  readonly isCut: boolean;
  /** Lines of names: all up to the last of these are no readings; 0 where there is none. */
  readonly headerLine: number;
  readonly header: readonly string[] | null;
  /** How many cells a row has. */
  readonly width: number;
  /** The first rows, one behind the other. */
  readonly head: readonly SampleRow[];
  /** Rows from further places, in their order; their lines are not known. */
  readonly later: readonly (readonly string[])[];
};

const HEAD_ROWS = 600;
/** So many of them are held against a separator. */
const LOOKED_ROWS = 120;
const PLACES = 12;
const ROWS_AT_PLACE = 60;
const MOST_LINE = 4000;

/** Cells that are a date, a time of day or both. */
export const isWhen = (cell: string): boolean => readDateCell(cell) !== null;

/** Cells that are a number by either mark, with or without a unit. */
export function isNumeric(cell: string): boolean {
  const number = splitUnit(cell)?.number;
  return number !== undefined && (numberBy(number, '.') !== null || numberBy(number, ',') !== null);
}

/** The rows under one separator; null where its rows do not look like a table of readings. */
export function sampleBy(
  text: string,
  delimiter: Delimiter,
): { readonly sample: Sample; readonly fits: number } | null {
  const rows: SampleRow[] = [];
  const front = text.slice(0, HEAD_ROWS * MOST_LINE);
  let headEnd = front.length;
  for (const { line, cells, doneFrac } of csvRecords(front, delimiter)) {
    if ((cells[0] ?? '').trimStart().startsWith('#')) continue;
    rows.push({ line, cells });
    headEnd = doneFrac * front.length;
    if (rows.length === HEAD_ROWS) break;
  }
  const width = usualWidth(rows);
  if (width < 2) return null;
  const isData = ({ cells }: SampleRow) =>
    cells.length === width &&
    cells.some((cell) => isNumeric(cell)) &&
    cells.some((cell) => isWhen(cell) || isEpoch(cell));
  let firstData = rows.findIndex(isData);
  if (firstData < 0) return null;
  // Rows with a time in which nothing was measured are rows as well.
  const isTimed = (row: SampleRow | undefined): boolean =>
    row?.cells.length === width && row.cells.some((cell) => isWhen(cell) || isEpoch(cell));
  while (isTimed(rows[firstData - 1])) firstData -= 1;
  const behind = rows[firstData - 1];
  // Where the names stand more than once, the readings begin behind the first of them.
  const before = behind && rows.find(({ cells }) => cells.join('\n') === behind.cells.join('\n'));
  const isWords = ({ cells }: SampleRow) =>
    cells.length >= width - 1 && !cells.some((cell) => isWhen(cell) || isNumeric(cell));
  const isHeader = before !== undefined && isWords(before);
  const names = isHeader ? before.cells.join('\n') : null;
  // A logger that starts again writes its header again.
  const isNames = (cells: readonly string[]) => cells.join('\n') === names;
  const head = rows.filter(({ line }) => line > (before?.line ?? 0)).filter(({ cells }) => !isNames(cells));
  const header = isHeader ? namesOf(rows, before, isWords) : null;
  const looked = head.slice(0, LOOKED_ROWS);
  const fitting = looked.filter(isData).length / looked.length;
  return {
    sample: {
      delimiter,
      headerLine: before ? before.line : 0,
      header: header && Array.from({ length: width }, (_, at) => (header[at] ?? '').trim()),
      isCut:
        header !== null &&
        header.length < width &&
        head.some(({ cells }) => (cells[width - 1] ?? '').trim() !== ''),
      width,
      head,
      later: laterRows(text.slice(headEnd), delimiter, width).filter((cells) => !isNames(cells)),
    },
    fits: fitting + width / 10_000,
  };
}

const isEpoch = (cell: string): boolean =>
  /^\d{9,19}(?:\.\d+)?$/.test(cell.trim()) || /^\d{5}[.,]\d+$/.test(cell.trim());

/** The names of the columns; where a row of units stands below them, each with its own. */
function namesOf(
  rows: readonly SampleRow[],
  last: SampleRow,
  isWords: (row: SampleRow) => boolean,
): readonly string[] {
  const above = rows[rows.indexOf(last) - 1];
  const isUnits = last.cells.every(
    (cell) => cell.trim() === '' || unitOf(cell.replace(/^[([]|[)\]]$/g, '')) !== null,
  );
  if (!isUnits || !above || !isWords(above) || above.cells.length !== last.cells.length) return last.cells;
  return above.cells.map((name, at) => {
    const unit = (last.cells[at] ?? '').trim();
    return unit === '' ? name : `${name.trim()} (${unit.replace(/^[([]|[)\]]$/g, '')})`;
  });
}

function usualWidth(rows: readonly SampleRow[]): number {
  const counts = new Map<number, number>();
  for (const { cells } of rows) counts.set(cells.length, (counts.get(cells.length) ?? 0) + 1);
  return [...counts].toSorted((a, b) => b[1] - a[1])[0]?.[0] ?? 0;
}

/** Rows from places spread over the text, each from the line behind the place. */
function laterRows(text: string, delimiter: Delimiter, width: number): (readonly string[])[] {
  const found: (readonly string[])[] = [];
  for (let place = 1; place <= PLACES; place += 1) {
    const about = Math.floor((text.length * place) / PLACES) - (place === PLACES ? ROWS_AT_PLACE * 80 : 0);
    const from = text.indexOf('\n', Math.max(0, about));
    if (from < 0) continue;
    let rows = 0;
    for (const { cells } of csvRecords(
      text.slice(from + 1, from + 1 + ROWS_AT_PLACE * MOST_LINE),
      delimiter,
    )) {
      if (cells.length === width) found.push(cells);
      rows += 1;
      if (rows === ROWS_AT_PLACE) break;
    }
  }
  return found;
}

/** Cells of a column of the sample in which something stands. */
export const cellsOf = ({ head, later }: Sample, at: number): string[] =>
  [...head.map(({ cells }) => cells), ...later].flatMap((cells) => {
    const cell = (cells[at] ?? '').trim();
    return isNothing(cell) ? [] : [cell];
  });
