/** All readings of a table by its layout, or what is wrong with its rows. Cannot throw. */
import { csvRecords } from '../records/csv.ts';
import { DAY_MS, dayOf, FLAGS, type DayBlock } from '../records/series.ts';
import { MOST_VALUE } from '../signal/line.ts';
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
};

export type RecordedAs = Recorded & { readonly id: string };

const FIRST = 40;
const MOST_PROBLEMS = 10;
const MOST_NAMES = 200;
const PROGRESS_EVERY = 5000;

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
  const cellReader = readersOf(layout, channels);
  const timeOf = rowTimes(layout);
  const kept = new Map<string, Rows>();
  const otherNames = new Map<string, number>();
  const [first, problems]: [ReadCell[], TableProblem[]] = [[], []];
  let [rows, nothing, wrong, readings, fromMs, toMs] = [0, 0, 0, 0, Infinity, -Infinity];
  const header = layout.columns.map(({ name }) => name).join('\n');
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
    const time = timeOf(cells);
    if ('problem' in time) {
      wrongRow({ kind: time.problem, line, text: time.text });
      return;
    }
    for (const read of cellReader(cells)) {
      if (read.kind === 'nothing') nothing += 1;
      else if (read.kind === 'other-name') {
        if (otherNames.size < MOST_NAMES || otherNames.has(read.name))
          otherNames.set(read.name, (otherNames.get(read.name) ?? 0) + 1);
      } else if (read.kind === 'wrong') {
        wrongRow({ kind: read.why, line, column: read.column, text: read.text });
        return;
      } else {
        const { channelId, raw } = read;
        const to = kept.get(channelId) ?? new Rows();
        kept.set(channelId, to);
        to.add(time.ms, raw);
        readings += 1;
        fromMs = Math.min(fromMs, time.ms);
        toMs = Math.max(toMs, time.ms);
        if (first.length < FIRST) first.push({ line, timeMs: time.ms, channelId, raw });
      }
    }
  };
  if (isReadable(layout))
    for (const { line, cells, doneFrac } of csvRecords(withoutMark(text), layout.delimiter)) {
      if (line <= layout.headerLine || isChatter(cells, header)) continue;
      if (rows === most) break;
      if (rows % PROGRESS_EVERY === 0) onProgress?.(doneFrac);
      rows += 1;
      readRow(line, cells, doneFrac === 1);
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
  };
}

export const withoutMark = (text: string): string => (text.startsWith('\ufeff') ? text.slice(1) : text);

/** A comment, or the header again, as a logger writes it at each of its starts. */
const isChatter = (cells: readonly string[], header: string): boolean =>
  (cells[0] ?? '').trimStart().startsWith('#') ||
  ((cells[0] ?? '').trim() === header.slice(0, header.indexOf('\n')) &&
    cells.map((cell) => cell.trim()).join('\n') === header);

/** A spreadsheet leaves out empty cells at the end of a row, or writes one too many. */
function isShort(cells: readonly string[], { columns }: Layout): boolean {
  if (cells.length > columns.length) return cells.slice(columns.length).every((cell) => cell.trim() === '');
  return columns
    .slice(cells.length)
    .every(({ role }) => role.kind === 'leave-out' || role.kind === 'channel');
}

type CellRead =
  | { readonly kind: 'reading'; readonly channelId: string; readonly raw: number }
  | { readonly kind: 'nothing' }
  | { readonly kind: 'other-name'; readonly name: string }
  | {
      readonly kind: 'wrong';
      readonly why: 'number' | 'value-range';
      readonly column: string;
      readonly text: string;
    };

function readersOf(
  layout: Layout,
  channels: readonly RecordedAs[],
): (cells: readonly string[]) => CellRead[] {
  const recorded = new Map(channels.map((channel) => [channel.id, channel]));
  const turnOf = (channelId: string, unit: string | null): Turned | null => {
    const channel = recorded.get(channelId);
    return channel ? turnInto(unit, channel) : null;
  };
  const wide = layout.columns.flatMap(({ name, role }, at) => {
    const turn = role.kind === 'channel' ? turnOf(role.channelId, role.unit) : null;
    return role.kind === 'channel' && turn ? [{ at, name, channelId: role.channelId, turn }] : [];
  });
  const nameAt = roleColumns(layout, 'name');
  const [valueAt] = roleColumns(layout, 'value');
  const byName = new Map(
    Object.entries(layout.names).flatMap(([name, { channelId, unit }]) => {
      const turn = turnOf(channelId, unit);
      return turn ? [[name, { channelId, turn }] as const] : [];
    }),
  );
  return (cells) => {
    const found = wide.map(({ at, name, channelId, turn }) =>
      readCell(cells[at] ?? '', name, channelId, turn, layout.decimal),
    );
    if (valueAt === undefined || nameAt.length === 0) return found;
    const name = rowName(cells, nameAt);
    const target = byName.get(name);
    if (!target) return [...found, { kind: 'other-name', name }];
    const column = layout.columns[valueAt]?.name ?? '';
    return [...found, readCell(cells[valueAt] ?? '', column, target.channelId, target.turn, layout.decimal)];
  };
}

const PLAIN = /^-?\d{1,15}(?:\.\d{1,12})?$/;

function readCell(cell: string, column: string, channelId: string, turn: Turned, decimal: Decimal): CellRead {
  const isPlain = decimal === '.' && PLAIN.test(cell);
  const number = isPlain ? cell : (splitUnit(cell)?.number ?? null);
  if (number === null)
    return isNothing(cell) ? { kind: 'nothing' } : { kind: 'wrong', why: 'number', column, text: cell };
  const value = isPlain ? Number(number) : numberBy(number, decimal);
  if (value === null) return { kind: 'wrong', why: 'number', column, text: cell };
  const raw = turned(value, turn);
  return Math.abs(raw) > MOST_VALUE
    ? { kind: 'wrong', why: 'value-range', column, text: cell }
    : { kind: 'reading', channelId, raw };
}

/** Readings of one channel while they come in. */
class Rows {
  private timesMs = new Float64Array(1024);
  private raw = new Float64Array(1024);
  private count = 0;
  private isRising = true;

  add(timeMs: number, raw: number): void {
    if (this.count === this.raw.length) {
      this.timesMs = grown(this.timesMs);
      this.raw = grown(this.raw);
    }
    const before = this.count === 0 ? null : (this.timesMs[this.count - 1] ?? 0);
    if (before !== null && timeMs < before) this.isRising = false;
    this.timesMs[this.count] = timeMs;
    this.raw[this.count] = raw;
    this.count += 1;
  }

  days(channelId: string): DayBlock[] {
    const order = this.isRising ? null : this.order();
    const rowAt = (at: number): number => order?.[at] ?? at;
    const blocks: DayBlock[] = [];
    for (let from = 0; from < this.count;) {
      const dayMs = dayOf(this.timesMs[rowAt(from)] ?? 0);
      let to = from;
      while (to < this.count && (this.timesMs[rowAt(to)] ?? 0) < dayMs + DAY_MS) to += 1;
      const block = emptyBlock(channelId, dayMs, to - from);
      for (let at = from; at < to; at += 1) {
        const row = rowAt(at);
        block.offsetsMs[at - from] = (this.timesMs[row] ?? 0) - dayMs;
        block.raw[at - from] = this.raw[row] ?? 0;
      }
      blocks.push(block);
      from = to;
    }
    return blocks;
  }

  /** Rows by time; equal times as they came. */
  private order(): Uint32Array {
    const order = Uint32Array.from({ length: this.count }, (_, at) => at);
    return order.sort((a, b) => (this.timesMs[a] ?? 0) - (this.timesMs[b] ?? 0) || a - b);
  }
}

const emptyBlock = (channelId: string, dayMs: number, rows: number): DayBlock => ({
  channelId,
  dayMs,
  offsetsMs: new Uint32Array(rows),
  raw: new Float64Array(rows),
  flags: new Uint8Array(rows).fill(FLAGS.imported),
});

function grown(column: Float64Array<ArrayBuffer>): Float64Array<ArrayBuffer> {
  const larger = new Float64Array(column.length * 2);
  larger.set(column);
  return larger;
}
