import { describe, expect, test } from 'vitest';
import { catalogueWith } from '../catalogue/catalogue.ts';
import { readCircuit } from './circuit.ts';
import { hubsOf, inHalves, neighboursOf } from './neighbours.ts';
import { sketchNetlist } from './sketchNetlist.ts';

const circuit = readCircuit(
  sketchNetlist(
    `roof: board-wifi-two-groups; l1: probe-capacitive; m1: probe-capacitive; r: resistor
     l1.gnd - roof.gnd @l; roof.p34 - l1.out @l; l1.vcc - roof.out33 @l
     m1.out - roof.p35; m1.vcc - roof.out33; roof.gnd - m1.gnd; r.a - roof.p18`,
    { cables: { l: { label: 'L1', colour: 'yellow' } } },
  ),
  catalogueWith([]),
);
const told = (id: string) =>
  neighboursOf(circuit, id).map(({ placed, wires }) => [
    placed.part.id,
    wires.map(({ number, own, other }) => `${number} ${own.terminal} ${other.terminal}`),
  ]);

describe('the parts that a part is wired to', () => {
  test('stand once each with their wires, whichever way a wire was drawn, under the numbers of the table', () => {
    expect(told('l1')).toEqual([['roof', ['3 vcc out33', '1 gnd gnd', '2 out p34']]]);
  });
  test('come in the order of its own terminals', () => {
    const order = neighboursOf(circuit, 'roof').flatMap(({ wires }) => wires.map(({ own }) => own.terminal));
    const terminals = circuit.parts.get('roof')?.entry.terminals.map(({ id }) => id) ?? [];
    for (const { wires } of neighboursOf(circuit, 'roof')) {
      const places = wires.map(({ own }) => terminals.indexOf(own.terminal));
      expect(places).toEqual(places.toSorted((one, other) => one - other));
    }
    expect(new Set(order)).toEqual(new Set(['out33', 'gnd', 'p34', 'p35', 'p18']));
    expect(order).toHaveLength(7);
  });
  test('bring what each wire is for and its cable', () => {
    const [roof] = neighboursOf(circuit, 'l1');
    expect(roof?.wires.map(({ kind, cable }) => [kind, cable?.label])).toEqual([
      ['supply', 'L1'],
      ['ground', 'L1'],
      ['signal', 'L1'],
    ]);
  });
  test('tell where other wires end at the same terminal', () => {
    const [roof] = neighboursOf(circuit, 'l1');
    expect(roof?.wires.map(({ isJoin }) => isJoin)).toEqual([
      { own: false, other: true },
      { own: false, other: true },
      { own: false, other: false },
    ]);
  });
  test('are none for a part that is not there or not wired', () => {
    expect(neighboursOf(circuit, 'nobody')).toEqual([]);
    expect(told('r')).toEqual([['roof', ['7 a p18']]]);
  });
});

describe('a wiring as drawings of one part each', () => {
  test('begins with the part of the most wires and leaves none out', () => {
    const more = readCircuit(
      sketchNetlist(
        `a: resistor; b: board-wifi-two-groups; c: resistor; d: resistor
         a.a - c.a; b.p34 - a.b; b.p35 - c.b; b.p18 - d.a; d.b - c.a`,
      ),
      catalogueWith([]),
    );
    const hubs = hubsOf(more).map(({ placed, neighbours }) => [
      placed.part.id,
      neighbours.flatMap(({ wires }) => wires.map(({ number }) => number)).toSorted(),
    ]);
    // The board and c have three each; then c has two left, and that is all.
    expect(hubs).toEqual([
      ['b', [2, 3, 4]],
      ['c', [1, 5]],
    ]);
  });
  test('draws every wire of the garden once', () => {
    const drawn = hubsOf(circuit).flatMap(({ neighbours }) =>
      neighbours.flatMap(({ wires }) => wires.map(({ id }) => id)),
    );
    expect(drawn.toSorted()).toEqual(circuit.netlist.wires.map(({ id }) => id).toSorted());
  });
  test('of no wires there is no drawing', () =>
    expect(hubsOf(readCircuit(sketchNetlist('a: resistor'), catalogueWith([])))).toEqual([]));
});

describe('in halves', () => {
  const halves = (heights: number[]) => inHalves(heights, (one) => one);
  test('the higher of the two is as low as it can be, in the order that was given', () => {
    expect(halves([3, 1, 1, 3])).toEqual([
      [3, 1],
      [1, 3],
    ]);
    expect(halves([9, 1, 1])).toEqual([[9], [1, 1]]);
    expect(halves([1, 1, 9])).toEqual([[1, 1], [9]]);
  });
  test('one goes to the second, none to neither', () => {
    expect(halves([5])).toEqual([[], [5]]);
    expect(halves([])).toEqual([[], []]);
  });
  test('no other cut is better: every cut of random heights, looked at one by one', () => {
    let state = 3;
    const dice = () => (state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0) / 2 ** 32;
    for (let turn = 0; turn < 100; turn += 1) {
      const heights = Array.from({ length: 1 + Math.floor(dice() * 12) }, () => 1 + Math.floor(dice() * 9));
      const sum = (some: readonly number[]) => some.reduce((all, one) => all + one, 0);
      const higher = ([one, other]: readonly [readonly number[], readonly number[]]) =>
        Math.max(sum(one), sum(other));
      const cuts = heights.map((_, cut) => higher([heights.slice(0, cut), heights.slice(cut)]));
      expect(higher(inHalves(heights, (one) => one))).toBe(Math.min(...cuts));
    }
  });
});
