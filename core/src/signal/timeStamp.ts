/**
 * Time stamps as boards and serial logs write them.
 *
 * - `absolute`: an ISO 8601 date and time, or seconds or milliseconds since 1970; ms since 1970 UTC.
 *   A date and time without an offset is read as UTC, and said to be so by `zoned: false`.
 * - `time-of-day`: hours, minutes, seconds without a date; ms since midnight.
 * - `uptime`: time since the board started; ms.
 */
export type TimeStamp =
  | { readonly kind: 'absolute'; readonly ms: number; readonly zoned: boolean }
  | { readonly kind: 'time-of-day'; readonly ms: number }
  | { readonly kind: 'uptime'; readonly ms: number };

const ISO =
  /^(\d{4}-\d{2}-\d{2})[T ](\d{2}:\d{2}(?::\d{2}(?:[.,]\d{1,9})?)?)\s?(Z|[+-]\d{2}:?\d{2})?(?![\d:])/;
const DAY = /^(\d{1,2}):(\d{2}):(\d{2})(?:[.,](\d{1,6}))?(?![\d:])/;
/** Between a stamp and what follows: white space and any plain separator marks. */
const SEPARATOR = /^[\s,;|>\]-]+/;

/** Takes a time stamp from the front of a line; `rest` is what remains for the values. */
export function takeStamp(line: string): { stamp: TimeStamp | null; rest: string } {
  const opened = line.startsWith('[') ? line.slice(1) : line;
  const iso = ISO.exec(opened);
  if (iso) {
    const [all, date = '', time = '', zone] = iso;
    const withSeconds = /^\d{2}:\d{2}$/.test(time) ? `${time}:00` : time.replace(',', '.');
    const ms = Date.parse(`${date}T${withSeconds}${zone ?? 'Z'}`);
    if (Number.isFinite(ms))
      return { stamp: { kind: 'absolute', ms, zoned: zone !== undefined }, rest: restOf(opened, all) };
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

const restOf = (line: string, taken: string) => line.slice(taken.length).replace(SEPARATOR, '').trim();

/** Field names that mean time, and the unit a bare number in them has. */
const TIME_NAMES: Readonly<Record<string, 'ms' | 's' | 'guess'>> = {
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
};

/** Reads a named field as a time stamp when its name says so; null when it is an ordinary value. */
export function stampFromField(name: string, value: string | number): TimeStamp | null {
  const unit = TIME_NAMES[name.trim().toLowerCase()];
  if (unit === undefined) return null;
  const number =
    typeof value === 'number' ? value : /^\d+(\.\d+)?$/.test(value.trim()) ? Number(value) : null;
  if (number === null) return takeStamp(String(value)).stamp;
  if (!Number.isFinite(number) || number < 0) return null;
  // Since 1970: 1e11 ms is the spring of 1973 and 1e9 s the autumn of 2001; a board's uptime reaches neither.
  if (number >= 1e11) return { kind: 'absolute', ms: number, zoned: true };
  if (unit !== 'ms' && number >= 1e9) return { kind: 'absolute', ms: number * 1000, zoned: true };
  return { kind: 'uptime', ms: unit === 's' ? number * 1000 : number };
}
