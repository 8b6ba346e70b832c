import { EARLIEST_MS, isMoment, momentOf } from '../quantity/moment.ts';

/**
 * Time stamps as boards and serial logs write them.
 *
 * - `absolute`: an ISO 8601 date and time, or seconds, ms, µs or ns since 1970; ms since 1970 UTC, from 2000 up to 2100.
 *   A date and time without an offset is read as UTC, and said to be so by `zoned: false`.
 * - `unbelievable`: a date outside 2000 to 2100, as from a clock that was never set.
 * - `time-of-day`: hours, minutes, seconds without a date; ms since midnight.
 * - `uptime`: time since the board started; ms.
 */
export type TimeStamp =
  | { readonly kind: 'absolute'; readonly ms: number; readonly zoned: boolean }
  | { readonly kind: 'unbelievable' }
  | { readonly kind: 'time-of-day'; readonly ms: number }
  | { readonly kind: 'uptime'; readonly ms: number };

const ISO =
  /^(\d{4}-\d{2}-\d{2})[T ](\d{2}:\d{2}(?::\d{2}(?:[.,]\d{1,9})?)?)\s?(Z|[+-]\d{2}:?\d{2})?(?![\d:])/;
const DAY = /^(\d{1,2}):(\d{2}):(\d{2})(?:[.,](\d{1,6}))?(?![\d:])/;
/** Day, month and year by points, slashes or hyphens, in whichever order, and a time. */
const PARTS =
  /^(\d{1,4})([./-])(\d{1,2})\2(\d{4}|\d{1,2}),?[T ]{1,2}(\d{1,2}):(\d{2})(?::(\d{2})(?:[.,](\d{1,6}))?)?(?: ?([AP])M\b)?(?![\d:])/i;
/** Between a stamp and what follows: white space and any plain separator marks. */
const SEPARATOR = /^[\s,;|>\]-]+/;

/** Takes a time stamp from the front of a line; `rest` is what remains for the values. */
export function takeStamp(line: string): { stamp: TimeStamp | null; rest: string } {
  const opened = line.startsWith('[') ? line.slice(1) : line;
  // Every stamp begins with a digit; most lines do not, and there are many.
  const first = opened.charCodeAt(0);
  if (!(first >= 48 && first <= 57) || !opened.includes(':')) return { stamp: null, rest: line };
  const iso = ISO.exec(opened);
  if (iso) {
    const [all, date = '', time = '', zone] = iso;
    const withSeconds = /^\d{2}:\d{2}$/.test(time) ? `${time}:00` : time.replace(',', '.');
    const ms = Date.parse(`${date}T${withSeconds}${zone ?? 'Z'}`);
    if (Number.isFinite(ms)) return { stamp: believed(ms, zone !== undefined), rest: restOf(opened, all) };
  }
  const parts = PARTS.exec(opened);
  if (parts) {
    const stamp = stampOfParts(parts);
    if (stamp) return { stamp, rest: restOf(opened, parts[0]) };
  }
  const day = DAY.exec(opened);
  if (day) {
    const [all, h = '', min = '', s = '', fraction = ''] = day;
    const inRange = Number(h) < 24 && Number(min) < 60 && Number(s) < 60;
    if (inRange) {
      const ms =
        ((Number(h) * 60 + Number(min)) * 60 + Number(s)) * 1000 +
        Math.round(Number(`0.${fraction || '0'}`) * 1000);
      return { stamp: { kind: 'time-of-day', ms }, rest: restOf(opened, all) };
    }
  }
  return { stamp: null, rest: line };
}

/**
 * Points stand in dates that begin with the day; slashes and hyphens in both orders, where only a number above 12 tells which it is. Where nothing tells, the date is left
 * alone and the time of day is all that is taken.
 */
function stampOfParts(parts: RegExpExecArray): TimeStamp | null {
  const [, first = '', mark = '', second = '', third = '', h = '', min = '', s = '0', fraction = '', half] =
    parts;
  const hours = half === undefined ? Number(h) : (Number(h) % 12) + (half.toLowerCase() === 'p' ? 12 : 0);
  if (hours > 23 || Number(min) > 59 || Number(s) > 59) return null;
  const dayMs =
    ((hours * 60 + Number(min)) * 60 + Number(s)) * 1000 + Math.round(Number(`0.${fraction || '0'}`) * 1000);
  const [one, two, three] = [Number(first), Number(second), Number(third)];
  const yearFirst = first.length === 4;
  if (!yearFirst && first.length > 2) return null;
  const year = yearFirst ? one : third.length === 4 ? three : 2000 + three;
  const orders = yearFirst
    ? [[three, two] as const]
    : mark === '.'
      ? [[one, two] as const]
      : [[one, two] as const, [two, one] as const];
  const fits = orders.filter(([day, month]) => isDay(year, month, day));
  const [only] = fits;
  if (!only) return null;
  const isSure = fits.length === 1 || one === two;
  return isSure
    ? believed(Date.UTC(year, only[1] - 1, only[0]) + dayMs, false)
    : { kind: 'time-of-day', ms: dayMs };
}

const isDay = (year: number, month: number, day: number): boolean => {
  const date = new Date(Date.UTC(year, month - 1, day));
  return date.getUTCMonth() === month - 1 && date.getUTCDate() === day;
};

const believed = (ms: number, zoned: boolean): TimeStamp =>
  isMoment(ms) ? { kind: 'absolute', ms, zoned } : { kind: 'unbelievable' };

const restOf = (line: string, taken: string) => line.slice(taken.length).replace(SEPARATOR, '').trim();

/** Field names that mean time, and the unit a bare number in them has. */
const TIME_NAMES: ReadonlyMap<string, 'ms' | 's' | 'guess'> = new Map(
  Object.entries({
    time: 'guess',
    timestamp: 'guess',
    ts: 'guess',
    datetime: 'guess',
    ms: 'ms',
    millis: 'ms',
    time_ms: 'ms',
    uptime_ms: 'ms',
    uptime: 's',
    uptime_s: 's',
    time_s: 's',
  } as const),
);

/** Reads a named field as a time stamp when its name says so; null when it is an ordinary value. */
export function stampFromField(name: string, value: string | number): TimeStamp | null {
  // No such name is longer; a long one must not be copied for each value.
  if (name.length > 12) return null;
  const unit = TIME_NAMES.get(name.trim().toLowerCase());
  if (unit === undefined) return null;
  const number =
    typeof value === 'number' ? value : /^\d+(\.\d+)?$/.test(value.trim()) ? Number(value) : null;
  if (number === null) return takeStamp(String(value)).stamp;
  if (!Number.isFinite(number) || number < 0) return null;
  const isUptime = unit === 's' || (unit === 'ms' && number < EPOCH_MS) || number < EPOCH_S;
  if (isUptime) return { kind: 'uptime', ms: unit === 's' ? number * 1000 : number };
  const ms = momentOf(number);
  return ms === null ? { kind: 'unbelievable' } : { kind: 'absolute', ms, zoned: true };
}

/** The years 2000 to 2100 begin here in seconds and in milliseconds since 1970; a board's uptime reaches neither. */
const EPOCH_S = EARLIEST_MS / 1000;
const EPOCH_MS = EARLIEST_MS;

/** A bare number in front of others as seconds, ms, µs or ns since 1970; null when it can be an ordinary value. */
export function stampFromNumber(text: string): TimeStamp | null {
  if (!/^\d{9,19}(\.\d{1,9})?$/.test(text)) return null;
  const ms = momentOf(Number(text));
  return ms === null ? null : { kind: 'absolute', ms, zoned: true };
}
