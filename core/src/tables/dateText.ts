/** Dates and times as other programs' tables write them, and what only the whole column can tell: which of the numbers is the day. */
import { DAY_MS } from '../records/series.ts';
import { isMoment } from '../quantity/moment.ts';

/** In which order a date's numbers stand. */
export type DateOrder = 'ymd' | 'dmy' | 'mdy';

/** A cell taken apart; what it means is up to the order that the whole column has. */
export type DateCell = {
  /** Its three numbers as they stand; null where the cell is a time of day alone. */
  readonly date: readonly [string, string, string] | null;
  /** Orders that its marks allow: a year of four digits, a month by its name, points. */
  readonly orders: readonly DateOrder[];
  /** ms since midnight; null where the cell is a day alone. */
  readonly clockMs: number | null;
  /** How far its own clock says it is ahead of UTC, min; null where it says nothing. */
  readonly offsetMin: number | null;
};

const NUMBERS = /^(\d{1,4})([./-])(\d{1,2})\2(\d{4}|\d{1,2})\.?/;
const DAY_NAMED = /^(\d{1,2})(?:st|nd|rd|th)?\.?[\s-]*([A-Za-z]{3,9})\.?,?[\s-]+(\d{4}|\d{2})(?!\d)/;
const MONTH_NAMED = /^([A-Za-z]{3,9})\.?\s+(\d{1,2})(?:st|nd|rd|th)?,?\s+(\d{4})(?!\d)/;
const COMPACT = /^(\d{4})(\d{2})(\d{2})(?!\d|[./-])/;
const COMPACT_CLOCK = /^[T ]?(\d{2})(\d{2})(\d{2})?(?:[.,](\d{1,9}))?/;
const CLOCK = /^(\d{1,2})[:.h](\d{2})(?:[:.](\d{2})(?:[.,](\d{1,9}))?)?(?:\s?([AaPp])\.?[Mm]\.?)?(?![\d:])/;
const BARE_CLOCK = new RegExp(CLOCK.source.replace('[:.h]', '[:h]'));
const OFFSET = /^\s?(?:(Z|UTC|GMT)|(?:UTC|GMT)?([+-])(\d{1,2}):?(\d{2})?)\s*(?:\[[\w/]+\])?$/i;
const WEEKDAY = /^[A-Za-z]{2,9}\.?,?\s+(?=\d|[A-Za-z]{3,9}\.?\s+\d)/;
const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
const WEEKDAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'];

const MINUTE = 60_000;

/** A month's number by its English name, or by its first three letters; null for another word. */
function monthOf(word: string): string | null {
  const at = MONTHS.indexOf(word.slice(0, 3).toLowerCase());
  return at < 0 ? null : String(at + 1);
}

/** Takes a cell apart; null for what is neither a date nor a time of day. A text of more than 48 letters is none. */
export function readDateCell(cell: string): DateCell | null {
  let text = cell.trim();
  if (text === '' || text.length > 48) return null;
  if (WEEKDAY.test(text) && WEEKDAYS.includes(text.slice(0, 3).toLowerCase()))
    text = text.replace(WEEKDAY, '');
  const day = dateOf(text);
  if (!day) {
    // By itself "17.50" is a number, not a time.
    const clock = clockOf(text, BARE_CLOCK);
    return clock && { date: null, orders: [], ...clock };
  }
  const rest = text.slice(day.length);
  const of = { date: day.date, orders: day.orders };
  if (rest.trim() === '') return { ...of, clockMs: null, offsetMin: null };
  const behind = rest.replace(/^(?:[T,;_]\s?|\s+)(?:at\s|-\s)?/, '');
  // Nothing between a date and its time is only meant where both are written without marks.
  if (behind === rest && !day.isCompact) return null;
  const clock = clockOf(behind, CLOCK) ?? (day.isCompact ? clockOf(rest, COMPACT_CLOCK) : null);
  return clock && { ...of, ...clock };
}

type Day = {
  readonly date: readonly [string, string, string];
  readonly orders: readonly DateOrder[];
  readonly length: number;
  readonly isCompact: boolean;
};

function dateOf(text: string): Day | null {
  const numbers = NUMBERS.exec(text);
  if (numbers) {
    const [all, first = '', mark = '', second = '', third = ''] = numbers;
    const date = [first, second, third] as const;
    const of = { date, length: all.length, isCompact: false };
    if (first.length === 3) return null;
    if (first.length === 4) return third.length === 4 ? null : { ...of, orders: ['ymd'] };
    // Points stand in dates that begin with the day, or with the year.
    const short: readonly DateOrder[] = mark === '.' ? ['dmy'] : ['dmy', 'mdy'];
    if (third.length === 4) return { ...of, orders: short };
    const isYear = (part: string) => part.length === 2;
    return { ...of, orders: [...(isYear(third) ? short : []), ...(isYear(first) ? (['ymd'] as const) : [])] };
  }
  const compact = COMPACT.exec(text);
  if (compact) {
    const [all, year = '', month = '', day = ''] = compact;
    return { date: [year, month, day], orders: ['ymd'], length: all.length, isCompact: true };
  }
  const named = DAY_NAMED.exec(text);
  const month = named ? monthOf(named[2] ?? '') : null;
  if (named && month)
    return {
      date: [named[1] ?? '', month, named[3] ?? ''],
      orders: ['dmy'],
      length: named[0].length,
      isCompact: false,
    };
  const american = MONTH_NAMED.exec(text);
  const first = american ? monthOf(american[1] ?? '') : null;
  if (american && first)
    return {
      date: [first, american[2] ?? '', american[3] ?? ''],
      orders: ['mdy'],
      length: american[0].length,
      isCompact: false,
    };
  return null;
}

function clockOf(text: string, form: RegExp): { clockMs: number; offsetMin: number | null } | null {
  const found = form.exec(text);
  if (!found) return null;
  const [all, h = '', min = '', s = '0', fraction = '', half] = found;
  if (half !== undefined && (Number(h) < 1 || Number(h) > 12)) return null;
  const hours = half === undefined ? Number(h) : (Number(h) % 12) + (half.toLowerCase() === 'p' ? 12 : 0);
  // 24:00 ends a day in some tables.
  const isEnd = hours === 24 && Number(min) === 0 && Number(s) === 0;
  if ((hours > 23 && !isEnd) || Number(min) > 59 || Number(s) > 60) return null;
  const offset = text.slice(all.length);
  const offsetMin = offset.trim() === '' ? null : offsetOf(offset);
  if (offsetMin === 'none') return null;
  const clockMs =
    ((hours * 60 + Number(min)) * 60 + Number(s)) * 1000 + Math.round(Number(`0.${fraction || '0'}`) * 1000);
  return { clockMs, offsetMin };
}

function offsetOf(text: string): number | 'none' {
  const [, zero, sign = '', hours = '', minutes = '0'] = OFFSET.exec(text) ?? [];
  if (zero !== undefined) return 0;
  const min = Number(hours) * 60 + Number(minutes);
  if (sign === '' || min > 14 * 60 || Number(minutes) > 59) return 'none';
  return sign === '-' ? -min : min;
}

/** Midnight of a date as if its clocks were those of UTC, ms since 1970; null for one that no calendar has, or outside 2000 to 2100. */
export function dayOfDate(
  [first, second, third]: readonly [string, string, string],
  order: DateOrder,
): number | null {
  const [year, month, day] =
    order === 'ymd'
      ? [first, second, third]
      : order === 'dmy'
        ? [third, second, first]
        : [third, first, second];
  const full = year.length <= 2 ? 2000 + Number(year) : Number(year);
  const ms = Date.UTC(full, Number(month) - 1, Number(day));
  const back = new Date(ms);
  const isDay = back.getUTCMonth() === Number(month) - 1 && back.getUTCDate() === Number(day);
  return isDay && isMoment(ms) ? ms : null;
}

/** What a column of dates says of its order. */
export type OrderVerdict =
  | { readonly kind: 'sure'; readonly order: DateOrder }
  /** Several are possible, the likeliest first, with a date that reads differently in each. */
  | { readonly kind: 'unsure'; readonly orders: readonly DateOrder[]; readonly example: string }
  | { readonly kind: 'none' };

export type DatedRow = { readonly date: readonly [string, string, string]; readonly clockMs: number | null };

/** The future is no place for a reading; a clock may run ahead by so much. */
const AHEAD_MS = 2 * DAY_MS;
/** Two orders that differ do so by most of a month at least. */
const MONTH_APART_MS = 20 * DAY_MS;

/**
 * The order that a column's dates have. Sure is only what cannot be read otherwise: one order is left that the calendar and the present allow, or the readings run on across midnight in
 * one and leap by a month in the others.
 * @param rows in the order of the table @param allowed by the marks, of each row
 */
export function orderOf(
  rows: readonly DatedRow[],
  allowed: readonly DateOrder[],
  nowMs: number,
): OrderVerdict {
  const possible = allowed.filter((order) =>
    rows.every(({ date }) => {
      const ms = dayOfDate(date, order);
      return ms !== null && ms <= nowMs + AHEAD_MS;
    }),
  );
  const [first] = possible;
  if (first === undefined) return { kind: 'none' };
  const isSame = (order: DateOrder) =>
    rows.every(({ date }) => dayOfDate(date, order) === dayOfDate(date, first));
  if (possible.every(isSame)) return { kind: 'sure', order: first };
  const flowing = possible.filter((order) => runsOn(rows, order));
  const [only] = flowing;
  const others = possible.filter((order) => order !== only);
  if (only !== undefined && flowing.length === 1 && others.every((order) => leaps(rows, order)))
    return { kind: 'sure', order: only };
  const unlike = rows.find(({ date }) =>
    possible.some((order) => dayOfDate(date, order) !== dayOfDate(date, first)),
  );
  return {
    kind: 'unsure',
    orders: [...flowing, ...possible.filter((order) => !flowing.includes(order))],
    example: (unlike ?? rows[0])?.date.join('/') ?? '',
  };
}

/** Times of the rows under an order. */
const timesOf = (rows: readonly DatedRow[], order: DateOrder): number[] =>
  rows.map(({ date, clockMs }) => (dayOfDate(date, order) ?? Number.NaN) + (clockMs ?? 0));

/** Distances of rows within one date, and across to another one. */
function steps(rows: readonly DatedRow[], order: DateOrder): { within: number[]; across: number[] } {
  const times = timesOf(rows, order);
  const [within, across]: [number[], number[]] = [[], []];
  rows.forEach(({ date }, at) => {
    const before = rows[at - 1]?.date;
    if (!before) return;
    const apart = Math.abs((times[at] ?? 0) - (times[at - 1] ?? 0));
    if (before.join('/') === date.join('/')) within.push(apart);
    else across.push(apart);
  });
  return { within, across };
}

/** How many usual steps may lie between the last reading of a day and the first of the next where they run on. */
const STEPS_ACROSS = 3;

/** Now and then a logger is off over midnight. */
const MOSTLY = 0.8;

/** Whether readings that come several times a day run on from one date to the next. */
function runsOn(rows: readonly DatedRow[], order: DateOrder): boolean {
  const { within, across } = steps(rows, order);
  if (within.length < 2 || across.length === 0) return false;
  const usual = within.toSorted((a, b) => a - b)[within.length >> 1] ?? 0;
  const on = across.filter((apart) => apart <= Math.max(STEPS_ACROSS * usual, 5 * MINUTE) && apart < DAY_MS);
  return on.length >= MOSTLY * across.length;
}

const leaps = (rows: readonly DatedRow[], order: DateOrder): boolean =>
  steps(rows, order).across.some((apart) => apart >= MONTH_APART_MS);
