/** When a row of a table was taken, by its layout. */
import { clockMsAt, isColon } from '../quantity/digits.ts';
import { isMoment, momentOf } from '../quantity/moment.ts';
import { DAY_MS } from '../records/series.ts';
import { momentsIn, type ToMoment } from './clocks.ts';
import { dayOfDate, readDateCell } from './dateText.ts';
import { roleColumns, rowName, type Layout } from './layout.ts';
import { numberBy } from './numberForm.ts';

export type TimeProblem = 'time' | 'time-range' | 'no-such-hour';
/** A moment, ms since 1970, or why a row has none. */
export type RowTime = number | { readonly problem: TimeProblem; readonly text: string };

/** A day without a time of day counts from its noon. */
export const NOON_MS = 43_200_000;
/** Day 0 of spreadsheets, 1899-12-30, as ms since 1970. */
const SHEET_START_MS = Date.UTC(1899, 11, 30);

/** Reads the times of a table's rows, in their order. @param startsFurther as `firstHourOf` finds it */
export function rowTimes(layout: Layout, startsFurther = false): (cells: readonly string[]) => RowTime {
  const inZone = momentsIn(layout.timeZone, layout.isFalling, startsFurther);
  const names = roleColumns(layout, 'name');
  const toMoment = (cells: readonly string[]): ToMoment =>
    names.length === 0 ? inZone : (wallMs) => inZone(wallMs, rowName(cells, names));
  const [timeAt = -1] = roleColumns(layout, 'time');
  const [dayAt = -1] = roleColumns(layout, 'day');
  const [clockCellAt = -1] = roleColumns(layout, 'clock');
  const lastDay = new LastDay();
  if (timeAt >= 0) {
    if (layout.time === 'since-1970') return (cells) => sinceStart(cells[timeAt] ?? '');
    return (cells) => read(cells[timeAt] ?? '', null, layout, toMoment(cells), lastDay);
  }
  return (cells) =>
    read(
      cells[dayAt] ?? '',
      clockCellAt < 0 ? null : (cells[clockCellAt] ?? ''),
      layout,
      toMoment(cells),
      lastDay,
    );
}

/** Such numbers part no thousands: either mark stands before decimals. */
const plainNumber = (cell: string): number | null => numberBy(cell.trim().replace(',', '.'), '.');

function sinceStart(cell: string): RowTime {
  const number = plainNumber(cell);
  if (number === null) return { problem: 'time', text: cell };
  const ms = momentOf(number);
  return ms === null ? { problem: 'time-range', text: cell } : Math.round(ms);
}

function read(
  cell: string,
  clockCell: string | null,
  layout: Layout,
  toMoment: ToMoment,
  lastDay: LastDay,
): RowTime {
  const wall =
    layout.time === 'sheet-days'
      ? sheetDays(cell, clockCell)
      : (lastDay.wallOf(cell, clockCell) ?? written(cell, clockCell, layout, lastDay));
  const text = () => (clockCell === null ? cell : `${cell} ${clockCell}`);
  if (wall === null) return { problem: 'time', text: text() };
  const { wallMs, offsetMin } = wall;
  if (offsetMin !== null) {
    const ms = wallMs - offsetMin * 60_000;
    return isMoment(ms) ? ms : { problem: 'time-range', text: text() };
  }
  if (!isMoment(wallMs)) return { problem: 'time-range', text: text() };
  return toMoment(wallMs) ?? { problem: 'no-such-hour', text: text() };
}

/** What a clock showed, as if it were UTC, and how far it was ahead of UTC where the row says so. */
type Wall = { readonly wallMs: number; readonly offsetMin: number | null };

/** Most rows are of the day of the row before, and there may be a million: then only the time of day is read anew. */
class LastDay {
  private text = '';
  private dayMs = 0;
  private tail = '';
  private offsetMin: number | null = null;

  /** A plain time of day, to the minute or second, behind the same date and with the same offset; null for every other row. */
  wallOf(cell: string, clockCell: string | null): Wall | null {
    const { text, tail } = this;
    const clock = clockCell ?? cell;
    const from = clockCell === null ? text.length : 0;
    if (text === '') return null;
    if (clockCell === null ? !cell.startsWith(text) : cell !== text) return null;
    const length = plainLength(clock, from);
    if (clock.length !== from + length + tail.length || !clock.endsWith(tail)) return null;
    const clockMs = clockMsAt(clock, from, length === 8);
    return Number.isNaN(clockMs) ? null : { wallMs: this.dayMs + clockMs, offsetMin: this.offsetMin };
  }

  keep(cell: string, clockCell: string | null, dayMs: number, offsetMin: number | null): void {
    const from = clockAt(cell, clockCell);
    const clock = clockCell ?? cell;
    this.tail = from < 0 ? '' : clock.slice(from + plainLength(clock, from));
    const isPlain =
      from >= 0 && (offsetMin === null ? this.tail === '' : /^(?:Z|[+-]\d\d:?\d\d)$/.test(this.tail));
    this.text = isPlain ? dateText(cell, clockCell, from) : '';
    this.dayMs = dayMs;
    this.offsetMin = offsetMin;
  }
}

const dateText = (cell: string, clockCell: string | null, from: number): string =>
  clockCell === null ? cell.slice(0, from) : cell;

/** How many letters a time of day has without what stands behind it: "14:00:05" or "14:00". */
const plainLength = (text: string, from: number): number => (isColon(text, from + 5) ? 8 : 5);

/** Where in a cell its time of day begins, two digits before the first colon; 0 where it has a cell of its own, -1 where it has none. */
const clockAt = (cell: string, clockCell: string | null): number =>
  clockCell === null ? cell.indexOf(':') - 2 : clockCell[2] === ':' ? 0 : -1;

function written(cell: string, clockCell: string | null, { time }: Layout, lastDay: LastDay): Wall | null {
  if (time === 'since-1970' || time === 'sheet-days') return null;
  const day = readDateCell(cell);
  if (!day?.date || !day.orders.includes(time)) return null;
  const clock = clockCell === null ? day : readDateCell(clockCell);
  if (!clock || (clockCell !== null && (clock.date !== null || clock.clockMs === null))) return null;
  const dayMs = dayOfDate(day.date, time);
  // A date that no calendar has, or of another century, is no time at all.
  if (dayMs === null) return null;
  const wallMs = dayMs + (clock.clockMs ?? NOON_MS);
  const offsetMin = clock.offsetMin ?? day.offsetMin;
  lastDay.keep(cell, clockCell, dayMs, offsetMin);
  return { wallMs, offsetMin };
}

function sheetDays(cell: string, clockCell: string | null): Wall | null {
  const days = plainNumber(cell);
  const part = clockCell === null ? 0 : plainNumber(clockCell);
  if (days === null || part === null) return null;
  // Spreadsheets keep a minute to some hundred nanoseconds: whole seconds are what was meant.
  return {
    wallMs: SHEET_START_MS + Math.round((days + part) * (DAY_MS / 1000)) * 1000,
    offsetMin: null,
  };
}
