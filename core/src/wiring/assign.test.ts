import fc from 'fast-check';
import { expect, test } from 'vitest';
import { assign } from './assign.ts';

const X = Infinity;

test('the plain case: each takes its cheapest', () => {
  expect(
    assign([
      [1, 9],
      [9, 1],
    ]).pinOf,
  ).toEqual([0, 1]);
});

test('one gives way when the other can only use that pin', () => {
  expect(
    assign([
      [0, 5],
      [0, X],
    ]),
  ).toEqual({ pinOf: [1, 0], blocked: [] });
});

test('three that want the same two pins are named together, and the fourth is still served', () => {
  const found = assign([
    [1, 1, X],
    [1, 1, X],
    [1, 1, X],
    [X, X, 1],
  ]);
  expect(found.blocked).toEqual([{ demands: [0, 1, 2], pins: [0, 1] }]);
  expect(found.pinOf[3]).toBe(2);
});

test('nothing to hand out blocks every demand', () => {
  expect(assign([[]])).toEqual({ pinOf: [null], blocked: [{ demands: [0], pins: [] }] });
  expect(assign([])).toEqual({ pinOf: [], blocked: [] });
});

/** Second method: every way to hand out the pins. */
function bruteForce(cost: number[][]): { met: number; total: number } {
  const pins = cost[0]?.length ?? 0;
  let best = { met: -1, total: Infinity };
  const walk = (row: number, used: number, met: number, total: number) => {
    if (row === cost.length) {
      if (met > best.met || (met === best.met && total < best.total)) best = { met, total };
      return;
    }
    walk(row + 1, used, met, total);
    for (let pin = 0; pin < pins; pin += 1) {
      const one = cost[row]?.[pin] ?? X;
      if (one < X && !(used & (1 << pin))) walk(row + 1, used | (1 << pin), met + 1, total + one);
    }
  };
  walk(0, 0, 0, 0);
  return best;
}

test('as many as can be are met, and when all are, at the least cost of all ways', () => {
  const cell = fc.oneof(fc.integer({ min: 0, max: 9 }), fc.constant(X));
  fc.assert(
    fc.property(
      fc
        .integer({ min: 1, max: 5 })
        .chain((pins) =>
          fc.array(fc.array(cell, { minLength: pins, maxLength: pins }), { minLength: 1, maxLength: 5 }),
        ),
      (cost) => {
        const { pinOf, blocked } = assign(cost);
        const given = pinOf.filter((pin) => pin !== null);
        expect(new Set(given).size).toBe(given.length);
        const truth = bruteForce(cost);
        expect(given).toHaveLength(truth.met);
        if (blocked.length === 0)
          expect(pinOf.reduce<number>((sum, pin, row) => sum + (cost[row]?.[pin ?? 0] ?? 0), 0)).toBe(
            truth.total,
          );
        for (const { demands, pins } of blocked) expect(demands.length).toBeGreaterThan(pins.length);
      },
    ),
  );
});
