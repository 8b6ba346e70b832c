import fc from 'fast-check';
import { expect, test } from 'vitest';
import { contradictions } from '../bind/contradictions.ts';
import { airAndWater, firstLine, onePlot } from './gardenForTests.ts';
import { leadersOf, mostDoseMl, newProgram, withProgram } from './newProgram.ts';
import { PROGRAM_KINDS } from '../../control/programs/programs.ts';

const garden = airAndWater(onePlot({ pump: { flowMlPerS: 10 } }), 3000, 1000).garden;
const line = firstLine(garden);
const second = { ...line, id: 'second' };
const both = { ...garden, waterLines: [line, second] };

test('changed from any kind to any other, within any sound guards, nothing contradicts', () => {
  const guards = fc.record({
    maxRunS: fc.integer({ min: 2, max: 600 }),
    minIntervalS: fc.integer({ min: 600, max: 20_000 }),
    tubeS: fc.integer({ min: 0, max: 1 }),
    dailyMaxMl: fc.integer({ min: 100, max: 20_000 }),
    from: fc.constantFrom(...PROGRAM_KINDS),
    to: fc.constantFrom(...PROGRAM_KINDS),
    night: fc.boolean(),
  });
  fc.assert(
    fc.property(guards, ({ from, to, night, ...rest }) => {
      const hours = night ? { fromMinute: 1200, toMinute: 420 } : null;
      const bare = { ...line, ...rest, conditions: { ...line.conditions, hours } };
      const begun = newProgram(from, { ...bare, program: { kind: 'alert-only' } }, both);
      const program = begun && newProgram(to, { ...bare, program: begun }, both);
      expect(program?.kind).toBe(to);
      if (program) expect(contradictions(both, { ...bare, program })).toEqual([]);
    }),
    { seed: 11, numRuns: 500 },
  );
});

test('the largest dose: 20 s at 10 ml a second; less where the day allows less', () => {
  expect(mostDoseMl(line)).toBe(200);
  expect(mostDoseMl({ ...line, tubeS: 5 })).toBe(150);
  expect(mostDoseMl({ ...line, dailyMaxMl: 120 })).toBe(120);
});

test('a line alone on its board has nobody to follow', () => {
  expect(newProgram('follower', line, garden)).toBeNull();
  expect(leadersOf(both, line).map((one) => one.id)).toEqual(['second']);
  expect(
    leadersOf({ ...both, waterLines: [line, { ...second, program: { kind: 'alert-only' } }] }, line),
  ).toEqual([]);
});

test('to alert-only and back changes nothing, and a dose survives a program that has none', () => {
  const own = { kind: 'pulse-soak', pulseMl: 37, soakS: 1200, mostPulses: 3, restS: 20_000 } as const;
  const at = { ...line, program: own };
  const alert = withProgram(at, { kind: 'alert-only' });
  expect(newProgram('pulse-soak', alert, garden)).toEqual(own);
  expect(newProgram('until-wet', alert, garden)).toMatchObject({ capMl: 37 });
  const back = withProgram(alert, own);
  expect(back).toMatchObject({ program: own, laidAside: [{ kind: 'alert-only' }] });
  // Another number of the same kind lays nothing aside.
  expect(withProgram(at, { ...own, pulseMl: 40 }).laidAside).toEqual([]);
});
