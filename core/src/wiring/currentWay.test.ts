import { expect, test } from 'vitest';
import { catalogueWith } from '../catalogue/catalogue.ts';
import { readCircuit } from './circuit.ts';
import { waysOf } from './currentWay.ts';
import { sketchNetlist, type Sketched } from './sketchNetlist.ts';

const read = (text: string, more: Sketched = {}) => readCircuit(sketchNetlist(text, more), catalogueWith([]));
const ways = (text: string, part: string, more: Sketched = {}) => {
  const circuit = read(text, more);
  const placed = circuit.parts.get(part);
  if (!placed) throw new Error(`no ${part}`);
  return waysOf(circuit, placed);
};

const pump =
  'roof: board-wifi-two-groups; u: supply-usb; u.out - roof.v5; u.gnd - roof.gnd; b: battery-12v; f: fuse; b.plus - f.a; b.gnd - roof.gnd; p: pump-12v; p.plus - f.b; q: switch-mosfet; q.source - b.gnd; p.minus - q.drain; r: resistor; r.a - roof.p18; r.b - q.gate; d: resistor; d.a - q.gate; d.b - q.source';
const values = {
  parts: { f: { settings: { fuseA: 5 } }, r: { settings: { ohm: 220 } }, d: { settings: { ohm: 100_000 } } },
};

test('a pump: from the battery through fuse, pump and switch, and back to the battery', () => {
  const [on] = ways(pump, 'p', values);
  expect(on?.when).toBe('with roof P18 on');
  expect(on?.parts).toEqual(['b', 'f', 'p', 'q', 'b']);
  // The four wires that carry it, and no other.
  expect(on?.wires.length).toBe(4);
  // 14.4 V over 13.33 Ω, 0.04 Ω of the switch, fuse and battery: 1.08 A.
  expect(on?.current.value).toBeCloseTo((14.4 / (12 / 0.9 + 0.04 + 0.01 + 0.0144 + 5e-3)) * 1000, 0);
  expect(on?.voltage.value).toBeCloseTo(14.33, 1);
});

test('each wire on the way is told with all that it carries: the one from a fuse that feeds two carries both', () => {
  const [ofTwo] = ways(`${pump}; p2: pump-12v; p2.plus - f.b; p2.minus - b.gnd`, 'p', values);
  const [alone] = ways(pump, 'p', values);
  const most = (way: typeof alone) => Math.max(...(way?.wires.map(({ ma }) => ma) ?? []));
  const least = (way: typeof alone) => Math.min(...(way?.wires.map(({ ma }) => ma) ?? []));
  // Alone, all four carry the pump's current, but for the microamps of the gate's resistor.
  expect(most(alone) - least(alone)).toBeLessThan(0.1);
  expect(least(alone)).toBeCloseTo(alone?.current.value ?? NaN, 0);
  // With a second pump behind the same fuse, without a switch, the battery’s wire carries both: twice as much.
  expect(most(ofTwo) / least(ofTwo)).toBeCloseTo(2, 1);
  expect(least(ofTwo)).toBeCloseTo(ofTwo?.current.value ?? NaN, 0);
});

test('a lamp on a pin: the way begins and ends at the board that drives it', () => {
  const [on] = ways(
    'roof: board-wifi-two-groups; u: supply-usb; u.out - roof.v5; u.gnd - roof.gnd; r: resistor; l: lamp-led; roof.p18 - r.a; r.b - l.anode; l.cathode - roof.gnd',
    'l',
    { parts: { r: { settings: { ohm: 270 } } } },
  );
  expect(on?.parts).toEqual(['roof', 'r', 'l', 'roof']);
  expect(on?.current.value).toBeCloseTo(4.52, 1);
});

test('a probe: what it takes, from the board’s own supply', () => {
  const [idle] = ways(
    'roof: board-wifi-two-groups; u: supply-usb; u.out - roof.v5; u.gnd - roof.gnd; l1: probe-capacitive; l1.vcc - roof.out33; l1.gnd - roof.gnd',
    'l1',
  );
  expect(idle?.parts).toEqual(['roof', 'l1', 'roof']);
  expect(idle?.current.value).toBeCloseTo(5, 3);
});

test('a part that never carries a current has no way', () => {
  expect(ways('d: diode', 'd')).toEqual([]);
});
