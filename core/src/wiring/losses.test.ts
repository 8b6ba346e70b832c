/** What happens when one wire comes off, on small wirings where a person can say it at once. */
import { describe, expect, test } from 'vitest';
import { catalogueWith } from '../catalogue/catalogue.ts';
import { readCircuit } from './circuit.ts';
import { lossesOf, type LossKind } from './losses.ts';
import { sketchNetlist, type Sketched } from './sketchNetlist.ts';

const catalogue = catalogueWith([]);
const roof = 'roof: board-wifi-two-groups; u: supply-usb; u.out - roof.v5; u.gnd - roof.gnd';

/** What is told of each wire, by its two ends. */
function losses(text: string, more: Sketched = {}): ReadonlyMap<string, { kind: LossKind; says: string }> {
  const found = lossesOf(readCircuit(sketchNetlist(text, more), catalogue));
  return new Map(
    found.map(({ wire, kind, effects }) => [
      `${wire.from.part}.${wire.from.terminal} - ${wire.to.part}.${wire.to.terminal}`,
      { kind, says: effects.map((one) => one.says).join(' ') },
    ]),
  );
}

function expectLoss(
  loss: { kind: LossKind; says: string } | undefined,
  kind: LossKind,
  says: string | RegExp = '',
): void {
  expect(loss?.kind).toBe(kind);
  expect(loss?.says).toMatch(says);
}

const pump =
  'b: battery-12v; b.gnd - roof.gnd; p: pump-12v; p.plus - b.plus; q: switch-mosfet; q.source - b.gnd; p.minus - q.drain; r: resistor; r.a - roof.p18; r.b - q.gate; d: resistor; d.a - q.gate; d.b - q.source';
const values = { parts: { r: { settings: { ohm: 220 } }, d: { settings: { ohm: 100_000 } } } };

describe('a pump behind a MOSFET', () => {
  const told = losses(`${roof}; ${pump}`, values);
  test('its own wires stop it, and the program notices', () => {
    for (const wire of ['p.plus - b.plus', 'p.minus - q.drain', 'r.a - roof.p18', 'q.source - b.gnd'])
      expectLoss(told.get(wire), 'noticed', 'p no longer runs');
  });
  test('without its pull-down it may run at a start: danger', () => {
    for (const wire of ['d.a - q.gate', 'd.b - q.source'])
      expectLoss(told.get(wire), 'danger', 'floats while the board starts');
  });
  test('without its supply the board stops', () => {
    expectLoss(told.get('u.out - roof.v5'), 'noticed', 'roof stops');
  });
  test('two wires that do the same: either may come off', () => {
    const twice = losses(
      `${roof}; ${pump}; p.plus - b.plus`.replace(
        'p.plus - b.plus; q',
        'p.plus - b.plus; b.plus - p.plus; q',
      ),
      values,
    );
    expectLoss(twice.get('p.plus - b.plus'), 'nothing');
  });
});

describe('a float switch', () => {
  test('with a pull-up: a loose wire reads as open, “no water”, the safe side', () => {
    const told = losses(`${roof}; f: contact-float; f.out - roof.p18; f.gnd - roof.gnd`);
    for (const wire of ['f.out - roof.p18', 'f.gnd - roof.gnd'])
      expectLoss(told.get(wire), 'noticed', 'open for ever');
  });
  test('on an input without a pull-up of its own, the loss of the outside one leaves it to chance', () => {
    const told = losses(
      `${roof}; f: contact-float; f.out - roof.p34; f.gnd - roof.gnd; up: resistor; up.a - roof.p34; up.b - roof.out33`,
      {
        parts: { up: { settings: { ohm: 10_000 } } },
      },
    );
    expectLoss(told.get('up.a - roof.p34'), 'danger', 'by chance');
    expectLoss(told.get('f.gnd - roof.gnd'), 'noticed');
  });
});

describe('probes', () => {
  test('an analog signal that comes off leaves its input floating, which may look like a reading', () => {
    const told = losses(
      `${roof}; l1: probe-capacitive; l1.vcc - roof.out33; l1.gnd - roof.gnd; l1.out - roof.p34`,
    );
    expectLoss(told.get('l1.out - roof.p34'), 'unnoticed', 'roof P34 floats');
    expect(told.get('l1.vcc - roof.out33')?.says).toContain('l1 has no supply any more');
  });
  test('a battery monitor that loses its ground puts the battery’s 14.4 V on the pin: danger', () => {
    const told = losses(
      `${roof}; b: battery-12v; b.gnd - roof.gnd; m: monitor-battery; m.in - b.plus; m.out - roof.p34; m.gnd - roof.gnd`,
    );
    expectLoss(told.get('m.gnd - roof.gnd'), 'danger', /roof P34 would see 14\.\d V/);
  });
  test('a 4–20 mA loop that is broken reads nothing, which the program takes for a broken wire', () => {
    const told = losses(
      `${roof}; s: supply-12v; s.gnd - roof.gnd; lp: probe-loop; sh: shunt; lp.plus - s.out; lp.minus - sh.in; sh.in - roof.p34; sh.gnd - roof.gnd`,
    );
    expectLoss(told.get('lp.plus - s.out'), 'noticed', 'reads nothing');
    // Without its shunt the input would see the loop's supply.
    expectLoss(told.get('sh.gnd - roof.gnd'), 'danger');
  });
  test('a line of a bus: who hangs on it no longer answers', () => {
    const told = losses(
      `${roof}; o: display-i2c; o.vcc - roof.out33; o.gnd - roof.gnd; o.sda - roof.p21; o.scl - roof.p22`,
    );
    expectLoss(told.get('o.sda - roof.p21'), 'noticed', 'no longer answers on the I2C bus');
  });
});

test('progress runs from 0 to 1, and every wire is told of, the dangerous ones first', () => {
  const seen: number[] = [];
  const circuit = readCircuit(sketchNetlist(`${roof}; ${pump}`, values), catalogue);
  const found = lossesOf(circuit, (done) => seen.push(done));
  expect(found).toHaveLength(circuit.netlist.wires.length);
  expect(seen[0]).toBe(0);
  expect(seen.at(-1)).toBe(1);
  expect([...seen].sort((one, other) => one - other)).toEqual(seen);
  const kinds = found.map((one) => one.kind);
  expect(kinds.indexOf('noticed')).toBeGreaterThan(kinds.lastIndexOf('danger'));
});
