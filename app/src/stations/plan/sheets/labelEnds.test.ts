import { expect, test } from 'vitest';
import { catalogueWith } from '@plain-trowel/core/catalogue/catalogue';
import { readCircuit } from '@plain-trowel/core/wiring/circuit';
import { sketchNetlist } from '@plain-trowel/core/wiring/sketchNetlist';
import { labelEnds } from './labelEnds.ts';

test('each label names its own end first and the other end after it', () => {
  const circuit = readCircuit(
    sketchNetlist(
      'roof: board-wifi-two-groups; l1: probe-capacitive; roof.out33 - l1.vcc @c; roof.gnd - l1.gnd @c; l1.out - roof.p34 @c',
      {
        parts: { roof: { label: 'Roof board' }, l1: { label: 'L1' } },
        cables: { c: { label: 'L1', colour: 'yellow' } },
      },
    ),
    catalogueWith([]),
  );
  const [cable] = circuit.netlist.cables;
  if (!cable) throw new Error('no cable');
  const box = 'Roof board: 3.3 V out, ground, P34';
  const plant = 'L1: supply, ground, signal';
  expect(labelEnds(circuit, cable)).toEqual([
    { here: box, there: plant },
    { here: plant, there: box },
  ]);
});

test('of a stretch of a bus, which is called by both of its probes, each label names the one at its end', () => {
  const circuit = readCircuit(
    sketchNetlist('b1: probe-bus-rods; b2: probe-bus-rods; b1.a - b2.a @c; b1.b - b2.b @c', {
      parts: { b1: { label: 'P1' }, b2: { label: 'P2' } },
      cables: { c: { label: 'P1–P2', colour: 'green' } },
    }),
    catalogueWith([]),
  );
  const [cable] = circuit.netlist.cables;
  if (!cable) throw new Error('no cable');
  expect(labelEnds(circuit, cable)).toEqual([
    { here: 'P1: A, B', there: 'P2: A, B' },
    { here: 'P2: A, B', there: 'P1: A, B' },
  ]);
});
