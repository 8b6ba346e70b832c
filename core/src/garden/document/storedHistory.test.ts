import { describe, expect, test } from 'vitest';
import { setLimits } from '../edits/plots.ts';
import { onePlot } from '../edits/gardenForTests.ts';
import { change, newHistory, redo, undo } from './history.ts';
import { documentsBehind, readHistory, storedHistory } from './storedHistory.ts';
import type { Garden } from './schema.ts';

const garden = onePlot({});
const plotId = garden.plots[0]?.id ?? '';
const limited = (startTenths: number): Garden => setLimits(garden, plotId, { startTenths, stopTenths: 700 });
const history = change(
  change(newHistory(garden), limited(300), 'limits'),
  limited(310),
  'limits again',
  'import-1',
);
const inStorage = (value: unknown): unknown => structuredClone(value);

test('steps come back as they were, and take little room', () => {
  const kept = inStorage(storedHistory(history));
  expect(readHistory(kept, history.present, history.present)).toEqual({ past: history.past, future: [] });
  expect(JSON.stringify(kept).length).toBeLessThan(650);
});

/** The document as version 5 had it: no channels chosen by a line. */
const asVersion5 = (one: Garden): unknown => ({
  ...one,
  version: 5,
  waterLines: one.waterLines.map(({ around: _around, ...line }) => line),
});

describe('steps of an earlier version', () => {
  test('as patches: brought up with the document, and they still lead back', () => {
    const [first, second, third] = [garden, limited(300), limited(310)].map(asVersion5);
    const old = change(change(newHistory(first), second, 'limits'), third, 'limits again');
    const steps = readHistory(inStorage({ version: 5, past: old.past, future: [] }), third, history.present);
    const again = { present: history.present, ...steps };
    expect(undo(undo(again)).present).toEqual(garden);
    expect(redo(undo(again)).present).toEqual(history.present);
  });

  test('as whole documents, of the first versions', () => {
    const past = [
      { label: 'limits', before: asVersion5(garden) },
      { label: 'limits again', before: asVersion5(limited(300)), imported: 'import-1' },
    ];
    const steps = readHistory(inStorage({ past, future: [] }), asVersion5(limited(310)), history.present);
    expect(steps.past.map(({ label, imported }) => [label, imported])).toEqual([
      ['limits', undefined],
      ['limits again', 'import-1'],
    ]);
    expect(undo(undo({ present: history.present, ...steps })).present).toEqual(garden);
  });

  test('a step that leads to no garden is forgotten, with all behind it', () => {
    const past = [
      { label: 'one', before: garden },
      { label: 'two', before: { ...garden, plots: 'none' } },
      { label: 'three', before: limited(300) },
    ];
    const steps = readHistory(inStorage({ past, future: [] }), history.present, history.present);
    expect(steps.past.map((one) => one.label)).toEqual(['three']);
  });
});

test('what is no history gives no steps', () => {
  expect(readHistory('odd', garden, garden)).toEqual({ past: [], future: [] });
  expect(readHistory(undefined, garden, garden)).toEqual({ past: [], future: [] });
  expect(documentsBehind({ past: 7 }, garden)).toEqual([]);
});

test('the documents behind a damaged one can still be had, from steps of either kind', () => {
  expect(documentsBehind(inStorage(storedHistory(history)), history.present)).toEqual([limited(300), garden]);
  expect(documentsBehind({ past: [{ label: 'a', before: garden }], future: [] }, null)).toEqual([garden]);
});
