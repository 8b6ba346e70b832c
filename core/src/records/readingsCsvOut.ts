/**
 * Readings as CSV (RFC 4180, comma, decimal point, CRLF), one reading a row, times in ISO 8601 with their offset.
 *
 *     time,plot,probe,channel,raw,percent,percent_kind,flags
 *
 * `raw` is the record; `percent` is what the calibration in use made of it on the day of the export and is not read back.
 */
import { isMoment, isoOf } from '../quantity/moment.ts';
import { rememberedNumbers } from '../quantity/remembered.ts';
import { csvCells, csvRow } from './csv.ts';
import { dayOf, FLAGS, type Series } from './series.ts';

export const COLUMNS = [
  'time',
  'plot',
  'probe',
  'channel',
  'raw',
  'percent',
  'percent_kind',
  'flags',
] as const;
export type Column = (typeof COLUMNS)[number];

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

export const FLAG_NAMES = Object.entries(FLAGS);

export const READINGS_HEADER = csvRow(COLUMNS);

/** What is alike in all rows of a channel. */
export type CsvChannelRows = Pick<CsvRow, 'plot' | 'probe' | 'channelId' | 'percentKind'>;

/**
 * Writes the rows of one channel, whatever they have in common worked out once: a year of a reading a minute is half a million of them.
 * @param percentOf what the calibration in use makes of a raw value; null without one
 */
export function readingsCsvWriter(
  of: CsvChannelRows,
  percentOf: ((raw: number) => number) | null,
): (series: Series) => string {
  const names = `,${csvCells([of.plot, of.probe, of.channelId])},`;
  const kind = csvCells([of.percentKind]);
  const percentText = rememberedNumbers(
    (raw: number) => (percentOf ? `,${csvCells([percentOf(raw).toFixed(1)])},${kind},` : ',,,'),
    MOST_REMEMBERED,
  );
  const flagsText = rememberedNumbers(
    (flags: number) =>
      `${FLAG_NAMES.filter(([, bit]) => (flags & bit) !== 0)
        .map(([flag]) => flag)
        .join(' ')}\r\n`,
    MOST_REMEMBERED,
  );
  const timeText = timeWriter();
  return ({ timesMs, raw, flags }) => {
    // Joined once: a text that grows row by row costs three times as much.
    const rows: string[] = [];
    for (let at = 0; at < raw.length; at += 1) {
      const value = raw[at] ?? 0;
      rows.push(
        timeText(timesMs[at] ?? 0),
        names,
        String(value),
        percentText(value),
        flagsText(flags[at] ?? 0),
      );
    }
    return rows.join('');
  };
}

/** More than a converter of 16 bits has counts. */
const MOST_REMEMBERED = 70_000;

const TWO = Array.from({ length: 60 }, (_, at) => String(at).padStart(2, '0'));

/** Writes times as `isoOf` does; the date of each day once. */
function timeWriter(): (ms: number) => string {
  let [dayMs, date] = [Number.NaN, ''];
  return (ms) => {
    if (!isMoment(ms)) return isoOf(ms);
    if (dayOf(ms) !== dayMs) {
      dayMs = dayOf(ms);
      date = isoOf(dayMs).slice(0, 11);
    }
    const inDay = Math.floor(ms - dayMs);
    const [s, left] = [Math.floor(inDay / 1000), inDay % 1000];
    const clock = `${TWO[Math.floor(s / 3600)]}:${TWO[Math.floor(s / 60) % 60]}:${TWO[s % 60]}`;
    return `${date}${clock}.${left === 0 ? '000' : String(left).padStart(3, '0')}Z`;
  };
}
