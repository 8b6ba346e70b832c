/**
 * CSV (RFC 4180) out and in. Own code rather than a package because a row must know its line in the file, blank lines and mixed line ends
 * included, and because no file may take more than linear time.
 *
 * A text that a spreadsheet would run as a formula gets an apostrophe in front when it is written and loses it when it is read.
 */

/** What a spreadsheet takes for a formula, with any apostrophes that stand in front already. */
const FORMULA = /^'*[=+\-@\t\r]/;
const GUARDED = /^'+[=+\-@\t\r]/;
const PLAIN_NUMBER = /^[+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?$/i;

/** A text as it may stand in a cell: harmless to a spreadsheet. Numbers stay numbers. */
export const guardCell = (text: string): string =>
  FORMULA.test(text) && !PLAIN_NUMBER.test(text) ? `'${text}` : text;

/** The text that was guarded. */
export const unguardCell = (cell: string): string => (GUARDED.test(cell) ? cell.slice(1) : cell);

export type Cell = string | number | null;

const quoted = (text: string): string =>
  /[",\r\n]/.test(text) || text !== text.trim() ? `"${text.replaceAll('"', '""')}"` : text;

/** Cells side by side; null is an empty one. */
export const csvCells = (cells: readonly Cell[]): string =>
  cells
    .map((cell) => (cell === null ? '' : typeof cell === 'number' ? String(cell) : quoted(guardCell(cell))))
    .join(',');

/** One row with its line end. */
export const csvRow = (cells: readonly Cell[]): string => `${csvCells(cells)}\r\n`;

export const writeCsv = (header: readonly string[], rows: readonly (readonly Cell[])[]): string =>
  csvRow(header) + rows.map(csvRow).join('');

export type CsvRecord = {
  /** Line of the file on which the record begins, from 1. */
  readonly line: number;
  readonly cells: readonly string[];
  /** Share of the text that has been read, 0..1. */
  readonly doneFrac: number;
};

/** The records of a text one by one, as `CsvScan` finds them. */
export function* csvRecords(text: string, delimiter: string): Generator<CsvRecord> {
  const scan = new CsvScan(text, delimiter);
  while (scan.next()) yield { line: scan.line, cells: [...scan.cells], doneFrac: scan.doneFrac };
}

/**
 * Finds the records of a text one behind the other; blank lines are passed over and counted. Lines may end in CRLF, LF or CR, also mixed. A quoted cell with no
 * closing quote anywhere behind it ends with its line. Where there may be a million, nothing is made anew for each: the cells are to be read before the next.
 */
export class CsvScan {
  /** Line of the file on which the record begins, from 1. */
  line = 0;
  /** Of the record found last; the same list for every record. */
  readonly cells: string[] = [];
  private at = 0;
  private nextLine = 1;
  private readonly delimiter: number;

  constructor(
    private readonly text: string,
    delimiter: string,
  ) {
    this.delimiter = delimiter.charCodeAt(0);
  }

  /** Share of the text that has been read, 0..1. */
  get doneFrac(): number {
    return Math.min(1, this.at / this.text.length);
  }

  /** Goes on to the next record; false where there is none. */
  next(): boolean {
    const { text, cells } = this;
    while (this.at < text.length) {
      const code = text.charCodeAt(this.at);
      if (code === LF || code === CR) this.endLine(code);
      else {
        this.readRecord();
        if (cells.length > 1 || (cells[0] ?? '').trim() !== '') return true;
      }
    }
    return false;
  }

  private readRecord(): void {
    const { text, cells, delimiter } = this;
    this.line = this.nextLine;
    let count = 0;
    for (;;) {
      cells[count] = this.readCell();
      count += 1;
      if (count === MOST_CELLS) this.at = lineEnd(text, this.at);
      if (this.at >= text.length || text.charCodeAt(this.at) !== delimiter) break;
      this.at += 1;
    }
    if (cells.length !== count) cells.length = count;
    this.endLine(text.charCodeAt(this.at));
  }

  private readCell(): string {
    const { text } = this;
    let cell = '';
    if (text.charCodeAt(this.at) === QUOTE) {
      const quoted = quotedCell(text, this.at);
      cell = quoted.cell;
      this.nextLine += quoted.lines;
      this.at = quoted.end;
    }
    // What follows a closing quote up to the separator belongs to the cell, as people and programs write it.
    const end = plainEnd(text, this.at, this.delimiter);
    const rest = text.slice(this.at, end);
    this.at = end;
    return cell + rest;
  }

  private endLine(code: number): void {
    this.at += code === CR && this.text.charCodeAt(this.at + 1) === LF ? 2 : 1;
    this.nextLine += 1;
  }
}

/** No table here has so many columns; the rest of such a line is passed over. */
const MOST_CELLS = 1000;
const QUOTE = 34;
const LF = 10;
const CR = 13;

/** Where an unquoted cell ends: at the delimiter, a line end or the end of the text. */
function plainEnd(text: string, from: number, delimiter: number): number {
  let at = from;
  for (; at < text.length; at += 1) {
    const code = text.charCodeAt(at);
    if (code === delimiter || code === LF || code === CR) break;
  }
  return at;
}

/** A cell in quotes that begins at `from`: its text, where it ends, and how many line ends lie in it. */
function quotedCell(text: string, from: number): { cell: string; end: number; lines: number } {
  let at = text.indexOf('"', from + 1);
  while (at >= 0 && text.charCodeAt(at + 1) === QUOTE) at = text.indexOf('"', at + 2);
  // Never closed: the rest of the file must not vanish into one cell.
  const close = at < 0 ? lineEnd(text, from + 1) : at;
  const cell = text.slice(from + 1, close).replaceAll('""', '"');
  return { cell, end: at < 0 ? close : close + 1, lines: lineEndsIn(cell) };
}

function lineEndsIn(cell: string): number {
  let ends = 0;
  for (let at = 0; at < cell.length; at += 1) {
    const code = cell.charCodeAt(at);
    if (code === LF || (code === CR && cell.charCodeAt(at + 1) !== LF)) ends += 1;
  }
  return ends;
}

function lineEnd(text: string, from: number): number {
  let at = from;
  while (at < text.length && text.charCodeAt(at) !== LF && text.charCodeAt(at) !== CR) at += 1;
  return at;
}
