import { expect, test } from 'vitest';
import { catalogueWith } from '../catalogue/catalogue.ts';
import { EMPTY_PLAN } from '../plan/schema.ts';
import { readCircuit } from '../wiring/circuit.ts';
import { sketchNetlist } from '../wiring/sketchNetlist.ts';
import { comparePowering, probeLives } from './comparePowering.ts';

const catalogue = catalogueWith([]);
const habits = { ...EMPTY_PLAN.supply, everyS: 600, sleeps: true, waterS: 0, batteryV: 5, temperatureC: 25 };
const netlist = sketchNetlist(
  'w: board-wifi-two-groups; l1: probe-capacitive; c2: probe-capacitive; l1.vcc - w.out33; c2.vcc - w.out33',
);

test('powered only to be read, two sticks of 5 mA save almost all of their 10 mA', () => {
  const [always, timed] = comparePowering(netlist, catalogue, habits);
  // read for 0.6 s of 600 s, the board awake meanwhile: 10 × 0.001 = 0.01 mA, and 60 mA × 86.4 s a day more
  expect((always?.averageMa ?? 0) - (timed?.averageMa ?? 0)).toBeCloseTo(
    10 - (60 * 86.4) / 86_400 + (0.05 * 86.4) / 86_400,
    2,
  );
  expect(timed?.battery.value).toBeGreaterThan(always?.battery.value ?? Infinity);
});

test('lives of each kind stand once, the timed one near the idle life', () => {
  const lives = probeLives([...readCircuit(netlist, catalogue).parts.values()], 600);
  expect(lives).toHaveLength(1);
  expect(lives[0]?.always.value).toBeCloseTo(3, 9);
  expect(lives[0]?.perReading.value).toBeCloseTo(1 / (0.001 / 3 + 0.999 / 5), 9);
});
