/**
 * How a table is most likely to be read, and what it leaves open. Nothing that could be meant in two ways is decided here: which number of a date is the day, whether a mark
 * parts thousands or decimals, which channel a column is of. Those are questions.
 */
import { fail, ok, type Result } from '../quantity/result.ts';
import { momentOf } from '../quantity/moment.ts';
import { csvRecords } from '../records/csv.ts';
import { looksBinary } from '../signal/serialLog.ts';
import { columnOf, matchChannel, type NamedChannel } from './columnNames.ts';
import { orderOf, readDateCell, type DatedRow, type DateOrder, type OrderVerdict } from './dateText.ts';
import {
  DELIMITERS,
  isReadable,
  rowName,
  type Column,
  type Guess,
  type Layout,
  type LeftOut,
  type Question,
  type Role,
  type Target,
  type TimeForm,
} from './layout.ts';
import { decimalOf, numberBy, splitUnit, type Decimal } from './numberForm.ts';
import { readTable, withoutMark } from './readTable.ts';
import { cellsOf, isNumeric, isWhen, sampleBy, type Sample } from './sample.ts';
import { PRINTED, turnInto, unitOf } from './units.ts';

export type NoTable = 'empty' | 'binary' | 'no-table' | 'no-time' | 'cut';

export type GuessContext = {
  readonly channels: readonly NamedChannel[];
  /** The garden's own. */
  readonly timeZone: string;
  readonly nowMs: number;
};

/** @returns a layout with its open questions, or why the text is no table of readings. Cannot throw. */
export function guessTable(whole: string, context: GuessContext): Result<Guess, NoTable> {
  const text = withoutMark(whole);
  if (!/\S/.test(text)) return fail('empty');
  if (looksBinary(text)) return fail('binary');
  const samples = DELIMITERS.flatMap((delimiter) => sampleBy(text, delimiter) ?? []);
  const [best] = samples.toSorted((a, b) => b.fits - a.fits);
  if (!best) return fail('no-table');
  if (best.sample.isCut) return fail('cut');
  return guessOf(text, best.sample, context);
}

const TIME_HEADER = /time|date|stamp|zeit|datum|when|epoch|unix|utc|heure|fecha|^ts$|^at$|created|taken/i;
/** So many cells of a column tell of which sort it is. */
const SORTED_CELLS = 120;
/** A column is of a sort when so much of it is; of one that is mostly numbers the rest is wrong cells, which are told. */
const MOSTLY = 0.9;
const HALF = 0.6;

function guessOf(text: string, sample: Sample, context: GuessContext): Result<Guess, NoTable> {
  const names = Array.from({ length: sample.width }, (_, at) => sample.header?.[at] ?? '');
  const cells = names.map((_, at) => cellsOf(sample, at));
  const some = cells.map((all) => all.filter((_, at) => at % Math.ceil(all.length / SORTED_CELLS) === 0));
  const share = (at: number, is: (cell: string) => boolean): number => {
    const all = some[at] ?? [];
    return all.length === 0 ? 0 : all.filter(is).length / all.length;
  };
  const when = timeColumns(names, share, sample);
  if (!when) return fail('no-time');
  const isTimeColumn = (at: number) => when.all.includes(at);
  const numeric = names.flatMap((_, at) => (!isTimeColumn(at) && share(at, isNumeric) >= HALF ? [at] : []));
  const numbers = numeric.flatMap((at) => (cells[at] ?? []).flatMap((cell) => splitUnit(cell)?.number ?? []));
  const decimal = decimalOf(numbers, sample.delimiter === ',');
  const questions: Question[] = [];
  if (decimal.kind === 'unsure') questions.push({ kind: 'decimal', example: decimal.example });
  const mark: Decimal =
    decimal.kind === 'sure'
      ? decimal.decimal
      : decimal.kind === 'unsure' && decimal.example.includes(',')
        ? ','
        : '.';
  const time = timeForm(text, sample, when, context.nowMs);
  if (time === null) return fail('no-time');
  if ('orders' in time) questions.push({ kind: 'order', ...time });
  if (when.others.length > 0) questions.push({ kind: 'which-time', columns: [when.at, ...when.others] });
  if (when.kind === 'day') questions.push({ kind: 'day-only' });
  const taken = channelsOf(sample, { names, cells, numeric, mark, when }, context);
  questions.push(...taken.questions);
  const roles = names.map((_, at): Role => {
    if (at === when.at) return { kind: when.kind === 'time' ? 'time' : 'day' };
    if (at === when.clockAt) return { kind: 'clock' };
    return taken.roles.get(at) ?? { kind: 'leave-out' };
  });
  const layout: Layout = {
    delimiter: sample.delimiter,
    headerLine: sample.headerLine,
    columns: names.map((name, at): Column => ({ name, role: roles[at] ?? { kind: 'leave-out' } })),
    decimal: mark,
    time: 'orders' in time ? (time.orders[0] ?? 'dmy') : time.form,
    timeZone: zoneOf(names[when.at] ?? '', names[when.clockAt] ?? '') ?? context.timeZone,
    isFalling: false,
    names: taken.names,
  };
  return ok({
    layout: { ...layout, isFalling: isFalling(text, layout, context.channels) },
    questions,
    leftOut: taken.leftOut,
  });
}

type When = {
  readonly kind: 'time' | 'day' | 'day-and-clock';
  readonly at: number;
  /** -1: none. */
  readonly clockAt: number;
  /** Other columns that hold whole times. */
  readonly others: readonly number[];
  readonly all: readonly number[];
  readonly form: 'written' | 'since-1970' | 'sheet-days';
};

function timeColumns(
  names: readonly string[],
  share: (at: number, is: (cell: string) => boolean) => number,
  sample: Sample,
): When | null {
  const places = names.map((_, at) => at);
  const isFull = (cell: string) => {
    const read = readDateCell(cell);
    return read?.date != null && read.clockMs !== null;
  };
  const isDay = (cell: string) => {
    const read = readDateCell(cell);
    return read?.date != null && read.clockMs === null;
  };
  const isClock = (cell: string) => {
    const read = readDateCell(cell);
    return read !== null && read.date === null;
  };
  const full = places.filter((at) => share(at, isFull) >= MOSTLY);
  // Such numbers are times only where they rise or fall as times do, or their name says so.
  const counted = places.filter(
    (at) =>
      share(
        at,
        (cell) => /^\d{9,19}(?:[.,]\d+)?$/.test(cell) && momentOf(Number(cell.replace(',', '.'))) !== null,
      ) >= MOSTLY &&
      (TIME_HEADER.test(names[at] ?? '') || isOrdered(sample, at)),
  );
  const sheet = places.filter(
    (at) => TIME_HEADER.test(names[at] ?? '') && share(at, isSheetDay) >= MOSTLY && isOrdered(sample, at),
  );
  const days = places.filter((at) => share(at, isDay) >= MOSTLY);
  const clocks = places.filter((at) => share(at, isClock) >= MOSTLY);
  const all = [...full, ...counted, ...sheet, ...days, ...clocks];
  const [whole] = full;
  if (whole !== undefined)
    return {
      kind: 'time',
      at: whole,
      clockAt: -1,
      others: [...full.slice(1), ...counted],
      all,
      form: 'written',
    };
  const [day] = days;
  const [clock] = clocks;
  if (day !== undefined && clock !== undefined && counted.length === 0)
    return {
      kind: 'day-and-clock',
      at: day,
      clockAt: clock,
      others: [...days.slice(1), ...clocks.slice(1)],
      all,
      form: 'written',
    };
  const [count] = counted;
  if (count !== undefined)
    return { kind: 'time', at: count, clockAt: -1, others: counted.slice(1), all, form: 'since-1970' };
  if (day !== undefined)
    return { kind: 'day', at: day, clockAt: -1, others: days.slice(1), all, form: 'written' };
  const [table] = sheet;
  if (table !== undefined)
    return { kind: 'time', at: table, clockAt: -1, others: sheet.slice(1), all, form: 'sheet-days' };
  return null;
}

/** From 2000 up to 2100 in days since the end of 1899, with a part of a day. */
const isSheetDay = (cell: string): boolean =>
  /^\d{5}(?:[.,]\d+)?$/.test(cell) && Number(cell.slice(0, 5)) >= 36_526 && Number(cell.slice(0, 5)) < 73_051;

function isOrdered({ head }: Sample, at: number): boolean {
  const values = head.map(({ cells }) => Number((cells[at] ?? '').replace(',', '.')));
  const steps = values.slice(1).map((value, place) => value - (values[place] ?? 0));
  return steps.length > 0 && (steps.every((step) => step >= 0) || steps.every((step) => step <= 0));
}

type Open = { readonly orders: readonly DateOrder[]; readonly example: string };

/** Dates of so many rows are looked at before the whole table is. */
function timeForm(
  text: string,
  sample: Sample,
  when: When,
  nowMs: number,
): { readonly form: TimeForm } | Open | null {
  if (when.form !== 'written') return { form: when.form };
  const early = orderIn(
    sample.head.map(({ cells }) => cells),
    when,
    nowMs,
  );
  const verdict = early.kind === 'unsure' ? orderIn(allRows(text, sample), when, nowMs) : early;
  if (verdict.kind === 'sure') return { form: verdict.order };
  return verdict.kind === 'unsure' ? { orders: verdict.orders, example: verdict.example } : null;
}

function* allRows(text: string, { delimiter, width, headerLine }: Sample): Generator<readonly string[]> {
  for (const { line, cells } of csvRecords(text, delimiter))
    if (line > headerLine && cells.length === width) yield cells;
}

/** Rows within one date say nothing new: of each date its first three and its last are enough. */
const ROWS_OF_DATE = 3;

function orderIn(rows: Iterable<readonly string[]>, when: When, nowMs: number): OrderVerdict {
  const dated: DatedRow[] = [];
  let allowed: readonly DateOrder[] = ['ymd', 'dmy', 'mdy'];
  let date = '';
  let sameDate = 0;
  let last: DatedRow | null = null;
  for (const cells of rows) {
    const read = readDateCell(cells[when.at] ?? '');
    if (!read?.date) continue;
    const clock = when.clockAt < 0 ? read : readDateCell(cells[when.clockAt] ?? '');
    allowed = allowed.filter((order) => read.orders.includes(order));
    const row: DatedRow = { date: read.date, clockMs: clock?.clockMs ?? null };
    const here = read.date.join('/');
    if (here !== date && last && sameDate > ROWS_OF_DATE) dated.push(last);
    sameDate = here === date ? sameDate + 1 : 1;
    date = here;
    last = row;
    if (sameDate <= ROWS_OF_DATE) dated.push(row);
  }
  if (allowed.length === 0) return { kind: 'none' };
  return orderOf(dated, allowed, nowMs);
}

/** A zone that the name of the time's column tells: "Time (UTC)", "utc", "Date/Time, GMT+02:00". */
function zoneOf(...names: readonly string[]): string | null {
  const text = names.join(' ');
  const offset = /(?:utc|gmt)?\s*([+-])(\d{1,2}):?(\d{2})?\b/i.exec(text);
  if (offset && /utc|gmt|offset|zone/i.test(text))
    return `${offset[1] ?? '+'}${(offset[2] ?? '').padStart(2, '0')}:${offset[3] ?? '00'}`;
  return /(?:^|[^a-z])(?:utc|gmt|zulu)(?:$|[^a-z])/i.test(text) ? 'UTC' : null;
}

type Columns = {
  readonly names: readonly string[];
  readonly cells: readonly (readonly string[])[];
  readonly numeric: readonly number[];
  readonly mark: Decimal;
  readonly when: When;
};

type Taken = {
  readonly roles: ReadonlyMap<number, Role>;
  readonly names: Readonly<Record<string, Target>>;
  readonly questions: readonly Question[];
  readonly leftOut: readonly LeftOut[];
};

/** Rows that name their channel, if the words of a column do; else a channel a column. */
function channelsOf(sample: Sample, of: Columns, context: GuessContext): Taken {
  return byRows(sample, of, context) ?? byColumns(of, context);
}

type Candidate = {
  readonly at: number;
  readonly name: string | null;
  readonly label: string;
  readonly values: readonly number[];
  readonly unit: string | null;
};

function byColumns({ names, cells, numeric, mark, when }: Columns, context: GuessContext): Taken {
  const candidates = numeric.map((at): Candidate => {
    const own = cells[at] ?? [];
    const { name, unit } = columnOf(names[at] ?? '', own);
    return { at, name: null, label: name, values: valuesOf(own, mark), unit };
  });
  const { targets, questions, leftOut } = decide(candidates, context);
  const texts = names.flatMap((name, at): LeftOut[] =>
    numeric.includes(at) || when.all.includes(at) || name === ''
      ? []
      : [{ name, why: 'no-number', unit: null }],
  );
  return {
    roles: new Map(
      [...targets].map(([candidate, target]) => [candidate.at, { kind: 'channel' as const, ...target }]),
    ),
    names: {},
    questions,
    leftOut: [...leftOut, ...texts],
  };
}

/** So many different names may stand in a table. */
const MOST_NAMES = 200;

function byRows(
  sample: Sample,
  { names, cells, numeric, mark, when }: Columns,
  context: GuessContext,
): Taken | null {
  const worded = names.flatMap((_, at) => {
    const own = cells[at] ?? [];
    const different = new Set(own).size;
    const isWord =
      own.length > 0 && own.filter((cell) => !isNumeric(cell) && !isWhen(cell)).length / own.length >= MOSTLY;
    return isWord && !when.all.includes(at) && different <= MOST_NAMES ? [at] : [];
  });
  const unitAt = worded.find((at) => (cells[at] ?? []).every((cell) => unitOf(cell) !== null));
  const naming = worded.filter((at) => at !== unitAt);
  const valueAt =
    numeric.find((at) => /value|reading|raw|state|wert|data|^y$|^v$/i.test(names[at] ?? '')) ?? numeric[0];
  if (naming.length === 0 || valueAt === undefined) return null;
  const groups = new Map<string, { values: string[]; units: Set<string> }>();
  for (const row of [...sample.head.map((one) => one.cells), ...sample.later]) {
    const name = rowName(row, naming);
    const group = groups.get(name) ?? { values: [], units: new Set() };
    groups.set(name, group);
    group.values.push((row[valueAt] ?? '').trim());
    if (unitAt !== undefined) group.units.add((row[unitAt] ?? '').trim());
  }
  const candidates = [...groups].map(([name, { values, units }]): Candidate => {
    const said = columnOf(name, values);
    const [unit = ''] = units.size === 1 ? units : [];
    return {
      at: valueAt,
      name,
      label: said.name,
      values: valuesOf(values, mark),
      unit: unitOf(unit) ?? said.unit,
    };
  });
  const decided = decide(candidates, context);
  // Words that name no channel are remarks: then the columns have it.
  if (decided.targets.size === 0 && decided.questions.length === 0) return null;
  const column = byColumns({ names, cells, numeric, mark, when }, context);
  if (column.roles.size > 1) return null;
  return {
    roles: new Map<number, Role>([
      ...naming.map((at) => [at, { kind: 'name' }] as const),
      [valueAt, { kind: 'value' }],
    ]),
    names: Object.fromEntries(
      [...decided.targets].map(([candidate, target]) => [candidate.name ?? '', target]),
    ),
    questions: decided.questions,
    leftOut: decided.leftOut,
  };
}

const valuesOf = (cells: readonly string[], mark: Decimal): number[] =>
  cells.flatMap((cell) => numberBy(splitUnit(cell)?.number ?? '', mark) ?? []);

/** No converter gives such numbers for soil, nor does soil have so many °C. */
const PERCENT_LIKE = 100;
const MOST_SOIL_C = 45;

function decide(candidates: readonly Candidate[], { channels }: GuessContext) {
  const targets = new Map<Candidate, Target>();
  const questions: Question[] = [];
  const leftOut: LeftOut[] = [];
  const matches = candidates.map((candidate) => ({
    candidate,
    match: matchChannel(candidate.label, channels),
  }));
  for (const { candidate, match } of matches) {
    const { at, name, label, values, unit } = candidate;
    const where = { column: at, name };
    const open = (of: Question) => questions.push(of);
    if (match.kind === 'none') {
      leftOut.push({ name: label, why: 'no-channel', unit: null });
      continue;
    }
    const all = match.kind === 'one' ? [match.id] : match.ids;
    const ids = all.filter((id) => channels.some((one) => one.id === id && turnInto(unit, one) !== null));
    const [id] = ids;
    if (id === undefined) {
      leftOut.push({ name: label, why: 'unit', unit });
      continue;
    }
    const channel = channels.find((one) => one.id === id);
    const rivals = matches.filter((one) => one.match.kind === 'one' && one.match.id === id);
    if (match.kind === 'several' || rivals.length > 1) {
      open({ kind: 'which-channel', ...where, unit, ids });
      continue;
    }
    targets.set(candidate, { channelId: id, unit });
    const most = values.reduce((high, value) => Math.max(high, value), -Infinity);
    if (unit === null && channel?.unit === 'raw counts' && most <= PERCENT_LIKE && values.length > 0)
      open({ kind: 'counts', ...where, channelId: id });
    // What the board printed and what it means are both plain numbers.
    if (unit === null && channel?.meant && channel.unit === PRINTED)
      open({ kind: 'corrected', ...where, channelId: id });
    if (unit === null && channel?.unit === '°C' && most > MOST_SOIL_C)
      open({ kind: 'degrees', ...where, channelId: id });
  }
  return { targets, questions, leftOut };
}

/** How many rows are read to see which way the times run. */
const LOOK_ROWS = 400;

function isFalling(text: string, layout: Layout, channels: readonly NamedChannel[]): boolean {
  if (!isReadable(layout)) return false;
  // As the cells say it: in a night in which clocks are put back the zone needs to know which way the table goes.
  const { first } = readTable(text, { ...layout, timeZone: 'UTC' }, channels, { most: LOOK_ROWS });
  const steps = first.slice(1).map(({ timeMs }, at) => Math.sign(timeMs - (first[at]?.timeMs ?? 0)));
  return steps.reduce((sum, step) => sum + step, 0) < 0;
}
