import { describe, expect, test } from 'vitest';
import { catalogueWith } from '../catalogue/catalogue.ts';
import { checkWiring } from './checks/all.ts';
import { readCircuit } from './circuit.ts';
import { addPart } from './edit.ts';
import type { Netlist } from './netlist.ts';
import { applyFix, clearPins, planPins } from './planPins.ts';
import { planWiring } from './planWiring.ts';
import { sketchNetlist } from './sketchNetlist.ts';

const catalogue = catalogueWith([]);
const pinOf = (netlist: Netlist, part: string, terminal: string): string[] =>
  netlist.wires.flatMap((wire) =>
    wire.from.part === part && wire.from.terminal === terminal
      ? [`${wire.to.part}.${wire.to.terminal}`]
      : wire.to.part === part && wire.to.terminal === terminal
        ? [`${wire.from.part}.${wire.from.terminal}`]
        : [],
  );
const sticks = (count: number) =>
  Array.from({ length: count }, (_, n) => `s${n}: probe-capacitive`).join('; ');

describe('plan pins', () => {
  test('analog probes go to inputs that work while the radio is on; a switch does not take one', () => {
    const { netlist, blocked } = planPins(
      sketchNetlist(`roof: board-wifi-two-groups; ${sticks(2)}; q: switch-mosfet`),
      catalogue,
      true,
    );
    expect(blocked).toEqual([]);
    const group1 = ['p32', 'p33', 'p34', 'p35', 'p36', 'p39'].map((pin) => `roof.${pin}`);
    for (const part of ['s0', 's1']) expect(group1).toContain(pinOf(netlist, part, 'out')[0]);
    expect(group1).not.toContain(pinOf(netlist, 'q', 'gate')[0]);
    expect(['roof.p0', 'roof.p1', 'roof.p2', 'roof.p3', 'roof.p5', 'roof.p12', 'roof.p15']).not.toContain(
      pinOf(netlist, 'q', 'gate')[0],
    );
  });
  test('all parts of a bus share its two pins', () => {
    const { netlist } = planPins(
      sketchNetlist('roof: board-wifi-two-groups; d: display-i2c; h: probe-humidity'),
      catalogue,
      true,
    );
    for (const part of ['d', 'h']) {
      expect(pinOf(netlist, part, 'sda')).toEqual(['roof.p21']);
      expect(pinOf(netlist, part, 'scl')).toEqual(['roof.p22']);
    }
  });
  test('with the bus in use the inputs that carry it are kept from the probes', () => {
    const { netlist, blocked } = planPins(
      sketchNetlist(`stern: board-8bit-six; d: display-i2c; ${sticks(4)}`),
      catalogue,
      false,
    );
    expect(blocked).toEqual([]);
    expect([0, 1, 2, 3].map((n) => pinOf(netlist, `s${n}`, 'out')[0]).sort()).toEqual([
      'stern.in0',
      'stern.in1',
      'stern.in2',
      'stern.in3',
    ]);
  });
  test('what is wired already stays, and its pin is not given away', () => {
    const { netlist } = planPins(
      sketchNetlist(`stern: board-8bit-six; ${sticks(2)}; s0.out - stern.in0`),
      catalogue,
      false,
    );
    expect(pinOf(netlist, 's0', 'out')).toEqual(['stern.in0']);
    expect(pinOf(netlist, 's1', 'out')).toEqual(['stern.in1']);
  });
  test('cleared and planned again it comes out the same', () => {
    const first = planPins(
      sketchNetlist(`stern: board-8bit-six; d: display-i2c; ${sticks(3)}`),
      catalogue,
      false,
    ).netlist;
    const again = planPins(clearPins(first, catalogue), catalogue, false).netlist;
    expect(again.wires.map(({ from, to }) => [from, to])).toEqual(
      first.wires.map(({ from, to }) => [from, to]),
    );
  });
  test('through a series resistor the pin goes to the resistor’s far side', () => {
    const { netlist } = planPins(
      sketchNetlist('roof: board-wifi-two-groups; q: switch-mosfet; r: resistor; r.b - q.gate'),
      catalogue,
      true,
    );
    expect(pinOf(netlist, 'r', 'a')[0]).toMatch(/^roof\./);
    expect(pinOf(netlist, 'q', 'gate')).toEqual(['r.b']);
  });
});

describe('when it cannot be', () => {
  test('four probes on a board with one input: who is in the way, and the converter that helps', () => {
    const start = sketchNetlist(`w: board-wifi-one; ${sticks(4)}`);
    const { blocked } = planPins(start, catalogue, true);
    expect(blocked[0]).toMatchObject({ boardId: 'w', cap: 'adc', fix: { entryId: 'converter-i2c' } });
    expect(blocked[0]?.says).toBe('s0 and s1 want 2 analog inputs; w has only 1 left (w IN0).');
    const [first] = blocked;
    if (!first) throw new Error('nothing blocked');
    const fixed = planPins(applyFix(start, catalogue, first), catalogue, true);
    expect(fixed.blocked).toEqual([]);
    const inputs = [0, 1, 2, 3].map((n) => pinOf(fixed.netlist, `s${n}`, 'out')[0]);
    expect(new Set(inputs).size).toBe(4);
    expect(inputs.filter((input) => input?.startsWith('converter-1.')).length).toBeGreaterThanOrEqual(3);
  });
  test('seven probes and the radio on: the inputs it takes away are named', () => {
    const { blocked } = planPins(sketchNetlist(`roof: board-wifi-two-groups; ${sticks(7)}`), catalogue, true);
    expect(blocked).toHaveLength(1);
    expect(blocked[0]?.says).toMatch(
      /want 7 analog inputs; roof has only 6 left .*6 more are lost while the radio is on/,
    );
    expect(
      planPins(sketchNetlist(`roof: board-wifi-two-groups; ${sticks(7)}`), catalogue, false).blocked,
    ).toEqual([]);
  });
});

describe('wire it all', () => {
  const parts =
    'roof: board-wifi-two-groups; bat: battery-12v; reg: regulator-5v; l1: probe-capacitive; m1: probe-fork; b1: probe-bus-rods; rs: transceiver-5v; pump: pump-12v; q: switch-mosfet; led: lamp-led; t: thermo-one-wire; d: display-i2c';
  const setting = { radioOn: true, tapWater: false };
  const plan = planWiring(sketchNetlist(parts, { parts: { b1: { address: 1 } } }), catalogue, setting, {
    lengthM: 2,
  });
  test('every part is fed and read, nothing is left to find but what a person must do', () => {
    expect(plan).toMatchObject({ blocked: [], unfed: [] });
    const { findings } = checkWiring(readCircuit(plan.netlist, catalogue), setting);
    expect(
      findings.filter((one) => ['danger', 'fault', 'unknown'].includes(one.severity)).map((one) => one.says),
    ).toEqual([]);
  });
  test('it says what it added: fuse, diode, gate and LED resistors, pull-ups, a shifter for the 5 V transceiver', () => {
    const added = plan.added.join('\n');
    for (const what of [
      /fuse/,
      /diode/,
      /before its gate/,
      /gate to ground/,
      /270 Ω before it/,
      /4\.7 kΩ/,
      /level shifter/,
    ])
      expect(added).toMatch(what);
  });
  test('the pump hangs on the battery’s fuse, never on the board', () => {
    const circuit = readCircuit(plan.netlist, catalogue);
    const net = circuit.netOf({ part: 'pump', terminal: 'plus' });
    expect(net.level?.from.placed.part.id).toBe('bat');
    expect(net.spots.some((spot) => spot.placed.entry.role === 'fuse')).toBe(true);
  });
  test('planned once more it changes nothing', () => {
    expect(planWiring(plan.netlist, catalogue, setting, { lengthM: 2 }).netlist).toEqual(plan.netlist);
  });
  test('without a supply that suits, the part is named and left alone', () => {
    const { unfed } = planWiring(
      addPart(sketchNetlist('u: supply-usb'), catalogue, { entryId: 'pump-12v', label: 'Big pump' }).netlist,
      catalogue,
      setting,
      { lengthM: null },
    );
    expect(unfed).toEqual(['Big pump']);
  });
});
