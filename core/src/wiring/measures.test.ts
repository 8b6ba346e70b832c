import { expect, test } from 'vitest';
import { catalogueWith } from '../catalogue/catalogue.ts';
import { readCircuit } from './circuit.ts';
import { measuresOf } from './measures.ts';
import { sketchNetlist } from './sketchNetlist.ts';

const measured = (text: string) =>
  measuresOf(readCircuit(sketchNetlist(text), catalogueWith([]))).map(
    ({ stage, red, black, expects }) => `${stage}: ${red} to ${black}: ${expects}`,
  );

test('every rail once: first without power that nothing is shorted, then its voltage with a fiftieth either way, what a board gives last', () => {
  expect(
    measured(
      'u: supply-usb; roof: board-wifi-two-groups; u.out - roof.v5; u.gnd - roof.gnd; l1: probe-capacitive; l1.vcc - roof.out33; l1.gnd - roof.gnd',
    ),
  ).toEqual([
    'without power: u 5 V to u ground: no beep: a beep is a short',
    'without power: roof 3.3 V out to roof ground: no beep: a beep is a short',
    'power on, boards out: u 5 V to u ground: 4.9 to 5.1 V',
    'power on, boards in: roof 3.3 V out to roof ground: 3.2 to 3.4 V',
  ]);
});

test('a battery from empty to full, and what its regulator gives all the while', () => {
  const told = measured(
    'b: battery-12v; f: fuse; g: regulator-5v; roof: board-wifi-two-groups; b.plus - f.a; f.b - g.vcc; b.gnd - g.gnd; g.out - roof.v5; g.gnd - roof.gnd',
  );
  // 14.4 V full and 11.4 V empty, a fiftieth either way.
  expect(told).toContain('power on, boards out: b + to b −: 11.1 to 14.7 V');
  expect(told).toContain('power on, boards out: g 5 V out to g ground: 4.9 to 5.1 V');
});

test('what is fed from a source of unknown voltage, or has no ground, is not told a voltage', () => {
  expect(measured('g: regulator-5v; roof: board-wifi-two-groups; g.out - roof.v5')).not.toContain(
    expect.stringContaining('power on'),
  );
});
