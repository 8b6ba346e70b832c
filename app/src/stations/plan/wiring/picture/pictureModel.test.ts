import { describe, expect, test } from 'vitest';
import { catalogueWith } from '@plain-trowel/core/catalogue/catalogue';
import { readCircuit } from '@plain-trowel/core/wiring/circuit';
import { sketchNetlist } from '@plain-trowel/core/wiring/sketchNetlist';
import { lightsOf } from '../lighting.ts';
import { sumOfPart } from '../sums/sumOfPart.ts';
import { pictureOf, terminalY } from './pictureModel.ts';

const circuit = readCircuit(
  sketchNetlist(
    `roof: board-wifi-two-groups; bat: battery-12v; f: fuse; l1: probe-capacitive; q: switch-mosfet; pump: pump-12v; r: resistor
     bat.plus - f.a @s; f.b - pump.plus @p; pump.minus - q.drain @p; q.source - bat.gnd; r.a - roof.p18; r.b - q.gate
     l1.vcc - roof.out33 @l; l1.gnd - roof.gnd @l; l1.out - roof.p34 @l`,
    {
      parts: {
        r: { settings: { ohm: 180 } },
        f: { settings: { fuseA: 5 } },
        l1: { label: 'L1', colour: 'yellow' },
      },
      cables: {
        s: { label: 'Supply', colour: 'red' },
        l: { label: 'L1', colour: 'yellow' },
        p: { label: 'pump' },
      },
    },
  ),
  catalogueWith([]),
);
const strip = (id: string, allPins = false) => {
  const found = pictureOf(circuit, 'all', allPins).strips.find((one) => one.id === id);
  if (!found) throw new Error(`no strip ${id}`);
  return found;
};

describe('strips', () => {
  test('columns run from the battery over fuse, board and switch to the plants', () => {
    expect(['bat', 'f', 'roof', 'q', 'l1'].map((id) => strip(id).column)).toEqual([0, 1, 2, 3, 4]);
  });
  test('a board shows the pins in use and counts the rest; asked for, it shows all', () => {
    const pins = (all: boolean) =>
      strip('roof', all)
        .terminals.filter((one) => /^P\d+$/.test(one.name))
        .map((one) => one.name);
    expect(pins(false)).toEqual(['P34', 'P18']);
    expect(strip('roof').hidden).toBe(pins(true).length - 2);
    expect(strip('roof', true).hidden).toBe(0);
  });
  test('small parts are chips with their value', () => {
    expect(strip('r')).toMatchObject({ isChip: true, name: '180 Ω' });
    expect(strip('f')).toMatchObject({ isChip: true, name: '5 A' });
    expect(strip('q').isChip).toBe(false);
  });
  test('terminals of one side stand one below the other inside their strip', () => {
    const { terminals, height } = strip('l1');
    const ys = terminals.map((one) => terminalY(strip('l1'), one.row));
    expect(terminals.map((one) => one.side)).toEqual(['left', 'left', 'left']);
    expect(new Set(ys).size).toBe(3);
    for (const y of ys) expect(y).toBeLessThan(height);
  });
});

describe('wires', () => {
  const shown = (what: 'all' | 'signals' | 'supply') => pictureOf(circuit, what, false).strands;
  test('are supply, ground or signal', () => {
    const kinds = Object.fromEntries(
      shown('all').map((one) => [`${one.from.part}.${one.from.terminal}`, one.kind]),
    );
    expect(kinds).toMatchObject({
      'bat.plus': 'supply',
      'q.source': 'ground',
      'l1.gnd': 'ground',
      'l1.out': 'signal',
      'l1.vcc': 'supply',
      'r.a': 'signal',
    });
  });
  test('signals and supply together are all of them', () => {
    expect(shown('signals').length + shown('supply').length).toBe(shown('all').length);
    expect(shown('signals').every((one) => one.kind === 'signal')).toBe(true);
  });
  test('are named by both ends and their cable', () => {
    expect(shown('all').map((one) => one.name)).toContain('Wire 9: L1 signal – roof P34, cable L1, yellow');
  });
  test('a cable is named with its colour, once, on a wire that is drawn as a line', () => {
    const tags = shown('all').flatMap(({ tag, isSymbol }) => (tag === null ? [] : [[tag, isSymbol]]));
    expect(tags).toEqual([
      ['Supply red', false],
      ['pump', false],
      ['L1 yellow', false],
    ]);
  });
});

describe('symbols instead of lines', () => {
  const { strands, strips } = pictureOf(circuit, 'all', false);
  const markAt = (part: string, terminal: string) =>
    strips.find(({ id }) => id === part)?.terminals.find(({ id }) => id === terminal)?.mark;
  test('stand for every ground, and for a supply that goes to many places; one that goes to a few is lines', () => {
    const symbols = strands.filter(({ isSymbol }) => isSymbol).map(({ number }) => number);
    // 4: source to battery −, 8: ground of the probe.
    expect(symbols).toEqual([4, 8]);
  });
  test('have the numbers of their wires at both ends; lines have them above', () => {
    for (const [part, terminal] of [
      ['l1', 'gnd'],
      ['roof', 'gnd'],
    ] as const)
      expect(markAt(part, terminal)).toEqual({ symbol: 'ground', text: '8', isJoin: false });
    expect(markAt('l1', 'out')).toEqual({ symbol: null, text: '9', isJoin: false });
    expect(markAt('roof', 'p34')).toEqual({ symbol: null, text: '9', isJoin: false });
  });
  test('of a supply behind a fuse name the fuse: its wires are not those of the battery', () => {
    const fused = readCircuit(
      sketchNetlist(
        `bat: battery-12v; f1: fuse; ${[1, 2, 3, 4].map((at) => `p${at}: pump-12v`).join('; ')}
         bat.plus - f1.a; ${[1, 2, 3, 4].map((at) => `f1.b - p${at}.plus`).join('; ')}`,
      ),
      catalogueWith([]),
    );
    const pump = pictureOf(fused, 'all', false).strips.find(({ id }) => id === 'p2');
    expect(pump?.terminals.find(({ id }) => id === 'plus')?.mark).toMatchObject({
      symbol: 'supply',
      text: 'after f1 3',
    });
  });
  test('name the supply that they come from, and where several wires meet', () => {
    const many = readCircuit(
      sketchNetlist(
        `roof: board-wifi-two-groups; ${[1, 2, 3, 4, 5].map((at) => `s${at}: probe-capacitive`).join('; ')}
         ${[1, 2, 3, 4, 5].map((at) => `s${at}.vcc - roof.out33`).join('; ')}`,
      ),
      catalogueWith([]),
    );
    const board = pictureOf(many, 'all', false).strips.find(({ id }) => id === 'roof');
    expect(board?.terminals.find(({ id }) => id === 'out33')?.mark).toEqual({
      symbol: 'supply',
      text: '3.3 V 1 2 3 +2',
      isJoin: true,
    });
    expect(board?.pad.right).toBeGreaterThan(14 * 6);
  });
  test('asked for supplies and grounds alone, all of them are lines', () =>
    expect(pictureOf(circuit, 'supply', false).strands.some(({ isSymbol }) => isSymbol)).toBe(false));
});

test('a finding lights the wires between its terminals, not the whole ground', () => {
  const lit = lightsOf(circuit, {
    check: 'any',
    severity: 'fault',
    says: '',
    remedies: [],
    ends: [
      { part: 'l1', terminal: 'out' },
      { part: 'roof', terminal: 'p34' },
      { part: 'roof', terminal: 'gnd' },
    ],
  });
  const names = circuit.netlist.wires
    .filter((wire) => lit.wires.has(wire.id))
    .map((wire) => `${wire.from.part}.${wire.from.terminal}`);
  expect(names.sort()).toEqual(['l1.gnd', 'l1.out']);
  expect(lit.ends).toContain('l1.out');
});

describe('the sum of a part', () => {
  const sumAt = (id: string) => {
    const placed = circuit.parts.get(id);
    return placed ? sumOfPart(circuit, placed) : null;
  };
  test('a MOSFET’s starts with the pin and the pump of this wiring', () => {
    expect(sumAt('q')).toEqual({
      id: 'gate',
      start: { pinV: 3.3, pinMa: 20, gateFullOnV: 2.5, onOhm: 0.04, loadMa: 900 },
    });
  });
  test('a board has none', () => {
    expect(sumAt('roof')).toBeNull();
  });
});
