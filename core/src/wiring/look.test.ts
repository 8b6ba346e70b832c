import { describe, expect, test } from 'vitest';
import { catalogueWith } from '../catalogue/catalogue.ts';
import { readCircuit } from './circuit.ts';
import { boardOf, drawMa, feederOf, freePins, inMa, inOhm, inV, listOf, logicSupply } from './look.ts';
import { driverOf, capFor } from './pinUse.ts';
import { sketchNetlist, type Sketched } from './sketchNetlist.ts';
import { loadOfSupply } from './supplyLoad.ts';

const catalogue = catalogueWith([]);
const read = (text: string, more: Sketched = {}) => {
  const circuit = readCircuit(sketchNetlist(text, more), catalogue);
  const part = (id: string) => {
    const found = circuit.parts.get(id);
    if (!found) throw new Error(`no part ${id}`);
    return found;
  };
  const spot = (name: string) => {
    const [id = '', terminal] = name.split('.');
    const found = part(id).spots.find((one) => one.terminal.id === terminal);
    if (!found) throw new Error(`no terminal ${name}`);
    return found;
  };
  return { circuit, part, spot };
};

describe('numbers in sentences', () => {
  test.each([
    [inV(3.3), '3.30 V'],
    [inV(5), '5.0 V'],
    [inV(14.4), '14.4 V'],
    [inMa(0.5), '0.5 mA'],
    [inMa(46), '46 mA'],
    [inMa(2160), '2.2 A'],
    [inOhm(0.5), '0.5 Ω'],
    [inOhm(150), '150 Ω'],
    [inOhm(4700), '4.7 kΩ'],
    [inOhm(10_000), '10 kΩ'],
    [inOhm(1_500_000), '1.5 MΩ'],
  ])('%s', (text, wanted) => {
    expect(text).toBe(wanted);
  });
  test.each([
    [[], ''],
    [['A'], 'A'],
    [['A', 'B'], 'A and B'],
    [['A', 'B', 'C'], 'A, B and C'],
    [['A', 'B', 'C', 'D', 'E', 'F', 'G'], 'A, B, C, D and 3 more'],
  ])('%j is told as %s', (names, told) => {
    expect(listOf(names)).toBe(told);
  });
});

describe('boards and pins', () => {
  test('a part’s board is the one named, else the one its wires lead to, else the only one', () => {
    const two =
      'roof: board-wifi-two-groups; stern: board-8bit-six; l1: probe-capacitive; c2: probe-capacitive; s1: probe-capacitive; c2.out - stern.in0';
    const { circuit, part } = read(two, { parts: { l1: { boardId: 'roof' } } });
    expect(boardOf(circuit, part('l1'))?.part.id).toBe('roof');
    expect(boardOf(circuit, part('c2'))?.part.id).toBe('stern');
    expect(boardOf(circuit, part('s1'))).toBeNull();
    const one = read('roof: board-wifi-two-groups; l1: probe-capacitive');
    expect(boardOf(one.circuit, one.part('l1'))?.part.id).toBe('roof');
  });
  test('free pins come with the plain ones first, and never one that is wired', () => {
    const { circuit, part } = read('roof: board-wifi-two-groups; q: switch-mosfet; q.gate - roof.p18');
    const free = freePins(circuit, part('roof'), 'out').map((pin) => pin.terminal.id);
    expect(free).not.toContain('p18');
    expect(free.indexOf('p19')).toBeLessThan(free.indexOf('p5'));
    expect(free.indexOf('p19')).toBeLessThan(free.indexOf('p12'));
  });
  test('the supply that matches a board’s logic', () => {
    const { part } = read('roof: board-wifi-two-groups; stern: board-8bit-six');
    expect(logicSupply(part('roof'))?.terminal.id).toBe('out33');
    expect(logicSupply(part('stern'))?.terminal.id).toBe('out5');
  });
  test.each([
    ['a probe’s signal', 'l1: probe-capacitive', 'l1.out', 'adc'],
    ['a gate', 'q: switch-mosfet', 'q.gate', 'out'],
    ['a servo’s pulse', 's: valve-servo', 's.in', 'pwm'],
    ['a float contact', 'f: contact-float', 'f.out', 'in'],
    ['SDA', 'd: display-i2c', 'd.sda', 'sda'],
    ['a transceiver’s output', 'rs: transceiver-33v', 'rs.ro', 'rx'],
    ['a transceiver’s input', 'rs: transceiver-33v', 'rs.di', 'tx'],
    ['1-Wire', 't: thermo-one-wire', 't.data', 'one-wire'],
    ['an LED’s anode', 'l: lamp-led', 'l.anode', 'out'],
    ['an LED’s cathode', 'l: lamp-led', 'l.cathode', null],
    ['a divider behind a probe', 'l1: probe-capacitive; d: divider; l1.out - d.in', 'd.out', 'adc'],
    ['a divider behind a digital output', 't: level-ultrasonic; d: divider; t.echo - d.in', 'd.out', 'in'],
    ['a divider behind a transceiver', 'rs: transceiver-5v; d: divider; rs.ro - d.in', 'd.out', 'rx'],
    ['a diode', 'd: diode', 'd.anode', null],
    ['RS-485 itself', 'b: probe-bus-rods', 'b.a', null],
  ] as const)('%s asks for the right pin', (_, text, name, cap) => {
    const { circuit, spot } = read(text);
    expect(capFor(circuit, spot(name))).toBe(cap);
  });
});

describe('currents', () => {
  test('the most a part takes is the highest of working, start and radio', () => {
    const { part } = read('pump: pump-12v; roof: board-wifi-two-groups; r: resistor');
    expect(drawMa(part('pump'))).toBe(3000);
    expect(drawMa(part('roof'))).toBe(180);
    expect(drawMa(part('r'))).toBeNull();
  });
  test('the driver of a gate is found behind its resistor', () => {
    const { circuit, spot } = read(
      'roof: board-wifi-two-groups; r: resistor; q: switch-mosfet; roof.p18 - r.a; r.b - q.gate',
    );
    expect(driverOf(circuit, spot('q.gate'))?.end).toEqual({ part: 'roof', terminal: 'p18' });
    expect(driverOf(circuit, spot('roof.p18'))).toBeNull();
  });
});

describe('what hangs on a supply', () => {
  test('a board and what it hands on count together', () => {
    const { circuit, spot } = read(
      'usb: supply-usb; roof: board-wifi-two-groups; l1: probe-capacitive; usb.out - roof.v5; roof.out33 - l1.vcc',
    );
    // the board on the air takes 180 mA, the stick 10 mA at most
    expect(loadOfSupply(circuit, spot('usb.out'))).toEqual({ ma: 190, missing: [] });
  });
  test('behind a step-down regulator the current shrinks with the voltage: 180 × 5 / 14.4 / 0.9, and its own 3 mA', () => {
    const { circuit, spot } = read(
      'bat: battery-12v; reg: regulator-5v; roof: board-wifi-two-groups; bat.plus - reg.vcc; reg.out - roof.v5',
    );
    expect(loadOfSupply(circuit, spot('bat.plus')).ma).toBeCloseTo(3 + (180 * 5) / 14.4 / 0.9, 9);
  });
  test('a part whose current is not known is named', () => {
    const { circuit, spot } = read('usb: supply-usb; l1: probe-capacitive; usb.out - l1.vcc', {
      parts: { l1: { settings: { activeMa: null, peakMa: null } } },
    });
    expect(loadOfSupply(circuit, spot('usb.out'))).toEqual({ ma: 0, missing: ['l1'] });
  });
  test('a pump counts once, though its minus sits at the same voltage', () => {
    const { circuit, spot } = read(
      'bat: battery-12v; pump: pump-12v; q: switch-mosfet; bat.plus - pump.plus; pump.minus - q.drain',
    );
    expect(loadOfSupply(circuit, spot('bat.plus')).ma).toBe(3000);
  });
  test('a ring of supplies comes to an end', () => {
    const { circuit, spot } = read(
      'a: board-wifi-two-groups; b: board-wifi-two-groups; a.out33 - b.v5; b.out33 - a.v5',
    );
    expect(Number.isFinite(loadOfSupply(circuit, spot('a.out33')).ma)).toBe(true);
    expect(feederOf(circuit.netOf(spot('b.v5').end))?.end).toEqual({ part: 'a', terminal: 'out33' });
  });
});
