import fc from 'fast-check';
import { expect, test } from 'vitest';
import { SymmetricSystem } from './matrix.ts';

test('two conductances by hand: 1 S to zero at each, 2 S between, 1 A into the first: 3x − 2y = 1, 3y − 2x = 0', () => {
  const system = new SymmetricSystem(2, [[0, 1]]);
  system.clear(1);
  system.addBetween(0, 0, 1, 2);
  const found = system.solve(Float64Array.from([1, 0]));
  expect(found?.[0]).toBeCloseTo(0.6, 12);
  expect(found?.[1]).toBeCloseTo(0.4, 12);
});

test('the same pattern is solved again with other numbers', () => {
  const system = new SymmetricSystem(2, [[0, 1]]);
  for (const siemens of [5, 0]) {
    system.clear(1);
    system.addBetween(0, 0, 1, siemens);
    const found = system.solve(Float64Array.from([1, 0]));
    // (1 + g) / (1 + 2g) at the first.
    expect(found?.[0]).toBeCloseTo((1 + siemens) / (1 + 2 * siemens), 12);
  }
});

test('an unknown that nothing holds has no solution', () => {
  const system = new SymmetricSystem(2, []);
  system.clear(0);
  system.addDiagonal(0, 1);
  expect(system.solve(Float64Array.from([1, 0]))).toBeNull();
});

test('whatever the conductances between up to twelve nodes, what is found fits every equation', () => {
  const wire = fc.tuple(fc.nat(11), fc.nat(11), fc.double({ min: 1e-6, max: 100, noNaN: true }));
  fc.assert(
    fc.property(
      fc.array(wire, { maxLength: 40 }),
      fc.array(fc.double({ min: -1, max: 1, noNaN: true }), { minLength: 12, maxLength: 12 }),
      (wires, amps) => {
        const system = new SymmetricSystem(
          12,
          wires.map(([one, other]) => [one, other] as const),
        );
        system.clear(1e-3);
        for (const [pair, [one, other, siemens]] of wires.entries())
          system.addBetween(pair, one, other, siemens);
        const volts = system.solve(Float64Array.from(amps)) ?? [];
        // What flows out of each node through the wires and to zero is what was put in.
        const out = Array.from({ length: 12 }, (_, at) => 1e-3 * (volts[at] ?? NaN));
        for (const [one, other, siemens] of wires) {
          const flows = siemens * ((volts[one] ?? NaN) - (volts[other] ?? NaN));
          out[one] = (out[one] ?? NaN) + flows;
          out[other] = (out[other] ?? NaN) - flows;
        }
        for (const [at, sum] of out.entries()) expect(Math.abs(sum - (amps[at] ?? 0))).toBeLessThan(1e-6);
      },
    ),
    { seed: 5, numRuns: 200 },
  );
});
