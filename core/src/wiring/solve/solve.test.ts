/** The solver against sums done by hand, to a thousandth of a volt or of what flows. Resistances that the models bring along stand in the sums. */
import { describe, expect, test } from 'vitest';
import { catalogueWith } from '../../catalogue/catalogue.ts';
import { type Circuit, readCircuit } from '../circuit.ts';
import type { End } from '../netlist.ts';
import { sketchNetlist, type Sketched } from '../sketchNetlist.ts';
import { solvedOf, type Solved } from './solved.ts';
import type { Solution } from './solve.ts';

const catalogue = catalogueWith([]);
const MILLI = 1e-3;

function worked(text: string, more: Sketched = {}) {
  const circuit: Circuit = readCircuit(sketchNetlist(text, more), catalogue);
  const solved = solvedOf(circuit);
  const end = (name: string): End => {
    const [part = '', terminal = ''] = name.split('.');
    return { part, terminal };
  };
  return {
    circuit,
    solved,
    volts: (at: Solution, one: string, other: string) =>
      at.across(solved.mesh.nodeOf(end(one)), solved.mesh.nodeOf(end(other))),
    amps: (at: Solution, part: string, name = 'itself') => {
      const device = solved.mesh.deviceOf(part, name);
      if (!device) throw new Error(`no ${name} of ${part}`);
      return at.ampsOf(device);
    },
    on: (pin: string): Solution => onOf(solved, pin),
  };
}

function onOf(solved: Solved, pin: string): Solution {
  for (const [output, situation] of solved.situations.one)
    if (`${output.use.pin.end.part}.${output.use.pin.end.terminal}` === pin) return solved.of(situation);
  throw new Error(`${pin} is no output`);
}

const ohm = (values: Readonly<Record<string, number>>): Sketched => ({
  parts: Object.fromEntries(Object.entries(values).map(([id, value]) => [id, { settings: { ohm: value } }])),
});

// 14.4 V behind 3 % of 14.4 V / 30 A = 14.4 mΩ.
const BATTERY_OHM = 0.0144;
const roof = 'roof: board-wifi-two-groups; u: supply-usb; u.out - roof.v5; u.gnd - roof.gnd';

describe('by hand', () => {
  test('a divider: 14.4 V × 10 kΩ / (22 kΩ + 10 kΩ + 14 mΩ) = 4.5000 V', () => {
    const { solved, volts } = worked(
      'b: battery-12v; a: resistor; c: resistor; a.a - b.plus; a.b - c.a; c.b - b.gnd',
      ohm({ a: 22_000, c: 10_000 }),
    );
    expect(volts(solved.idle, 'c.a', 'b.gnd')).toBeCloseTo((14.4 * 10_000) / (32_000 + BATTERY_OHM), 3);
  });

  test('an LED: (3.3 − 2.0) V over the pin’s 16.5 Ω, 270 Ω and the lamp’s 1 Ω is 4.522 mA', () => {
    const { on, amps } = worked(
      `${roof}; r: resistor; l: lamp-led; roof.p18 - r.a; r.b - l.anode; l.cathode - roof.gnd`,
      ohm({ r: 270 }),
    );
    expect(amps(on('roof.p18'), 'l')).toBeCloseTo(1.3 / 287.5, 6);
  });

  test('a bare thermistor of 44 to 4.3 kΩ above 10 kΩ: 0.6106 V cold and 2.3070 V hot', () => {
    const { solved, volts } = worked(
      `${roof}; n: thermo-ntc-bare; r: resistor; n.a - roof.out33; n.b - roof.p34; r.a - roof.p34; r.b - roof.gnd`,
      ohm({ r: 10_000 }),
    );
    // The input's own 10 MΩ lie beside the resistor.
    const low = 1 / (1 / 10_000 + 1 / 1e7);
    expect(volts(solved.idle, 'roof.p34', 'roof.gnd')).toBeCloseTo((3.3 * low) / (low + 44_000), 3);
    const [hot] = solved.situations.signals.values();
    if (!hot) throw new Error('the thermistor is no signal');
    expect(volts(solved.of(hot), 'roof.p34', 'roof.gnd')).toBeCloseTo((3.3 * low) / (low + 4300), 3);
  });

  test('a valve on zone 2 of a timer, its permit contact closed: 24 V / (96 Ω + 50 mΩ + 20 mΩ) = 249.8 mA; open, nothing', () => {
    const { on, solved, amps } = worked(
      `${roof}; t: timer-24vac; k: switch-permit; v: valve-24vac; k.vcc - u.out; k.gnd - roof.gnd; k.in - roof.p18; t.z2 - k.common; k.open - v.plus; v.minus - t.gnd`,
    );
    expect(amps(on('roof.p18'), 'v')).toBeCloseTo(24 / 96.07, 5);
    expect(amps(solved.idle, 'v')).toBeCloseTo(0, 6);
    expect(amps(solved.boot, 'v')).toBeCloseTo(0, 6);
  });

  test('two LEDs in series from 5 V: (5 − 4) V over 25 + 150 + 2 Ω is 5.65 mA', () => {
    const { on, amps } = worked(
      'stern: board-8bit-six; u: supply-usb; u.out - stern.v5; u.gnd - stern.gnd; r: resistor; l: lamp-led; m: lamp-led; stern.p4 - r.a; r.b - l.anode; l.cathode - m.anode; m.cathode - stern.gnd',
      ohm({ r: 150 }),
    );
    expect(amps(on('stern.p4'), 'm')).toBeCloseTo(1 / 177, 6);
  });

  test('a transistor as a switch: fully on, the pump has the 14.4 V less 0.15 V and what 0.3 Ω and the battery take', () => {
    const { on, amps, volts } = worked(
      `${roof}; b: battery-12v; b.gnd - roof.gnd; q: switch-transistor; r: resistor; roof.p18 - r.a; r.b - q.base; q.emitter - b.gnd; p: pump-12v; p.plus - b.plus; p.minus - q.collector`,
      { parts: { r: { settings: { ohm: 220 } }, p: { settings: { activeMa: 120, peakMa: 120 } } } },
    );
    const at = on('roof.p18');
    // The pump is 12 V / 120 mA = 100 Ω.
    const current = (14.4 - 0.15) / (100 + 0.3 + BATTERY_OHM);
    expect(amps(at, 'p')).toBeCloseTo(current, 5);
    expect(volts(at, 'p.plus', 'p.minus')).toBeCloseTo(current * 100, 3);
    // Into the base: (3.3 − 0.7) V over 16.5 + 220 + 1 Ω.
    expect(amps(at, 'q', 'base')).toBeCloseTo(2.6 / 237.5, 5);
  });

  test('the same with ten times the base resistor is only half on: 100 times the base current, and no more', () => {
    const { on, amps } = worked(
      `${roof}; b: battery-12v; b.gnd - roof.gnd; q: switch-transistor; r: resistor; roof.p18 - r.a; r.b - q.base; q.emitter - b.gnd; p: pump-12v; p.plus - b.plus; p.minus - q.collector`,
      { parts: { r: { settings: { ohm: 4700 } }, p: { settings: { activeMa: 120, peakMa: 120 } } } },
    );
    expect(amps(on('roof.p18'), 'p')).toBeCloseTo((100 * 2.6) / 4717.5, 4);
  });

  test('two supplies through diodes: the higher one feeds, the lower one gives nothing', () => {
    const { solved, amps, volts } = worked(
      'b: battery-12v; s: supply-12v; b.gnd - s.gnd; d: diode; e: diode; d.anode - b.plus; e.anode - s.out; d.cathode - e.cathode; r: resistor; r.a - d.cathode; r.b - b.gnd',
      ohm({ r: 1000 }),
    );
    const current = (14.4 - 0.7) / (1000 + 0.05 + BATTERY_OHM);
    expect(amps(solved.idle, 'r')).toBeCloseTo(current, 6);
    expect(volts(solved.idle, 'r.a', 'r.b')).toBeCloseTo(current * 1000, 3);
    expect(Math.abs(amps(solved.idle, 's'))).toBeLessThan(1e-6);
  });

  test('a supply at its limit: 5 A into 1 Ω are 5 V, not 12', () => {
    const { solved, volts } = worked('s: supply-12v; r: resistor; r.a - s.out; r.b - s.gnd', ohm({ r: 1 }));
    expect(volts(solved.idle, 's.out', 's.gnd')).toBeCloseTo(5, 2);
  });

  test('a 4–20 mA loop: 20 mA over 150 Ω are 3.000 V, 4 mA are 0.600 V', () => {
    const { solved, volts } = worked(
      `${roof}; s: supply-12v; s.gnd - roof.gnd; lp: probe-loop; sh: shunt; lp.plus - s.out; lp.minus - sh.in; sh.in - roof.p34; sh.gnd - roof.gnd`,
      ohm({ sh: 150 }),
    );
    const [high] = solved.situations.signals.values();
    if (!high) throw new Error('no signal');
    // The input’s 10 MΩ lie beside the shunt.
    const beside = 1 / (1 / 150 + 1 / 1e7);
    expect(volts(solved.of(high), 'sh.in', 'sh.gnd')).toBeCloseTo(0.02 * beside, 3);
    expect(volts(solved.idle, 'sh.in', 'sh.gnd')).toBeCloseTo(0.004 * beside, 3);
  });

  test('a cable: 20 m of 0.5 mm² are 0.7 Ω a wire; a pump of 13.33 Ω keeps 14.4 × 13.33 / 14.75 V', () => {
    const { solved, volts } = worked('b: battery-12v; p: pump-12v; p.plus - b.plus @c; p.minus - b.gnd @c', {
      cables: { c: { lengthM: 20, areaMm2: 0.5 } },
    });
    const pump = 12 / 0.9;
    const wire = (20 * 0.0175) / 0.5;
    expect(volts(solved.idle, 'p.plus', 'p.minus')).toBeCloseTo(
      (14.4 * pump) / (pump + 2 * wire + BATTERY_OHM),
      3,
    );
  });

  test('a diode that clamps: behind 1 kΩ from 14.4 V the node stands 0.7 V and a little above 3.3 V', () => {
    const { solved, volts } = worked(
      `${roof}; b: battery-12v; b.gnd - roof.gnd; r: resistor; d: diode; r.a - b.plus; r.b - d.anode; d.cathode - roof.out33; l: resistor; l.a - roof.out33; l.b - roof.gnd`,
      ohm({ r: 1000, l: 100 }),
    );
    // The 33 mA through 100 Ω come from the board but for the diode's share, so that 3.3 V stay 3.3 V.
    const rail = volts(solved.idle, 'roof.out33', 'roof.gnd');
    expect(Math.abs(rail - 3.3)).toBeLessThan(MILLI);
    const current = (14.4 - 0.7 - rail) / (1000 + 0.05 + BATTERY_OHM);
    expect(volts(solved.idle, 'd.anode', 'roof.gnd')).toBeCloseTo(rail + 0.7 + 0.05 * current, 3);
  });

  test('a step-down regulator: 5 V × 1 A at nine tenths are 5.56 W, of 14.4 V 386 mA and its own 3 mA', () => {
    const { solved, amps } = worked(
      'b: battery-12v; g: regulator-5v; g.vcc - b.plus; g.gnd - b.gnd; r: resistor; r.a - g.out; r.b - g.gnd',
      ohm({ r: 5 }),
    );
    const out = 5 / (5 + 0.02);
    // What it takes at its input follows from the power, and the battery sags a little under it.
    const into = (volts: number) => (out * 5) / volts / 0.9 + 0.003;
    const volts = 14.4 - BATTERY_OHM * into(14.4);
    expect(-amps(solved.idle, 'b')).toBeCloseTo(into(volts), 4);
  });
});

describe('what has no answer', () => {
  test('a gate without pull-down floats while the board starts, with one it does not', () => {
    const text = `${roof}; q: switch-mosfet; q.source - roof.gnd; q.gate - roof.p18`;
    const open = worked(text);
    expect(open.solved.boot.floats(open.solved.mesh.nodeOf({ part: 'q', terminal: 'gate' }))).toBe(true);
    const held = worked(`${text}; d: resistor; d.a - q.gate; d.b - q.source`, ohm({ d: 1_000_000 }));
    expect(held.solved.boot.floats(held.solved.mesh.nodeOf({ part: 'q', terminal: 'gate' }))).toBe(false);
  });

  test('between circuits that nothing joins there is no voltage', () => {
    const { solved, volts } = worked(
      'b: battery-12v; s: supply-12v; r: resistor; r.a - s.out; r.b - s.gnd; p: pump-12v; p.plus - b.plus; p.minus - b.gnd',
      ohm({ r: 100 }),
    );
    expect(volts(solved.idle, 'b.plus', 's.gnd')).toBeNaN();
    expect(volts(solved.idle, 'b.plus', 'b.gnd')).toBeGreaterThan(14);
  });

  test('what feeds itself never starts', () => {
    const { solved, volts } = worked(
      'stern: board-8bit-six; g: regulator-up; g.vcc - stern.out33; g.gnd - stern.gnd; g.out - stern.v5',
    );
    expect(Math.abs(volts(solved.idle, 'stern.v5', 'stern.gnd'))).toBeLessThan(MILLI);
    expect(solved.settled).toBe(true);
  });

  test('a diode turned round carries nothing, an LED neither', () => {
    const { solved, amps } = worked(
      'b: battery-12v; d: diode; r: resistor; d.cathode - b.plus; d.anode - r.a; r.b - b.gnd',
      ohm({ r: 100 }),
    );
    expect(Math.abs(amps(solved.idle, 'd'))).toBeLessThan(1e-6);
  });
});
