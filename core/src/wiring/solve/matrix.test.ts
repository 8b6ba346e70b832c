import fc from 'fast-check';
import { expect, test } from 'vitest';
import { solveSparse, type Row } from './matrix.ts';

const rows = (matrix: readonly (readonly number[])[]): Row[] =>
  matrix.map((row) => new Map(row.flatMap((factor, at) => (factor === 0 ? [] : [[at, factor] as const]))));

test('two equations by hand: 2x + y = 5, x + 3y = 10 give 1 and 3', () => {
  const found = solveSparse(
    rows([
      [2, 1],
      [1, 3],
    ]),
    [5, 10],
  );
  expect(found?.[0]).toBeCloseTo(1, 12);
  expect(found?.[1]).toBeCloseTo(3, 12);
});

test('an unknown that nothing holds has no solution', () => {
  expect(
    solveSparse(
      rows([
        [1, 0],
        [0, 0],
      ]),
      [1, 0],
    ),
  ).toBeNull();
});

test('whatever the conductances between up to twelve nodes, what is found fits every equation', () => {
  const wire = fc.tuple(fc.nat(11), fc.nat(11), fc.double({ min: 1e-6, max: 100, noNaN: true }));
  fc.assert(
    fc.property(
      fc.array(wire, { maxLength: 40 }),
      fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 12, maxLength: 12 }),
      (wires, amps) => {
        const matrix = Array.from({ length: 12 }, (_, at) =>
          Array.from({ length: 12 }, (__, to): number => (at === to ? 1e-3 : 0)),
        );
        const add = (row: number, column: number, by: number) => {
          const line = matrix[row];
          if (line) line[column] = (line[column] ?? 0) + by;
        };
        for (const [one, other, siemens] of wires)
          if (one !== other) {
            add(one, one, siemens);
            add(other, other, siemens);
            add(one, other, -siemens);
            add(other, one, -siemens);
          }
        const volts = solveSparse(rows(matrix), [...amps]) ?? [];
        for (const [at, row] of matrix.entries()) {
          const sum = row.reduce((all, factor, to) => all + factor * (volts[to] ?? NaN), 0);
          expect(Math.abs(sum - (amps[at] ?? 0))).toBeLessThan(1e-6);
        }
      },
    ),
    { seed: 5, numRuns: 200 },
  );
});
