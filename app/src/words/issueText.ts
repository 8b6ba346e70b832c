/** Sentences for everything that can go wrong with a file, a reference or a limit: what happened, and the one thing to do. */
import type { EdgeIssue } from '@plain-trowel/core/control/bands';
import { BAND_NAMES } from '@plain-trowel/core/control/bands';
import type { LimitIssue } from '@plain-trowel/core/control/limits';
import type { GardenFileIssue } from '@plain-trowel/core/garden/gardenFile';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import type { CsvIssue } from '@plain-trowel/core/records/readingsCsv';
import type { BenchRecordingIssue } from '@plain-trowel/core/signal/benchRecording';
import type { NotUnderstood } from '@plain-trowel/core/signal/line';
import type { SerialLogIssue } from '@plain-trowel/core/signal/serialLog';

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
    case 'field': {
      const more =
        issue.more > 0
          ? ` ${issue.more} more ${issue.more === 1 ? 'field is' : 'fields are'} wrong too.`
          : '';
      return `The field ${issue.field} is wrong: ${issue.message}.${more} ${UNCHANGED} Mend that field in the file and open it again.`;
    }
  }
}

export function csvText(issue: CsvIssue): string {
  const kept = 'Nothing was taken in.';
  switch (issue.kind) {
    case 'empty':
      return `The file is empty. ${kept} Choose a readings CSV.`;
    case 'binary':
      return `The file is not text. ${kept} Choose a readings CSV.`;
    case 'missing-column':
      return `The first row has no column "${issue.column}". ${kept} A readings CSV needs time, raw and channel (or plot and probe).`;
    case 'decimal-comma':
      return `Row ${issue.row} has a decimal comma: ${issue.text.slice(0, 60)}. ${kept} Write numbers with a decimal point and try again.`;
    case 'cell':
      return cellText(issue, kept);
    case 'columns':
      return `Row ${issue.row} has ${issue.found} columns where the first row has ${issue.wanted}. ${kept} Mend that row and try again.`;
    case 'unknown-channel':
      return `Row ${issue.row} belongs to "${issue.channel.slice(0, 60)}", which is no probe of this garden. ${kept} Open the garden it came from, or rename the column’s entries.`;
    case 'no-rows':
      return `The file has a header and no readings. ${kept}`;
  }
}

function cellText(issue: Extract<CsvIssue, { kind: 'cell' }>, kept: string): string {
  const found = issue.text === '' ? 'is empty' : `reads "${issue.text.slice(0, 40)}"`;
  const wanted =
    issue.column === 'time'
      ? 'a date and time with its offset, such as 2026-05-01T09:00:00Z'
      : issue.column === 'raw'
        ? 'a number that fits, such as 1512'
        : 'empty, simulated or imported';
  return `Row ${issue.row}, column ${issue.column}, ${found}; it must be ${wanted}. ${kept}`;
}

export function serialLogText(issue: SerialLogIssue): string {
  switch (issue.kind) {
    case 'empty':
      return 'There is nothing in it. Choose another file, or paste the lines that your board printed.';
    case 'binary':
      return 'The file is not text, so no line can be read from it. Choose the text that your board printed.';
    case 'nothing-understood':
      return `None of its ${formatNumber(issue.lines)} lines holds a reading; the first is "${issue.firstLine}". Print a number, name=value pairs, columns or one JSON object a line.`;
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
      return 'longer than 2000 characters';
    case 'bad-json':
      return 'JSON that is cut off or damaged';
    case 'decimal-comma':
      return 'a decimal comma; print a decimal point';
    case 'not-finite':
      return 'a number too large to hold, or "nan"';
    case 'no-number':
      return 'no reading in it';
  }
}

const percent = (tenths: number) => `${formatNumber(tenths / 10, 1)} %`;

export function limitText(issue: LimitIssue): string {
  switch (issue.kind) {
    case 'not-a-number':
      return `Type a number for the ${issue.at} limit.`;
    case 'off-scale':
      return `The ${issue.at} limit must lie between 0 and 100 %.`;
    case 'too-close':
      return issue.gapTenths < 0
        ? 'The start limit lies above the stop limit. Water starts at the drier and stops at the wetter one.'
        : `Start and stop are ${percent(issue.gapTenths)} apart; with this noise they must be at least ${percent(issue.neededTenths)} apart, or the pump would flutter.`;
  }
}

export const edgeText = (issue: EdgeIssue): string =>
  issue.leastTenths > 1000
    ? `"${BAND_NAMES[4]}" needs at least 2 % of room. Lower the edge before it.`
    : `The edge after "${BAND_NAMES[issue.at] ?? ''}" must be at least ${percent(issue.leastTenths)}: each band is 2 % wide or more.`;
