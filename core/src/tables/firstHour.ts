/** A table whose first row lies in an hour that came twice, when the clocks were put back: which of the two it is only the rows behind it can tell. */
import { CsvScan } from '../records/csv.ts';
import { isReadable, type Layout } from './layout.ts';
import { rowTimes } from './rowTime.ts';

export type FirstHour =
  /** It lies in no such hour, or is the one by which the table goes on: of rising times the first, of falling ones the second. */
  | 'nearer'
  /** The other one. */
  | 'further'
  /** Nothing tells. */
  | 'unsure';

/** So many rows are looked at. */
const LOOK_ROWS = 2000;
/** By so much of the usual distance the row that leaves the hour may be off it, */
const FITS = 0.1;
/** and must be off it by so much if it were the other hour. */
const UNFIT = 0.25;

/** @param isRow whether a record is one of the table's rows, no comment and no header */
export function firstHourOf(
  text: string,
  layout: Layout,
  isRow: (line: number, cells: readonly string[]) => boolean,
): FirstHour {
  if (!isReadable(layout)) return 'nearer';
  const [near, far] = [rowTimes(layout), rowTimes(layout, true)];
  const [nearMs, farMs]: [number[], number[]] = [[], []];
  const scan = new CsvScan(text, layout.delimiter);
  while (nearMs.length < LOOK_ROWS && scan.next()) {
    if (!isRow(scan.line, scan.cells)) continue;
    const [one, other] = [near(scan.cells), far(scan.cells)];
    if (typeof one !== 'number' || typeof other !== 'number') continue;
    // All but a few tables end here, at their first row.
    if (nearMs.length === 0 && one === other) return 'nearer';
    // Rows of several things share a time.
    if (one === nearMs.at(-1) && other === farMs.at(-1)) continue;
    nearMs.push(one);
    farMs.push(other);
  }
  return verdict(nearMs, farMs, layout.isFalling);
}

function verdict(nearMs: readonly number[], farMs: readonly number[], isFalling: boolean): FirstHour {
  const stepsOf = (times: readonly number[]) =>
    times.slice(1).map((ms, at) => (ms - (times[at] ?? 0)) * (isFalling ? -1 : 1));
  const [near, far] = [stepsOf(nearMs), stepsOf(farMs)];
  // A table that goes through the hour twice began in the nearer one: in the other its times would run back.
  if (far.some((step) => step < 0) && near.every((step) => step >= 0)) return 'nearer';
  const leaves = near.findIndex((step, at) => step !== far[at]);
  const [nearStep, farStep] = [near[leaves], far[leaves]];
  const others = near.filter((_, at) => at !== leaves).sort((a, b) => a - b);
  const usual = others[others.length >> 1];
  if (nearStep === undefined || farStep === undefined || usual === undefined || !(usual > 0)) return 'unsure';
  const offBy = (step: number) => Math.abs(step - usual) / usual;
  if (offBy(nearStep) <= FITS && offBy(farStep) >= UNFIT) return 'nearer';
  return offBy(farStep) <= FITS && offBy(nearStep) >= UNFIT ? 'further' : 'unsure';
}
