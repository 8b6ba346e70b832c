import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { applyPatch, diff, patchSchema } from './patch.ts';

/** As a file would hold it. */
const json = fc
  .jsonValue({ maxDepth: 4, stringUnit: 'grapheme' })
  .map((value): unknown => JSON.parse(JSON.stringify(value)));

describe('a patch', () => {
  test('makes the one document of the other, whatever they are, and survives a file', () => {
    fc.assert(
      fc.property(json, json, (from, to) => {
        const patch = patchSchema.parse(JSON.parse(JSON.stringify(diff(from, to))));
        expect(applyPatch(from, patch)).toEqual(to);
      }),
      { seed: 20_261_127, numRuns: 2000 },
    );
  });

  test.each([
    ['a field', { a: { b: 1, c: 2 } }, { a: { b: 1, c: 3 } }, [{ path: ['a', 'c'], value: 3 }]],
    ['a new field', { a: 1 }, { a: 1, b: null }, [{ path: ['b'], value: null }]],
    ['a field less', { a: 1, b: 2 }, { a: 1 }, [{ path: ['b'], gone: true }]],
    [
      'one item of a list',
      [{ x: 1 }, { x: 2 }, { x: 3 }],
      [{ x: 1 }, { x: 9 }, { x: 3 }],
      [{ path: [1, 'x'], value: 9 }],
    ],
    ['an item put in', [1, 2, 4], [1, 2, 3, 4], [{ path: [], at: 2, remove: 0, insert: [3] }]],
    ['an item taken out', { l: [1, 2, 3] }, { l: [1, 3] }, [{ path: ['l'], at: 1, remove: 1, insert: [] }]],
    ['nothing', { a: [1] }, { a: [1] }, []],
  ])('names %s and no more', (_, from, to, patch) => {
    expect(diff(from, to)).toEqual(patch);
  });

  test('leaves alone what it does not touch, so that documents go on sharing it', () => {
    const from = { plots: [{ id: 'a' }, { id: 'b' }], wiring: { parts: [] } };
    const to = applyPatch(from, [{ path: ['plots', 1, 'id'], value: 'c' }]) as typeof from;
    expect(to.wiring).toBe(from.wiring);
    expect(to.plots[0]).toBe(from.plots[0]);
  });

  test.each([
    [{ a: 1 }, [{ path: ['b', 'c'], value: 1 }]],
    [[1], [{ path: [4], value: 1 }]],
    [{ l: [1] }, [{ path: ['l'], at: 0, remove: 3, insert: [] }]],
    ['text', [{ path: ['a'], value: 1 }]],
  ])('on another document than its own it is refused: %j', (document, patch) => {
    expect(() => applyPatch(document, patch)).toThrow(RangeError);
  });
});
