import { expect, test } from 'vitest';
import { formulaInNumbers } from '../quantity/worked.ts';
import { workNeededSpan, workReference, workSpread } from './workReference.ts';

const captured = { condition: 'water', rawCounts: 1144, spreadCounts: 5.44, readings: 21, windowS: 10 };

test('a reference and its spread show the window they were taken from', () => {
  expect(workReference(captured)).toMatchObject({ title: 'Reference: water', value: 1144, decimals: 0 });
  expect(workReference(captured).steps.map(formulaInNumbers)).toEqual(['median of 21 within 10.0']);
  expect(workSpread(captured)).toMatchObject({ value: 5.44, unit: 'counts', decimals: 1 });
  const { readings, window } = workReference(captured).steps[0]?.inputs ?? {};
  expect(readings).toMatchObject({ name: 'the readings', value: 21, unit: '' });
  expect(window).toMatchObject({ name: 'the window', value: 10, unit: 's' });
});

test('where it comes from and what would change it stand with it', () => {
  expect(workReference(captured).source).toMatch(/^Median of the last seconds/);
  expect(workReference(captured).wouldChange).toMatch(/Capturing it again/);
  expect(workSpread(captured).steps.map(formulaInNumbers)).toEqual([
    '1.4826 × median distance of 21 from their median',
  ]);
});

test('a note says what follows from it', () => {
  expect(workReference(captured).note).toMatch(/never edited/);
  expect(workSpread(captured).note).toMatch(/taken too early/);
});

test('a median between two counts keeps its half', () => {
  expect(workReference({ ...captured, rawCounts: 1144.5 }).decimals).toBe(1);
});

test('ten times a noise of 2.4 counts are 24', () => {
  expect(
    workNeededSpan({
      level: 'refuse',
      kind: 'span-too-small',
      isTyped: false,
      spanCounts: 10,
      neededCounts: 24,
      pointIds: [],
    }),
  ).toMatchObject({
    value: 24,
    note: 'The two lie 10 counts apart.',
    wouldChange: 'A calmer signal, or conditions that differ more.',
  });
});
