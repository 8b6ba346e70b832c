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
import { GrowingBytes, inUtf8, MOST_REMEMBERED } from './growingBytes.ts';
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
 * Writes the rows of one channel in UTF-8, whatever they have in common worked out once: a year of a reading a minute is half a million of them.
 * @param percentOf what the calibration in use makes of a raw value; null without one
 */
export function readingsCsvWriter(
  of: CsvChannelRows,
  percentOf: ((raw: number) => number) | null,
): (series: Series) => Uint8Array<ArrayBuffer> {
  const names = `,${csvCells([of.plot, of.probe, of.channelId])},`;
  const kind = csvCells([of.percentKind]);
  const percentText = (raw: number) =>
    percentOf ? `,${csvCells([percentOf(raw).toFixed(1)])},${kind},` : ',,,';
  /** All of a row behind its time: alike wherever the raw value and the flags are. */
  const restsOf = rememberedNumbers(
    (flags: number) =>
      rememberedNumbers(
        (raw: number) => inUtf8(`${names}${String(raw)}${percentText(raw)}${flagsText(flags)}\r\n`),
        MOST_REMEMBERED,
      ),
    // The flags are a byte.
    256,
  );
  const rows = new GrowingBytes();
  const timeOf = timeWriter();
  return ({ timesMs, raw, flags }) => {
    let lastFlags = Number.NaN;
    let restOf = restsOf(0);
    for (let at = 0; at < raw.length; at += 1) {
      const own = flags[at] ?? 0;
      if (own !== lastFlags) [lastFlags, restOf] = [own, restsOf(own)];
      rows.put(timeOf(timesMs[at] ?? 0));
      rows.put(restOf(raw[at] ?? 0));
    }
    return rows.take();
  };
}

const flagsText = (flags: number): string =>
  FLAG_NAMES.filter(([, bit]) => (flags & bit) !== 0)
    .map(([flag]) => flag)
    .join(' ');

/** Writes times as `isoOf` does: the bytes of each are to be taken before the next is written. The date of a day is worked out once. */
function timeWriter(): (ms: number) => Uint8Array {
  const time = inUtf8('2000-01-01T00:00:00.000Z');
  let dayMs = Number.NaN;
  return (ms) => {
    if (!isMoment(ms)) return inUtf8(isoOf(ms));
    if (dayOf(ms) !== dayMs) {
      dayMs = dayOf(ms);
      time.set(inUtf8(isoOf(dayMs)));
    }
    const inDay = Math.floor(ms - dayMs);
    const s = Math.floor(inDay / 1000);
    const [minutes, left] = [Math.floor(s / 60), inDay % 1000];
    putTwo(time, 11, Math.floor(minutes / 60));
    putTwo(time, 14, minutes % 60);
    putTwo(time, 17, s % 60);
    putTwo(time, 20, Math.floor(left / 10));
    time[22] = ZERO + (left % 10);
    return time;
  };
}

const ZERO = 48;

/** A number below 100, in two digits. */
function putTwo(bytes: Uint8Array, at: number, number: number): void {
  const tens = Math.floor(number / 10);
  bytes[at] = ZERO + tens;
  bytes[at + 1] = ZERO + (number - 10 * tens);
}
