/** Sentences for everything that can go wrong with a file, a reference or a limit: what happened, and the one thing to do. */
import { countsPerPercent, risesDrying, type PercentScale } from '@plain-trowel/core/quantity/percentKind';
import type { EdgeIssue } from '@plain-trowel/core/quantity/bands';
import { formatPercent } from '@plain-trowel/core/quantity/format';
import { BAND_NAMES } from '@plain-trowel/core/quantity/bands';
import type { LimitIssue } from '@plain-trowel/core/control/limits';
import type { GardenFileIssue } from '@plain-trowel/core/garden/document/gardenFile';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import type { CsvIssue, RowProblem } from '@plain-trowel/core/records/readingsCsv';
import type { BenchRecordingIssue } from '@plain-trowel/core/signal/benchRecording';
import type { NotUnderstood } from '@plain-trowel/core/signal/line';
import type { SerialLogIssue } from '@plain-trowel/core/signal/serialLog';
import type { BackupIssue } from '../data/readBackup.ts';
import { faultText } from './gardenFaultText.ts';

const UNCHANGED = 'The garden is as it was.';

export function gardenFileText(issue: GardenFileIssue): string {
  switch (issue.kind) {
    case 'empty':
      return `The file is empty. ${UNCHANGED} Choose a garden.json that was exported here.`;
    case 'binary':
      return `The file is not text. ${UNCHANGED} Choose a garden.json that was exported here.`;
    case 'not-json':
      return `The file is cut off or damaged: it is not valid JSON. ${UNCHANGED} Export it again where it came from.`;
    case 'not-a-garden':
      return `The file holds JSON, but not a garden. ${UNCHANGED} Choose a garden.json that was exported here.`;
    case 'newer-version':
      return `The file is of version ${issue.version}; this program reads up to version ${issue.known}. ${UNCHANGED} Open it with the newer program it came from.`;
    case 'bad-version':
      return `The file says its version is "${issue.version.slice(0, 20)}", which is no version. ${UNCHANGED} Export it again where it came from.`;
    case 'field':
      return `${issue.fault ? faultText(issue.fault) : 'A field cannot be read.'}${moreText(issue.more)} ${UNCHANGED}`;
  }
}

const moreText = (more: number): string =>
  more > 0 ? ` ${more} more ${more === 1 ? 'field is' : 'fields are'} wrong too.` : '';

/** In one sentence or two; wrong rows one by one come with `rowProblemText`. */
export function csvText(issue: CsvIssue): string {
  const kept = 'Nothing was taken in.';
  switch (issue.kind) {
    case 'empty':
      return `The file is empty. ${kept} Choose a readings CSV.`;
    case 'binary':
      return `The file is not text. ${kept} Choose a readings CSV.`;
    case 'missing-column':
      return `The first row has no column "${issue.column}". ${kept} A readings CSV needs time, raw and channel (or plot and probe).`;
    case 'doubled-column':
      return `The column "${issue.column}" is there twice. ${kept} Rename or delete one of the two.`;
    case 'rows': {
      const count = issue.problems.length + issue.more;
      return count === 1
        ? `One row cannot be taken in. ${kept}`
        : `${count >= 1000 ? 'At least ' : ''}${formatNumber(count)} rows cannot be taken in. ${kept}`;
    }
    case 'no-rows':
      return `The file has a header and no readings. ${kept}`;
  }
}

/** What is wrong with one row, and what would be right. */
export function rowProblemText(problem: RowProblem): string {
  switch (problem.kind) {
    case 'decimal-comma':
      return `a decimal comma in "${shown(problem.text)}"; write numbers with a decimal point`;
    case 'columns':
      return `${problem.found} columns where the first row has ${problem.wanted}`;
    case 'unknown-channel':
      return `"${shown(problem.channel)}" is no probe of this garden; open the garden it came from, or rename it`;
    case 'time-range':
      return `the time "${shown(problem.text)}" lies outside 2000 to 2100`;
    case 'value-range':
      return `the raw value "${shown(problem.text)}" is larger than any probe gives (±1,000,000,000)`;
    case 'cell':
      return `${problem.column} ${problem.text === '' ? 'is empty' : `reads "${shown(problem.text)}"`}; it must be ${WANTED[problem.column]}`;
  }
}

const shown = (text: string): string => (text.length > 40 ? `${text.slice(0, 40)} …` : text);

const WANTED = {
  time: 'a date and time with its offset, such as 2026-05-01T09:00:00Z',
  raw: 'a number, such as 1512',
  flags: 'empty, or any of simulated, imported, beside',
} as const;

export function backupText(issue: BackupIssue): string {
  switch (issue.kind) {
    case 'not-a-zip':
      return `The file is cut off or damaged: it is no zip that can be read. ${UNCHANGED} Copy the backup again.`;
    case 'not-a-backup':
      return `The file is a zip, but no backup of a garden. ${UNCHANGED} Choose a backup that was saved here.`;
    case 'newer':
      return `The backup is of version ${issue.version}; this program reads version 1. ${UNCHANGED} Open it with the newer program it came from.`;
    case 'too-large':
      return `Unpacked, the file would be larger than 2 GB. ${UNCHANGED}`;
    case 'garden':
      return `Its garden.json: ${gardenFileText(issue.issue)}`;
    case 'readings':
      return `Its file ${issue.file}: ${csvText(issue.issue)}${issue.issue.kind === 'rows' && issue.issue.problems[0] ? ` Row ${issue.issue.problems[0].row}: ${rowProblemText(issue.issue.problems[0])}.` : ''}`;
  }
}

export function serialLogText(issue: SerialLogIssue): string {
  switch (issue.kind) {
    case 'empty':
      return 'There is nothing in it. Choose another file, or paste the lines that your board printed.';
    case 'binary':
      return 'The file is not text, so no line can be read from it. Choose the text that your board printed.';
    case 'nothing-understood':
      return `None of its ${formatNumber(issue.lines)} lines holds a reading; the first is "${issue.firstLine}". Print a number, name=value pairs, columns or one JSON object a line.`;
    case 'bad-times':
      return `The times of its lines lie outside 2000 to 2100; the first is "${issue.firstLine}". Set the board’s clock, or take the times out of the file: then the lines are taken to be evenly spaced.`;
  }
}

export function benchRecordingText(issue: BenchRecordingIssue): string {
  switch (issue.kind) {
    case 'not-a-recording':
      return 'Its first line is damaged, so it cannot be played. Choose another recording.';
    case 'newer':
      return `It is of version ${issue.version}; this program plays version 1. Open it with the newer program it came from.`;
    case 'no-lines':
      return 'It holds no line: the recording was saved before anything came in.';
  }
}

export function notUnderstoodText(reason: NotUnderstood): string {
  switch (reason) {
    case 'garbage':
      return 'characters that are no text: most likely the wrong speed';
    case 'too-long':
      return 'longer than 4096 characters; what was beyond them was cut off';
    case 'bad-json':
      return 'JSON that is cut off or damaged';
    case 'decimal-comma':
      return 'a decimal comma; print a decimal point';
    case 'not-finite':
      return 'a number too large to hold, or "nan"';
    case 'absurd':
      return 'a number larger than any probe gives (±1,000,000,000)';
    case 'no-number':
      return 'no reading in it';
  }
}

const percent = (tenths: number) => `${formatNumber(tenths / 10, 1)} %`;

/** A stretch of a scale as a person reads it: percent, kPa or raw counts. */
const stretch = (tenths: number, scale: PercentScale): string =>
  scale.percentKind === 'counts'
    ? `${formatNumber(Math.abs((tenths / 10) * countsPerPercent(scale)))} counts`
    : scale.percentKind === 'tension'
      ? `${formatNumber(Math.abs(tenths / 10), 1)} kPa`
      : percent(tenths);

/** The ends of a scale in the same. */
function endsText(scale: PercentScale): string {
  if (scale.percentKind === 'tension') return '0 and 100 kPa';
  if (scale.percentKind !== 'counts') return '0 and 100 %';
  const [low, high] = [scale.dryCounts, scale.wetCounts].map(Math.round).sort((a, b) => a - b);
  return `${formatNumber(low ?? 0)} and ${formatNumber(high ?? 0)} counts, for the two cut-offs were taken; take them again to go further`;
}

export function limitText(issue: LimitIssue, scale: PercentScale): string {
  switch (issue.kind) {
    case 'not-a-number':
      return `Type a number for the ${issue.at} limit.`;
    case 'off-scale':
      return `The ${issue.at} limit must lie between ${endsText(scale)}.`;
    case 'beyond':
      return issue.range.mostBy === 'pores'
        ? `The ${issue.at} limit must lie between ${formatPercent(issue.range.leastTenths / 10, scale)} and ${formatPercent(issue.range.mostTenths / 10, scale)}: there all pores of this soil are full.`
        : `The ${issue.at} limit must lie between ${formatPercent(issue.range.leastTenths / 10, scale)} and ${formatPercent(issue.range.mostTenths / 10, scale)}: beyond that this calibration says nothing.`;
    case 'too-close':
      return issue.gapTenths < 0
        ? `The start limit lies ${risesDrying(scale) ? 'below' : 'above'} the stop limit. Water starts at the drier and stops at the wetter one.`
        : `Start and stop are ${stretch(issue.gapTenths, scale)} apart; with this noise they must be at least ${stretch(issue.neededTenths, scale)} apart, or the pump would flutter.`;
  }
}

export const edgeText = (issue: EdgeIssue): string =>
  issue.leastTenths > 1000
    ? `"${BAND_NAMES[4]}" needs at least 1 % of room, or none: lower the edge before it, or put it at 100.`
    : `The edge after "${BAND_NAMES[issue.at] ?? ''}" must be at least ${percent(issue.leastTenths)}: each band is 1 % wide or more.`;
