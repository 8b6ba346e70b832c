import { describe, expect, test } from 'vitest';
import { catalogueWith } from '../catalogue/catalogue.ts';
import { readCircuit } from './circuit.ts';
import { sketchNetlist, type Sketched } from './sketchNetlist.ts';

const catalogue = catalogueWith([]);
const voltsAt = (text: string, end: string, more?: Sketched) => {
  const [part = '', terminal = ''] = end.split('.');
  const { level } = readCircuit(sketchNetlist(text, more), catalogue).netOf({ part, terminal });
  return level && level.volts;
};

describe('nets', () => {
  test('wires join terminals into one net, however they are strung', () => {
    const circuit = readCircuit(
      sketchNetlist(
        'roof: board-wifi-two-groups; l1: probe-capacitive; c2: probe-capacitive; l1.gnd - roof.gnd; c2.gnd - l1.gnd',
      ),
      catalogue,
    );
    const net = circuit.netOf({ part: 'roof', terminal: 'gnd' });
    expect(net.spots.map((spot) => `${spot.end.part}.${spot.end.terminal}`).sort()).toEqual([
      'c2.gnd',
      'l1.gnd',
      'roof.gnd',
    ]);
    expect(net.wires).toHaveLength(2);
  });
  test('a wire to a terminal that is not there is told, and joins nothing', () => {
    const circuit = readCircuit(
      sketchNetlist('l1: probe-capacitive; c2: probe-capacitive; l1.nose - c2.gnd'),
      catalogue,
    );
    expect(circuit.danglingWires).toHaveLength(1);
    expect(circuit.netOf({ part: 'c2', terminal: 'gnd' }).spots).toHaveLength(1);
  });
});

describe('voltages', () => {
  test.each([
    { says: 'nothing gives none', text: 'l1: probe-capacitive', end: 'l1.vcc', volts: null },
    {
      says: 'a supply gives its own',
      text: 'usb: supply-usb; l1: probe-capacitive; l1.vcc - usb.out',
      end: 'l1.vcc',
      volts: 5,
    },
    { says: 'a fuse hands it on', text: 'b: battery-12v; f: fuse; f.a - b.plus', end: 'f.b', volts: 14.4 },
    {
      says: 'a motor that stands hands it on',
      text: 'b: battery-12v; p: pump-12v; p.plus - b.plus; q: switch-mosfet; q.drain - p.minus',
      end: 'q.drain',
      volts: 14.4,
    },
    {
      says: 'a probe that follows its supply',
      text: 'r: board-wifi-two-groups; m: probe-fork; m.vcc - r.out33; m.out - r.p34',
      end: 'r.p34',
      volts: 3.3,
    },
    {
      says: 'a probe without supply gives nothing',
      text: 'r: board-wifi-two-groups; m: probe-fork; m.out - r.p34',
      end: 'r.p34',
      volts: null,
    },
    {
      says: 'a shifter gives each side its own',
      text: 'r: board-wifi-two-groups; u: supply-usb; s: level-shifter; s.lv - r.out33; s.hv - u.out; s.lv1 - r.p18',
      end: 'r.p18',
      volts: 3.3,
    },
    {
      says: 'a loop with its shunt: 21 mA × 150 Ω',
      text: 's: supply-12v; l: probe-loop; l.plus - s.out; sh: shunt; sh.in - l.minus',
      end: 'sh.in',
      volts: 3.15,
    },
    {
      says: 'a loop without a shunt: the whole supply',
      text: 's: supply-12v; l: probe-loop; l.plus - s.out; r: board-wifi-two-groups; r.p34 - l.minus',
      end: 'r.p34',
      volts: 12,
    },
    {
      says: 'an output pin gives its logic voltage',
      text: 'r: board-wifi-two-groups; q: switch-mosfet; q.gate - r.p18',
      end: 'q.gate',
      volts: 3.3,
    },
    {
      says: 'an input pin gives nothing',
      text: 'r: board-wifi-two-groups; f: contact-float; f.out - r.p18',
      end: 'f.out',
      volts: null,
    },
  ])('$says', ({ text, end, volts }) => {
    const found = voltsAt(text, end);
    if (volts === null) expect(found).toBeNull();
    else expect(found).toBeCloseTo(volts, 9);
  });
  test('a divider scales: 12 V battery at 14.4 V over 100 kΩ and 10 kΩ is 1.31 V', () => {
    expect(voltsAt('b: battery-12v; m: monitor-battery; m.in - b.plus', 'm.out')).toBeCloseTo(
      (14.4 * 10) / 110,
      9,
    );
  });
  test('a divider without values makes the voltage not known, never zero', () => {
    const circuit = readCircuit(
      sketchNetlist('u: supply-usb; d: divider; d.in - u.out; r: board-wifi-two-groups; d.out - r.p34'),
      catalogue,
    );
    expect(circuit.netOf({ part: 'r', terminal: 'p34' }).level).toMatchObject({ volts: null });
  });
  test('the highest of two sources counts, and says where it comes from', () => {
    const circuit = readCircuit(sketchNetlist('u: supply-usb; b: battery-12v; u.out - b.plus'), catalogue);
    expect(circuit.netOf({ part: 'u', terminal: 'out' }).level).toMatchObject({
      volts: 14.4,
      from: { end: { part: 'b' } },
    });
  });
  test('a ring of resistors comes to an end', () => {
    const text = 'u: supply-usb; a: resistor; b: resistor; a.a - b.b; b.a - a.b; u.out - a.a';
    expect(voltsAt(text, 'b.a')).toBe(5);
  });
});
