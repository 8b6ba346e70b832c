/** A readings CSV written row by row, in the plainest way: for tests that read one, and to hold the quick writer against. */
import { isoOf } from '../quantity/moment.ts';
import { csvRow } from './csv.ts';
import { FLAG_NAMES, READINGS_HEADER, type CsvRow } from './readingsCsvOut.ts';

const rowOf = (row: CsvRow): string =>
  csvRow([
    isoOf(row.timeMs),
    row.plot,
    row.probe,
    row.channelId,
    row.raw,
    row.percent === null ? null : row.percent.toFixed(1),
    row.percent === null ? null : row.percentKind,
    FLAG_NAMES.filter(([, bit]) => (row.flags & bit) !== 0)
      .map(([flag]) => flag)
      .join(' '),
  ]);

export const writeReadingsCsv = (rows: readonly CsvRow[]): string =>
  READINGS_HEADER + rows.map(rowOf).join('');
