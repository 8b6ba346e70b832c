import { describe, expect, test } from 'vitest';
import { catalogueWith } from '../catalogue/catalogue.ts';
import { checkWiring } from './checks/all.ts';
import { readCircuit } from './circuit.ts';
import type { Netlist } from './netlist.ts';
import { planWiring } from './planWiring.ts';
import { sketchNetlist, type Sketched } from './sketchNetlist.ts';

const catalogue = catalogueWith([]);
const setting = { radioOn: true, tapWater: false };
const plan = (text: string, more: Sketched = {}) =>
  planWiring(sketchNetlist(text, more), catalogue, setting, { lengthM: 2 });
const joined = (netlist: Netlist, one: string, other: string): boolean => {
  const end = (name: string) => {
    const [part = '', terminal = ''] = name.split('.');
    return { part, terminal };
  };
  const circuit = readCircuit(netlist, catalogue);
  return circuit.netOf(end(one)) === circuit.netOf(end(other));
};
const serious = (netlist: Netlist) =>
  checkWiring(readCircuit(netlist, catalogue), setting)
    .findings.filter((one) => ['danger', 'fault', 'unknown'].includes(one.severity))
    .map((one) => one.says);

describe('where a part is fed from', () => {
  test('a stick from its own board’s logic voltage, a board from the 5 V supply', () => {
    const { netlist } = plan('usb: supply-usb; roof: board-wifi-two-groups; l1: probe-capacitive');
    expect(joined(netlist, 'l1.vcc', 'roof.out33')).toBe(true);
    expect(joined(netlist, 'roof.v5', 'usb.out')).toBe(true);
  });
  test('each stick from the board it belongs to', () => {
    const { netlist } = plan(
      'usb: supply-usb; roof: board-wifi-two-groups; stern: board-8bit-six; l1: probe-capacitive; s1: probe-capacitive',
      {
        parts: { l1: { boardId: 'roof' }, s1: { boardId: 'stern' } },
      },
    );
    expect(joined(netlist, 'l1.vcc', 'roof.out33')).toBe(true);
    expect(joined(netlist, 's1.vcc', 'stern.out5')).toBe(true);
  });
  test('a ring of lamps with its 720 mA from the supply, not through the board', () => {
    const { netlist } = plan('usb: supply-usb; stern: board-8bit-six; ring: lamp-ring');
    expect(joined(netlist, 'ring.vcc', 'usb.out')).toBe(true);
  });
  test('a fork that is powered only to be read, from a pin of its own', () => {
    const { netlist } = plan('usb: supply-usb; stern: board-8bit-six; m1: probe-fork', {
      parts: { m1: { perReading: true } },
    });
    expect(joined(netlist, 'm1.vcc', 'stern.out5')).toBe(false);
    const net = readCircuit(netlist, catalogue).netOf({ part: 'm1', terminal: 'vcc' });
    expect(net.spots.some((spot) => spot.terminal.type === 'pin' && spot.terminal.caps.includes('out'))).toBe(
      true,
    );
    expect(serious(netlist)).toEqual([]);
  });
  test.each([
    // √(50 kΩ × 2 kΩ) = 10 kΩ, √(44 × 4.3) = 13.8 kΩ, √(100 × 1) = 10 kΩ. An input that bears 10 kΩ: beside 44 kΩ at most 12.9 kΩ.
    ['probe-electrodes-bare', 10_000],
    ['thermo-ntc-bare', 12_000],
    ['light-cell-bare', 10_000],
  ])('a bare %s from the board’s own supply, with the fixed resistor that suits it', (entryId, ohm) => {
    const { netlist } = plan(`usb: supply-usb; roof: board-wifi-two-groups; c: ${entryId}`);
    expect(joined(netlist, 'c.a', 'roof.out33')).toBe(true);
    const fixed = netlist.parts.find((part) => part.entryId === 'resistor');
    expect(fixed?.settings.ohm).toBe(ohm);
    expect(joined(netlist, `${fixed?.id}.a`, 'c.b')).toBe(true);
    expect(joined(netlist, `${fixed?.id}.b`, 'roof.gnd')).toBe(true);
    expect(serious(netlist)).toEqual([]);
  });
  test('a 4–20 mA probe from 12 V, its minus to an input, with a shunt', () => {
    const { netlist } = plan(
      'sup: supply-12v; reg: regulator-5v; roof: board-wifi-two-groups; lp: probe-loop',
    );
    expect(joined(netlist, 'lp.plus', 'sup.out')).toBe(true);
    expect(netlist.parts.find((part) => part.entryId === 'shunt')?.settings.ohm).toBe(150);
    expect(serious(netlist)).toEqual([]);
  });
});

describe('what is switched', () => {
  test('a MOSFET at the pump’s minus, the pump’s plus on the fused battery', () => {
    const { netlist } = plan(
      'bat: battery-12v; f: fuse; reg: regulator-5v; roof: board-wifi-two-groups; pump: pump-12v; q: switch-mosfet',
      { parts: { f: { settings: { fuseA: 5 } } } },
    );
    expect(joined(netlist, 'pump.minus', 'q.drain')).toBe(true);
    expect(joined(netlist, 'pump.plus', 'f.b')).toBe(true);
    expect(joined(netlist, 'q.source', 'bat.gnd')).toBe(true);
  });
  test('two valves of an irrigation timer: a zone and a permit contact each, one common, and no ground of ours on it', () => {
    const { netlist } = plan(
      'timer: timer-24vac; usb: supply-usb; stern: board-8bit-six; v: valve-24vac; w: valve-24vac; k: switch-permit; l: switch-permit',
    );
    expect(joined(netlist, 'timer.z1', 'k.common')).toBe(true);
    expect(joined(netlist, 'k.open', 'v.plus')).toBe(true);
    expect(joined(netlist, 'timer.z2', 'l.common')).toBe(true);
    expect(joined(netlist, 'l.open', 'w.plus')).toBe(true);
    for (const valve of ['v', 'w']) expect(joined(netlist, `${valve}.minus`, 'timer.gnd')).toBe(true);
    expect(joined(netlist, 'timer.gnd', 'stern.gnd')).toBe(false);
    expect(serious(netlist)).toEqual([]);
  });
  test('an irrigation valve on 24 V AC by a relay’s contact, though a MOSFET is free', () => {
    const { netlist } = plan(
      'ac: supply-24vac; usb: supply-usb; stern: board-8bit-six; v: valve-24vac; q: switch-mosfet; k: switch-relay-high',
    );
    expect(joined(netlist, 'k.open', 'v.plus')).toBe(true);
    expect(joined(netlist, 'k.common', 'ac.out')).toBe(true);
    expect(joined(netlist, 'v.minus', 'ac.gnd')).toBe(true);
    expect(joined(netlist, 'ac.gnd', 'stern.gnd')).toBe(false);
  });
  test('two pumps have a switch each', () => {
    const { netlist } = plan(
      'bat: battery-12v; reg: regulator-5v; roof: board-wifi-two-groups; p1: pump-12v; p2: pump-12v; q1: switch-mosfet; q2: switch-mosfet',
    );
    expect(joined(netlist, 'p1.minus', 'q1.drain')).toBe(true);
    expect(joined(netlist, 'p2.minus', 'q2.drain')).toBe(true);
    expect(joined(netlist, 'p1.minus', 'p2.minus')).toBe(false);
  });
  test('a pump without a switch is left with its minus open, and the check says so', () => {
    const { netlist } = plan(
      'bat: battery-12v; reg: regulator-5v; roof: board-wifi-two-groups; pump: pump-12v',
    );
    expect(serious(netlist)).toContain('pump minus is not wired.');
  });
});

describe('buses', () => {
  test('bus probes hang in a chain from the transceiver, A to A and B to B', () => {
    const { netlist } = plan(
      'usb: supply-usb; roof: board-wifi-two-groups; rs: transceiver-33v; b1: probe-bus-rods; b2: probe-bus-rods',
      {
        parts: { b1: { address: 1 }, b2: { address: 2 } },
      },
    );
    expect(
      netlist.wires.some(
        (wire) => wire.from.part === 'b1' && wire.to.part === 'b2' && wire.from.terminal === 'a',
      ),
    ).toBe(true);
    expect(joined(netlist, 'rs.a', 'b2.a')).toBe(true);
    expect(joined(netlist, 'rs.b', 'b2.b')).toBe(true);
    expect(joined(netlist, 'rs.a', 'rs.b')).toBe(false);
  });
  test('bus probes without addresses get one each', () => {
    const { netlist, added } = plan(
      'usb: supply-usb; roof: board-wifi-two-groups; rs: transceiver-33v; b1: probe-bus-rods; b2: probe-bus-rods',
    );
    const addresses = ['b1', 'b2'].map((id) => netlist.parts.find((part) => part.id === id)?.address);
    expect(new Set(addresses).size).toBe(2);
    expect(added.join()).toContain('address');
  });
  test('several thermometers share one 1-Wire pin and one pull-up', () => {
    const { netlist } = plan(
      'usb: supply-usb; roof: board-wifi-two-groups; t1: thermo-one-wire; t2: thermo-one-wire; t3: thermo-one-wire',
    );
    expect(joined(netlist, 't1.data', 't3.data')).toBe(true);
    expect(netlist.parts.filter((part) => part.entryId === 'resistor')).toHaveLength(1);
  });
});

describe('a battery and a panel', () => {
  const { netlist } = plan(
    'bat: battery-12v; sun: solar-panel; reg: regulator-5v; roof: board-wifi-two-groups; m: monitor-battery',
  );
  test('the panel feeds the battery, the fuse comes before everything else', () => {
    expect(netlist.parts.some((part) => part.entryId === 'fuse')).toBe(true);
    expect(joined(netlist, 'reg.vcc', 'bat.plus')).toBe(false);
    expect(serious(netlist)).toEqual([]);
  });
  test('the monitor reads the battery on an input that the radio leaves alone', () => {
    const circuit = readCircuit(netlist, catalogue);
    const [pin] = circuit
      .netOf({ part: 'm', terminal: 'out' })
      .spots.filter((spot) => spot.terminal.type === 'pin');
    expect(pin?.terminal).toMatchObject({ adcGroup: '1' });
  });
});

describe('cables', () => {
  const { netlist } = plan(
    'usb: supply-usb; roof: board-wifi-two-groups; l1: probe-capacitive; d: display-i2c',
    { parts: { l1: { label: 'L1', colour: 'yellow' } } },
  );
  test('what sits away from the box has one with its label and tag; what sits in the box has none', () => {
    expect(netlist.cables.map(({ label, colour, lengthM }) => ({ label, colour, lengthM }))).toEqual([
      { label: 'L1', colour: 'yellow', lengthM: 2 },
    ]);
    const carried = netlist.wires.filter((wire) => wire.cableId !== null);
    expect(carried).toHaveLength(3);
    for (const wire of carried) expect([wire.from.part, wire.to.part]).toContain('l1');
  });
  test('a part added later does not lay the first one’s cable again', () => {
    const more = {
      ...netlist,
      parts: [
        ...netlist.parts,
        ...sketchNetlist('c2: probe-capacitive', { parts: { c2: { label: 'C2' } } }).parts,
      ],
    };
    const again = planWiring(more, catalogue, setting, { lengthM: 5 }).netlist;
    expect(again.cables.map((cable) => [cable.label, cable.lengthM])).toEqual([
      ['L1', 2],
      ['C2', 5],
    ]);
  });
  test('along a bus each stretch is a cable of its own, called by its two ends; what a probe gets from the box is another', () => {
    const bus = plan(
      'usb: supply-usb; roof: board-wifi-two-groups; rs: transceiver-33v; b1: probe-bus-rods; b2: probe-bus-rods; b3: probe-bus-rods',
      { parts: { b1: { label: 'P1' }, b2: { label: 'P2', colour: 'green' }, b3: { label: 'P3' } } },
    ).netlist;
    const carried = (label: string) => {
      const cable = bus.cables.find((one) => one.label === label);
      return bus.wires
        .filter((wire) => cable && wire.cableId === cable.id)
        .map(({ from, to }) =>
          [from, to]
            .map((end) => `${end.part}.${end.terminal}`)
            .sort()
            .join(' '),
        )
        .sort();
    };
    expect(carried('P1–P2')).toEqual(['b1.a b2.a', 'b1.b b2.b']);
    expect(carried('P2–P3')).toEqual(['b2.a b3.a', 'b2.b b3.b']);
    // The first has its pair from the transceiver in the box, and all have supply and ground from there.
    expect(carried('P1').filter((ends) => ends.includes('rs.'))).toHaveLength(2);
    for (const label of ['P2', 'P3']) {
      expect(carried(label)).toHaveLength(2);
      expect(carried(label).join()).not.toMatch(/\.[ab]\b/);
    }
    expect(bus.cables.find(({ label }) => label === 'P1–P2')?.colour).toBe('green');
    expect(bus.wires.every((wire) => wire.cableId !== null || !/^b\d/.test(wire.to.part))).toBe(true);
  });
});
