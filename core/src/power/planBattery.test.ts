import { describe, expect, test } from 'vitest';
import { catalogueWith } from '../catalogue/catalogue.ts';
import { EMPTY_PLAN } from '../plan/schema.ts';
import { readCircuit } from '../wiring/circuit.ts';
import { sketchNetlist, type Sketched } from '../wiring/sketchNetlist.ts';
import { supplyBudget } from './budget.ts';
import { habitsOf, planBattery } from './planBattery.ts';

const circuit = (text: string, more: Sketched = {}) =>
  readCircuit(sketchNetlist(text, more), catalogueWith([]));
const typed = { ...EMPTY_PLAN.supply, usableFrac: 0.6 };

describe('the battery of the plan', () => {
  test('its kind, capacity and voltage are taken, not what was typed', () => {
    expect(planBattery(circuit('b: battery-lithium'))).toEqual({
      label: 'b',
      chemistry: 'lithium cell',
      capacityMah: 3000,
      batteryV: 3.7,
    });
    // Another kind than the lead-acid that was typed brings its usual shares.
    expect(habitsOf(circuit('b: battery-lithium'), typed)).toMatchObject({
      capacityMah: 3000,
      batteryV: 3.7,
      usableFrac: 0.8,
    });
  });
  test('of the same kind the shares that were typed stay; a part’s own capacity goes first', () => {
    const of = circuit('b: battery-12v', { parts: { b: { settings: { capacityMah: 12_000 } } } });
    expect(habitsOf(of, typed)).toMatchObject({ capacityMah: 12_000, usableFrac: 0.6 });
  });
  test('without one, what was typed counts', () => {
    expect(habitsOf(circuit('u: supply-usb'), typed)).toBe(typed);
  });
});

test('a relay’s coil is counted while it waters: 75 mA at 5 V from 12 V at nine tenths are 34.7 mA', () => {
  const wired = circuit(
    'b: battery-12v; g: regulator-5v; g.vcc - b.plus; g.gnd - b.gnd; k: switch-relay-high; k.vcc - g.out; k.gnd - b.gnd; v: valve-12v; k.common - b.plus; k.open - v.plus; v.minus - b.gnd',
  );
  const uses = supplyBudget(wired, { ...typed, batteryV: 12, waterS: 60 }).uses;
  const current = (state: string) => uses.find((one) => one.state === state)?.currentMa ?? NaN;
  expect(current('pump') - current('sleep')).toBeCloseTo(400 + (75 * 5) / 12 / 0.9, 3);
});
