import { expect, test } from 'vitest';
import type { Fault, Rule } from '@plain-trowel/core/garden/document/faults';
import { faultText, refusedText } from './gardenFaultText.ts';
import { waitingText } from './storageText.ts';
import { takenInText } from './importText.ts';

const fault = (path: Fault['path'], rule: Rule): Fault => ({ path, field: '', rule, value: null });

test.each([
  [
    ['reservoirs', 0, 'levels'],
    { kind: 'too-many', most: 12 },
    'Reservoir 1, levels: at most 12 can be kept.',
  ],
  [
    ['reservoirs', 1, 'levels', 2, 'raw'],
    { kind: 'below', least: -1_000_000 },
    'Reservoir 2, level 3, raw value: at least −1,000,000.',
  ],
  [
    ['waterLines', 0, 'outlets'],
    { kind: 'too-many', most: 60 },
    'Water line 1, outlets: at most 60 can be kept.',
  ],
  [['waterLines', 0, 'flowMlPerS'], { kind: 'above', most: 1000 }, 'Water line 1, flow: at most 1,000 ml/s.'],
  [['waterLines', 0, 'maxRunS'], { kind: 'not-whole' }, 'Water line 1, max run: must be a whole number.'],
  [['catalogue'], { kind: 'too-many', most: 500 }, 'Own parts: at most 500 can be kept.'],
  [['boards', 0, 'supplyV'], { kind: 'below', least: 1 }, 'Board 1, supply: at least 1 V.'],
  [['name'], { kind: 'empty' }, 'Name: must not be empty.'],
  [['plots', 3, 'hue'], { kind: 'unknown-field' }, 'Plot 4, hue: is a field that no garden has.'],
] as const)('%j %j', (path, rule, text) => {
  expect(faultText(fault(path, rule)).replaceAll(/[\u2009\u202f\u00a0]/g, ',')).toBe(text);
});

test('a refused change says that nothing was saved, what did not fit, and how much more', () => {
  const many = fault(['plots'], { kind: 'too-many', most: 200 });
  expect(refusedText([many, many, many])).toBe(
    'This was not saved: it could not be opened again. Plots: at most 200 can be kept. 2 more things do not fit. The garden is as it was.',
  );
});

test.each([
  [{ readings: 0, events: 0 }, ''],
  [{ readings: 1, events: 0 }, '1 reading waits in this page and is tried again every two seconds.'],
  [
    { readings: 3, events: 1 },
    '3 readings and 1 event wait in this page and are tried again every two seconds.',
  ],
])('what waits: %j', (waiting, text) => expect(waitingText(waiting)).toBe(text));

test.each([
  [
    { added: 1, beside: 0 },
    { same: 0, clashes: 0, inside: 0 },
    'UTF-8',
    '1 new reading was taken in from a.csv.',
  ],
  [
    { added: 5, beside: 2 },
    { same: 1, clashes: 1, inside: 1 },
    'UTF-8',
    '5 new readings were taken in from a.csv; 2 of them stand beside recorded ones; 1 reading was in the log already.',
  ],
  [
    { added: 3, beside: 0 },
    { same: 0, clashes: 2, inside: 0 },
    'Windows-1252',
    '3 new readings were taken in from a.csv; 2 readings with other values were left out. The file was read as Windows-1252.',
  ],
])('what was taken in: %j %j', (outcome, preview, encoding, text) =>
  expect(takenInText('a.csv', outcome, preview, encoding)).toBe(text),
);
