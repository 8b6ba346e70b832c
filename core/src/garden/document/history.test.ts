import fc from 'fast-check';
import { expect, test } from 'vitest';
import { change, importsOf, newHistory, redo, undo } from './history.ts';

test('undo and redo walk the same path, with the words of each step', () => {
  const done = change(change(newHistory('bare'), 'dry peg', 'capture dry'), 'both pegs', 'capture wet');
  const back = undo(done);
  expect(back.present).toBe('dry peg');
  expect(back.future.map((step) => step.label)).toEqual(['capture wet']);
  expect(undo(back).present).toBe('bare');
  expect(redo(redo(undo(back)))).toEqual(done);
});

test('a new change forgets what had been undone', () => {
  const back = undo(change(newHistory(1), 2, 'two'));
  expect(redo(change(back, 3, 'three')).present).toBe(3);
});

test('nothing to undo or redo leaves everything as it is', () => {
  const start = newHistory(1);
  expect(undo(start)).toBe(start);
  expect(redo(start)).toBe(start);
});

test('handing back the same document is no step', () => {
  const start = newHistory({ a: 1 });
  expect(change(start, start.present, 'nothing')).toBe(start);
});

test('an import is a step of its own although the document is the same, and keeps its id there and back', () => {
  const start = newHistory('bare');
  const done = change(start, start.present, 'take in a file', 'import-1');
  expect([...importsOf(done)]).toEqual(['import-1']);
  expect(undo(done).future).toEqual([{ label: 'take in a file', patch: [], imported: 'import-1' }]);
  expect([...importsOf(undo(done))]).toEqual(['import-1']);
  expect(redo(undo(done))).toEqual(done);
});

test('at most fifty steps are kept, the oldest going first', () => {
  let history = newHistory(0);
  for (let at = 1; at <= 60; at += 1) history = change(history, at, `step ${at}`);
  expect(history.past).toHaveLength(50);
  expect(history.past[0]?.label).toBe('step 11');
});

test('after any changes, undoing all and redoing all ends where it was', () => {
  fc.assert(
    fc.property(fc.array(fc.integer(), { maxLength: 20 }), (values) => {
      let history = newHistory<number | string>('start');
      values.forEach((value, at) => (history = change(history, value + at * 1e6, `${at}`)));
      const end = history;
      values.forEach(() => (history = undo(history)));
      expect(history.present).toBe('start');
      values.forEach(() => (history = redo(history)));
      expect(history).toEqual(end);
    }),
  );
});

test('steps of another document are forgotten instead of breaking it', () => {
  const odd = {
    present: { a: 1 },
    past: [{ label: 'odd', patch: [{ path: ['x', 'y'], value: 1 }] }],
    future: [],
  };
  expect(undo(odd)).toEqual({ present: { a: 1 }, past: [], future: [] });
  expect(redo({ ...odd, past: [], future: odd.past })).toEqual({ present: { a: 1 }, past: [], future: [] });
});
