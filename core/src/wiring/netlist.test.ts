import { describe, expect, test } from 'vitest';
import { catalogueWith } from '../catalogue/catalogue.ts';
import { readCircuit, type Circuit } from './circuit.ts';
import { runCheck, type Check, type CheckResult } from './finding.ts';
import { netlistSchema, type Netlist } from './netlist.ts';
import { sketchNetlist } from './sketchNetlist.ts';

const sound = sketchNetlist('roof: board-wifi-two-groups; l1: probe-capacitive; l1.out - roof.p34 @c', {
  parts: { l1: { boardId: 'roof' } },
});

describe('a netlist from a file', () => {
  test('is taken as it was written', () => {
    expect(netlistSchema.parse(structuredClone(sound))).toEqual(sound);
  });
  const damaged = (change: (netlist: Netlist) => unknown): string[] => {
    const copy = structuredClone(sound);
    change(copy);
    return netlistSchema.safeParse(copy).error?.issues.map((issue) => issue.path.join('.')) ?? [];
  };
  test.each([
    ['a part twice', (n: Netlist) => n.parts.push(...n.parts.slice(0, 1)), ['parts.2.id']],
    [
      'a wire to a part that is not there',
      (n: Netlist) => Object.assign(n.wires[0]?.to ?? {}, { part: 'gone' }),
      ['wires.0.to.part'],
    ],
    [
      'a wire in a cable that is not there',
      (n: Netlist) => Object.assign(n.wires[0] ?? {}, { cableId: 'gone' }),
      ['wires.0.cableId'],
    ],
    [
      'a part of a board that is not there',
      (n: Netlist) => Object.assign(n.parts[1] ?? {}, { boardId: 'gone' }),
      ['parts.1.boardId'],
    ],
    [
      'an address off the bus',
      (n: Netlist) => Object.assign(n.parts[1] ?? {}, { address: 300 }),
      ['parts.1.address'],
    ],
    [
      'a figure out of its range',
      (n: Netlist) => Object.assign(n.parts[1]?.settings ?? {}, { ohm: -1 }),
      ['parts.1.settings.ohm'],
    ],
    [
      'a cable longer than any garden',
      (n: Netlist) => Object.assign(n.cables[0] ?? {}, { lengthM: 1e6 }),
      ['cables.0.lengthM'],
    ],
    [
      'a label of blanks',
      (n: Netlist) => Object.assign(n.parts[0] ?? {}, { label: '  ' }),
      ['parts.0.label'],
    ],
  ] as const)('%s is refused, with its place', (_, change, paths) => {
    expect(damaged(change)).toEqual(paths);
  });
});

describe('the verdict of a check', () => {
  const circuit: Circuit = readCircuit(sound, catalogueWith([]));
  const verdict = (run: Check['run']): CheckResult =>
    runCheck({ id: 'any', title: '', why: '', run }, circuit, { radioOn: null, tapWater: null });
  test('nothing to judge: not needed', () => {
    expect(verdict(() => undefined)).toMatchObject({ verdict: 'not needed', judged: 0 });
  });
  test('all in order: passed', () => {
    expect(verdict((_, report) => [1, 2].forEach(report.fine))).toMatchObject({
      verdict: 'passed',
      judged: 2,
    });
  });
  test('one place not known among sound ones: not passed', () => {
    expect(
      verdict((_, report) => {
        report.fine();
        report.unknown('what it bears is not known', []);
      }),
    ).toMatchObject({ verdict: 'unknown', judged: 2 });
  });
  test('something found beside something not known: found, and both are told', () => {
    const result = verdict((_, report) => {
      report.unknown('a', []);
      report.find('fault', 'b', []);
    });
    expect(result.verdict).toBe('found');
    expect(result.findings.map((one) => one.severity)).toEqual(['unknown', 'fault']);
  });
});
