/**
 * Readings as CSV (RFC 4180, comma, decimal point, CRLF), one reading a row, times in ISO 8601 with their offset.
 *
 *     time,plot,probe,channel,raw,percent,percent_kind,flags
 *
 * `raw` is the record; `percent` is what the calibration in use made of it on the day of the export and is not read back.
 */
import Papa from 'papaparse';
import { z } from '../quantity/schema.ts';
import { fail, ok, type Result } from '../quantity/result.ts';
import { readNumber } from '../signal/numberText.ts';
import { looksBinary } from '../signal/serialLog.ts';
import { FLAGS, type Reading } from './series.ts';

const COLUMNS = ['time', 'plot', 'probe', 'channel', 'raw', 'percent', 'percent_kind', 'flags'] as const;

export type CsvRow = {
  readonly timeMs: number;
  readonly plot: string;
  readonly probe: string;
  readonly channelId: string;
  readonly raw: number;
  /** Null without a calibration. */
  readonly percent: number | null;
  readonly percentKind: string;
  readonly flags: number;
};

const FLAG_NAMES = Object.entries(FLAGS);

export function writeReadingsCsv(rows: readonly CsvRow[]): string {
  const data = rows.map((row) => [
    new Date(row.timeMs).toISOString(),
    row.plot,
    row.probe,
    row.channelId,
    String(row.raw),
    row.percent === null ? '' : row.percent.toFixed(1),
    row.percent === null ? '' : row.percentKind,
    FLAG_NAMES.filter(([, bit]) => (row.flags & bit) !== 0)
      .map(([flag]) => flag)
      .join(' '),
  ]);
  return `${Papa.unparse({ fields: [...COLUMNS], data }, { newline: '\r\n' })}\r\n`;
}

export type CsvChannel = { readonly id: string; readonly plot: string; readonly probe: string };

export type CsvIssue =
  | { readonly kind: 'empty' }
  | { readonly kind: 'binary' }
  | { readonly kind: 'missing-column'; readonly column: string }
  | { readonly kind: 'decimal-comma'; readonly row: number; readonly text: string }
  | {
      readonly kind: 'cell';
      readonly row: number;
      readonly column: 'time' | 'raw' | 'flags';
      readonly text: string;
    }
  | { readonly kind: 'columns'; readonly row: number; readonly found: number; readonly wanted: number }
  | { readonly kind: 'unknown-channel'; readonly row: number; readonly channel: string }
  | { readonly kind: 'no-rows' };

export type CsvReadings = ReadonlyMap<string, readonly Reading[]>;

/**
 * Reads a readings CSV: all of it, or the first thing wrong with it. Needs `time`, `raw` and either `channel` or `plot` and `probe`.
 * Cannot throw.
 * @param channels the garden's channels; a row belongs to the one with its id, else to the one with its plot and probe
 */
export function readReadingsCsv(
  text: string,
  channels: readonly CsvChannel[],
  onProgress?: (doneFrac: number) => void,
): Result<CsvReadings, CsvIssue> {
  if (text.trim() === '') return fail({ kind: 'empty' });
  if (looksBinary(text)) return fail({ kind: 'binary' });
  const delimiter = (/^[^\r\n]*/.exec(text)?.[0] ?? '').includes(';') ? ';' : ',';
  const { data } = Papa.parse<string[]>(text.replace(/^\ufeff/, ''), { delimiter, skipEmptyLines: true });
  const [header = [], ...rows] = data;
  const columns = header.map((cell) => cell.trim().toLowerCase());
  const place = (column: string) => columns.indexOf(column);
  const needed = ['time', 'raw', ...(place('plot') >= 0 && place('probe') >= 0 ? [] : ['channel'])];
  const missing = needed.find((column) => place(column) < 0);
  if (missing) return fail({ kind: 'missing-column', column: missing });
  if (rows.length === 0) return fail({ kind: 'no-rows' });
  const find = channelFinder(channels);
  const found = new Map<string, Reading[]>();
  for (const [at, cells] of rows.entries()) {
    if (at % 5000 === 0) onProgress?.(at / rows.length);
    const row = at + 2; // as a spreadsheet counts: the header is row 1
    const cell = (column: string) => (cells[place(column)] ?? '').trim();
    const issue = rowIssue(row, cells, columns, cell);
    if (issue) return fail(issue);
    const channelId = find(cell('channel'), cell('plot'), cell('probe'));
    if (channelId === null)
      return fail({
        kind: 'unknown-channel',
        row,
        channel: cell('channel') || `${cell('plot')}, ${cell('probe')}`,
      });
    const reading = {
      timeMs: Date.parse(cell('time')),
      raw: Number(cell('raw')),
      flags: (readFlags(cell('flags')) ?? 0) | FLAGS.imported,
    };
    const list = found.get(channelId);
    if (list) list.push(reading);
    else found.set(channelId, [reading]);
  }
  onProgress?.(1);
  return ok(found);
}

const isoTime = z.iso.datetime({ offset: true });

function rowIssue(
  row: number,
  cells: readonly string[],
  columns: readonly string[],
  cell: (column: string) => string,
): CsvIssue | null {
  const raw = readNumber(cell('raw'));
  if (raw.kind === 'decimal-comma') return { kind: 'decimal-comma', row, text: cell('raw') };
  if (cells.length !== columns.length) {
    // One column too many in a comma file is nearly always "12,5" cut in two.
    const cutInTwo =
      cells.length > columns.length &&
      cells.slice(1).some((part, at) => /^\d+$/.test(part) && /^-?\d+$/.test(cells[at] ?? ''));
    return cutInTwo
      ? { kind: 'decimal-comma', row, text: cells.join(',') }
      : { kind: 'columns', row, found: cells.length, wanted: columns.length };
  }
  if (raw.kind !== 'number') return { kind: 'cell', row, column: 'raw', text: cell('raw') };
  if (!isoTime.safeParse(cell('time')).success)
    return { kind: 'cell', row, column: 'time', text: cell('time') };
  if (readFlags(cell('flags')) === null) return { kind: 'cell', row, column: 'flags', text: cell('flags') };
  return null;
}

function readFlags(text: string): number | null {
  let flags = 0;
  for (const word of text.split(' ').filter((part) => part !== '')) {
    const bit = FLAG_NAMES.find(([flag]) => flag === word)?.[1];
    if (bit === undefined) return null;
    flags |= bit;
  }
  return flags;
}

function channelFinder(channels: readonly CsvChannel[]) {
  const byId = new Set(channels.map((channel) => channel.id));
  const byName = new Map(channels.map((channel) => [`${channel.plot}\n${channel.probe}`, channel.id]));
  return (id: string, plot: string, probe: string): string | null =>
    byId.has(id) ? id : (byName.get(`${plot}\n${probe}`) ?? null);
}
