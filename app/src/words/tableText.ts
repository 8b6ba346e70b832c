/** Words about tables that other programs wrote: what is asked, what is left out, and what is wrong with a row. */
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { dayOfDate, type DateOrder } from '@plain-trowel/core/tables/dateText';
import type { NoTable } from '@plain-trowel/core/tables/guess';
import type { LeftOut, TimeForm } from '@plain-trowel/core/tables/layout';
import type { TableProblem } from '@plain-trowel/core/tables/readTable';
import { fullDay } from '@plain-trowel/core/quantity/timeText';

const KEPT = 'Nothing was taken in.';

export function noTableText(why: NoTable): string {
  switch (why) {
    case 'empty':
      return `The file is empty. ${KEPT}`;
    case 'binary':
      return `The file is not text. ${KEPT} Save it as CSV in the program that it came from.`;
    case 'no-table':
      return `No rows with times and numbers, parted by commas, semicolons, tabs or bars, were found. ${KEPT} A serial log is opened on Bench, Readout.`;
    case 'cut':
      return `Its rows have more cells than it has names: decimal commas were probably cut in two. ${KEPT} Save it with semicolons between the cells, or with decimal points.`;
    case 'no-time':
      return `No column holds dates or times since 1970, so nobody could say when its readings were taken. ${KEPT}`;
  }
}

export const TIME_FORMS: Readonly<Record<TimeForm, string>> = {
  dmy: 'day, month, year',
  mdy: 'month, day, year',
  ymd: 'year, month, day',
  'since-1970': 'seconds (or ms) since 1970',
  'sheet-days': 'days, as spreadsheets count them',
};

/** What a date means under an order: "3 May 2026". */
export function dateMeans(example: string, order: DateOrder): string {
  const [first = '', second = '', third = ''] = example.split('/');
  const ms = dayOfDate([first, second, third], order);
  return ms === null ? 'no date' : fullDay(ms, 'UTC');
}

export function leftOutText({ name, why, unit }: LeftOut): string {
  const called = name === '' ? 'a column without a name' : name;
  switch (why) {
    case 'no-number':
      return `${called} (no numbers)`;
    case 'no-channel':
      return `${called} (no probe of this garden is called so)`;
    case 'unit':
      return unit === '%'
        ? `${called} (percent cannot be turned back into raw counts)`
        : `${called} (${unit ?? 'its unit'} is not what the probe is recorded in)`;
  }
}

/** What is wrong with one row of a table. */
export function tableProblemText(problem: TableProblem): string {
  switch (problem.kind) {
    case 'time':
      return `"${shown(problem.text)}" is no time as the others are`;
    case 'time-range':
      return `the time "${shown(problem.text)}" lies outside 2000 to 2100`;
    case 'no-such-hour':
      return `"${shown(problem.text)}" was skipped by the clocks of this time zone; the times may be of another one, such as UTC`;
    case 'number':
      return `"${shown(problem.text)}" in ${problem.column || 'its column'} is no number`;
    case 'value-range':
      return `"${shown(problem.text)}" in ${problem.column || 'its column'} is larger than any probe gives (±1,000,000,000)`;
    case 'columns':
      return `${formatNumber(problem.found)} cells where the others have ${formatNumber(problem.wanted)}${problem.found > problem.wanted ? '; decimal commas may have been cut in two' : ''}`;
  }
}

const shown = (text: string): string => (text.length > 40 ? `${text.slice(0, 40)}…` : text);
