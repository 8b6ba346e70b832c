import { describe, expect, test } from 'vitest';
import { catalogueWith } from '../catalogue/catalogue.ts';
import { addPart, applyRemedy, connect, removePart, removeWire, replacePart, rerouteWire } from './edit.ts';
import { netlistSchema } from './netlist.ts';
import { sketchNetlist } from './sketchNetlist.ts';

const catalogue = catalogueWith([]);
const wiresOf = (netlist: ReturnType<typeof sketchNetlist>) =>
  netlist.wires.map(({ from, to }) => `${from.part}.${from.terminal} - ${to.part}.${to.terminal}`);
const text = 'roof: board-wifi-two-groups; l1: probe-capacitive; l1.out - roof.p34 @c; l1.gnd - roof.gnd @c';

describe('parts and wires', () => {
  test('a new part gets the next label of its role, and its first address', () => {
    const one = addPart(sketchNetlist(text), catalogue, { entryId: 'resistor' });
    const two = addPart(one.netlist, catalogue, { entryId: 'resistor' });
    expect(two.netlist.parts.map((part) => part.label)).toEqual(['roof', 'l1', 'R1', 'R2']);
    expect(addPart(one.netlist, catalogue, { entryId: 'display-i2c' }).netlist.parts.at(-1)).toMatchObject({
      address: 0x3c,
    });
    expect(() => addPart(one.netlist, catalogue, { entryId: 'nothing' })).toThrow(RangeError);
  });
  test('the same wire is not drawn twice, in neither direction, nor from a terminal to itself', () => {
    const start = sketchNetlist(text);
    const [l1out, p34] = [
      { part: 'l1', terminal: 'out' },
      { part: 'roof', terminal: 'p34' },
    ];
    expect(connect(start, p34, l1out)).toBe(start);
    expect(connect(start, p34, p34)).toBe(start);
    expect(connect(start, l1out, { part: 'roof', terminal: 'p35' }).wires).toHaveLength(3);
  });
  test('a removed part takes its wires and the cable that carries nothing any more', () => {
    const left = removePart(sketchNetlist(text), 'l1');
    expect(left).toMatchObject({ wires: [], cables: [] });
    expect(netlistSchema.safeParse(left).success).toBe(true);
  });
  test('a removed wire leaves the cable of its neighbour', () => {
    const left = removeWire(sketchNetlist(text), 'wire-1');
    expect(left.cables).toHaveLength(1);
    expect(wiresOf(left)).toEqual(['l1.gnd - roof.gnd']);
  });
  test('a rerouted wire keeps its cable', () => {
    const moved = rerouteWire(
      sketchNetlist(text),
      'wire-1',
      { part: 'l1', terminal: 'out' },
      { part: 'roof', terminal: 'p35' },
    );
    expect(moved.wires[0]).toMatchObject({ to: { terminal: 'p35' }, cableId: 'c' });
  });
});

describe('remedies', () => {
  test('insert puts the new part between a pin and everything that was on it', () => {
    const next = applyRemedy(sketchNetlist(text), catalogue, {
      kind: 'insert',
      label: '',
      entryId: 'divider',
      at: { part: 'roof', terminal: 'p34' },
      inTerminal: 'in',
      outTerminal: 'out',
      ground: { part: 'roof', terminal: 'gnd' },
      settings: { upperOhm: 10_000, lowerOhm: 20_000 },
    });
    expect(wiresOf(next)).toEqual([
      'l1.out - divider-1.in',
      'l1.gnd - roof.gnd',
      'divider-1.out - roof.p34',
      'divider-1.gnd - roof.gnd',
    ]);
    expect(next.parts.at(-1)?.settings).toEqual({ upperOhm: 10_000, lowerOhm: 20_000 });
  });
  test('swap turns two terminals round', () => {
    const next = applyRemedy(
      sketchNetlist('rs: transceiver-33v; b: probe-bus-rods; rs.a - b.b; rs.b - b.a'),
      catalogue,
      { kind: 'swap', label: '', one: { part: 'b', terminal: 'a' }, other: { part: 'b', terminal: 'b' } },
    );
    expect(wiresOf(next)).toEqual(['rs.a - b.a', 'rs.b - b.b']);
  });
  test('a second line uses the same level shifter, a fifth a new one', () => {
    let netlist = sketchNetlist(
      'roof: board-wifi-two-groups; usb: supply-usb; k: switch-relay-low; k.in - roof.p18',
    );
    const shift = (pin: string) =>
      applyRemedy(netlist, catalogue, {
        kind: 'shift',
        label: '',
        at: { part: 'roof', terminal: pin },
        low: { part: 'roof', terminal: 'out33' },
        high: { part: 'usb', terminal: 'out' },
        ground: { part: 'roof', terminal: 'gnd' },
      });
    for (const pin of ['p18', 'p19', 'p23', 'p25']) netlist = shift(pin);
    expect(netlist.parts.filter((part) => part.entryId === 'level-shifter')).toHaveLength(1);
    expect(shift('p26').parts.filter((part) => part.entryId === 'level-shifter')).toHaveLength(2);
    expect(wiresOf(netlist)).toContain('k.in - level-shifter-1.hv1');
  });
  test('another entry keeps wires by terminal id, then by type', () => {
    const next = replacePart(
      sketchNetlist(
        'roof: board-wifi-two-groups; q: switch-transistor; q.base - roof.p18; q.emitter - roof.gnd',
      ),
      catalogue,
      'q',
      'switch-mosfet',
    );
    expect(wiresOf(next)).toEqual(['q.gate - roof.p18', 'q.source - roof.gnd']);
  });
  test('feed takes the old supply off', () => {
    const next = applyRemedy(
      sketchNetlist(
        'roof: board-wifi-two-groups; bat: battery-12v; l1: probe-capacitive; l1.vcc - bat.plus @c',
      ),
      catalogue,
      {
        kind: 'feed',
        label: '',
        at: { part: 'l1', terminal: 'vcc' },
        from: { part: 'roof', terminal: 'out33' },
      },
    );
    expect(wiresOf(next)).toEqual(['roof.out33 - l1.vcc']);
    expect(next.wires[0]?.cableId).toBe('c');
  });
});

test('what cannot be read of a sketch is our mistake', () => {
  expect(() => sketchNetlist('l1 probe')).toThrow(RangeError);
});
