import type { PercentKind } from '@plain-trowel/core/quantity/percentKind';
import { describe, expect, test } from 'vitest';
import type { GardenFileIssue } from '@plain-trowel/core/garden/document/gardenFile';
import type { Fault } from '@plain-trowel/core/garden/document/faults';
import type { CsvIssue, RowProblem } from '@plain-trowel/core/records/readingsCsv';
import {
  csvText,
  edgeText,
  gardenFileText,
  limitText,
  notUnderstoodText,
  rowProblemText,
  serialLogText,
} from './issueText.ts';

const fault: Fault = {
  path: ['plots', 0, 'name'],
  field: 'plots[0].name',
  rule: { kind: 'empty' },
  value: '',
};

describe('a garden file that is wrong', () => {
  const cases: readonly (readonly [GardenFileIssue, RegExp])[] = [
    [{ kind: 'empty' }, /is empty/],
    [{ kind: 'binary' }, /is not text/],
    [{ kind: 'not-json' }, /cut off or damaged/],
    [{ kind: 'not-a-garden' }, /not a garden/],
    [{ kind: 'newer-version', version: 99, known: 1 }, /version 99; this program reads up to version 1/],
    [{ kind: 'bad-version', version: 'one' }, /"one", which is no version/],
    [{ kind: 'field', fault, more: 0 }, /Plot 1, name: must not be empty\. The garden/],
    [{ kind: 'field', fault, more: 1 }, /1 more field is wrong too/],
    [{ kind: 'field', fault, more: 3 }, /3 more fields are wrong too/],
  ];
  test.each(cases)('%j', (issue, sentence) => {
    expect(gardenFileText(issue)).toMatch(sentence);
    // What it means for the garden, and that there is something to do; a wrong field is mended on the page that shows it.
    expect(gardenFileText(issue)).toContain('The garden is as it was.');
    if (issue.kind !== 'field') expect(gardenFileText(issue)).toMatch(/(Choose|Export|Open) .*\.$/);
  });
});

describe('a readings file that is wrong', () => {
  const cases: readonly (readonly [CsvIssue, RegExp])[] = [
    [{ kind: 'empty' }, /is empty/],
    [{ kind: 'binary' }, /is not text/],
    [{ kind: 'missing-column', column: 'raw' }, /no column "raw"/],
    [{ kind: 'doubled-column', column: 'raw' }, /column "raw" is there twice/],
    [
      { kind: 'rows', problems: [{ kind: 'columns', row: 4, found: 2, wanted: 8 }], more: 0 },
      /^One row cannot/,
    ],
    [
      { kind: 'rows', problems: [{ kind: 'columns', row: 4, found: 2, wanted: 8 }], more: 990 },
      /^991 rows cannot/,
    ],
    [{ kind: 'no-rows' }, /a header and no readings/],
  ];
  test.each(cases)('%j', (issue, sentence) => {
    expect(csvText(issue)).toMatch(sentence);
    expect(csvText(issue)).toContain('Nothing was taken in.');
  });
});

const rows: readonly (readonly [RowProblem, RegExp])[] = [
  [{ kind: 'decimal-comma', row: 7, text: '12,5' }, /decimal comma in "12,5"/],
  [{ kind: 'cell', row: 3, column: 'raw', text: 'wet' }, /raw reads "wet"; it must be a number/],
  [{ kind: 'cell', row: 3, column: 'time', text: '' }, /time is empty; it must be a date and time/],
  [{ kind: 'cell', row: 3, column: 'flags', text: 'odd' }, /empty, or any of simulated, imported, beside/],
  [{ kind: 'time-range', row: 3, text: '9999-01-01T00:00:00Z' }, /outside 2000 to 2100/],
  [{ kind: 'value-range', row: 3, text: '1e308' }, /larger than any probe gives/],
  [{ kind: 'columns', row: 4, found: 2, wanted: 8 }, /2 columns where the first row has 8/],
  [{ kind: 'unknown-channel', row: 2, channel: 'channel-zz' }, /"channel-zz" is no probe of this garden/],
];
test.each(rows)('a row that cannot be taken in: %j', (problem, sentence) => {
  expect(rowProblemText(problem)).toMatch(sentence);
});

test.each([
  [{ kind: 'empty' } as const, /nothing in it/],
  [
    { kind: 'bad-times', lines: 3, firstLine: '1970-01-01 …' } as const,
    /outside 2000 to 2100; the first is "1970/,
  ],
  [{ kind: 'binary' } as const, /not text/],
  [
    { kind: 'nothing-understood', lines: 1200, firstLine: 'Dear diary' } as const,
    /None of its 1.200 lines holds a reading; the first is "Dear diary"/,
  ],
])('a serial log that is wrong: %j', (issue, sentence) => {
  expect(serialLogText(issue)).toMatch(sentence);
});

test('a line that was not understood names the likely cause', () => {
  expect(notUnderstoodText('garbage')).toContain('wrong speed');
  expect(notUnderstoodText('decimal-comma')).toContain('print a decimal point');
  const all = (
    ['garbage', 'too-long', 'bad-json', 'decimal-comma', 'not-finite', 'absurd', 'no-number'] as const
  ).map(notUnderstoodText);
  expect(new Set(all).size).toBe(7);
});

const scaleOf = (percentKind: PercentKind) => ({
  percentKind,
  dryCounts: 3000,
  wetCounts: 1000,
  dryPercent: 0,
  wetPercent: 100,
});

test.each([
  [{ kind: 'not-a-number', at: 'stop' } as const, /Type a number for the stop limit/],
  [{ kind: 'off-scale', at: 'start' } as const, /between 0 and 100 %/],
  [{ kind: 'too-close', gapTenths: -50, neededTenths: 10 } as const, /start limit lies above the stop limit/],
  [
    { kind: 'too-close', gapTenths: 5, neededTenths: 12 } as const,
    /0\.5 % apart; with this noise they must be at least 1\.2 % apart/,
  ],
])('limits that contradict each other: %j', (issue, sentence) => {
  expect(limitText(issue, scaleOf('span'))).toMatch(sentence);
});

test('a limit of raw counts or of a tension is spoken of in those', () => {
  const close = { kind: 'too-close', gapTenths: 5, neededTenths: 12 } as const;
  // Twenty counts are a percent.
  expect(limitText(close, scaleOf('counts'))).toMatch(/10 counts apart; .* at least 24 counts apart/);
  expect(limitText(close, scaleOf('tension'))).toMatch(/0\.5 kPa apart; .* at least 1\.2 kPa apart/);
  expect(limitText({ ...close, gapTenths: -50 }, scaleOf('tension'))).toMatch(
    /start limit lies below the stop limit/,
  );
  expect(limitText({ kind: 'off-scale', at: 'start' }, scaleOf('counts'))).toMatch(
    /between 1\s000 and 3\s000 counts/,
  );
});

test('a band edge out of order names its band and the least it may be', () => {
  expect(edgeText({ kind: 'edge-order', at: 1, leastTenths: 220 })).toBe(
    'The edge after "low" must be at least 22.0 %: each band is 1 % wide or more.',
  );
  expect(edgeText({ kind: 'edge-order', at: 3, leastTenths: 1010 })).toContain(
    '"flooded" needs at least 1 % of room',
  );
});
