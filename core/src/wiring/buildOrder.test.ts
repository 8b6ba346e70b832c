import { expect, test } from 'vitest';
import { catalogueWith } from '../catalogue/catalogue.ts';
import { buildSteps, nextStep } from './buildOrder.ts';
import { readCircuit } from './circuit.ts';
import { sketchNetlist } from './sketchNetlist.ts';

const stepsOf = (text: string) => buildSteps(readCircuit(sketchNetlist(text), catalogueWith([])));
const POT =
  'u: supply-usb; roof: board-wifi-two-groups; u.out - roof.v5; u.gnd - roof.gnd; l1: probe-capacitive; l1.out - roof.p34; l1.vcc - roof.out33; l1.gnd - roof.gnd';

test('everything off, the grounds, the supplies, the signals, then the meter; wires keep the numbers of the table', () => {
  const told = stepsOf(POT).map((step) =>
    step.kind === 'wire' ? `${step.of} ${step.number}` : step.kind === 'measure' ? step.stage : 'off',
  );
  expect(told).toEqual([
    'off',
    'ground 2',
    'ground 5',
    'supply 1',
    'supply 4',
    'signal 3',
    'without power',
    'without power',
    'power on, boards out',
    'power on, boards in',
  ]);
});

test('a wire that was led elsewhere is another step, the other wires are the same, and all is to be measured again', () => {
  const before = stepsOf(POT).map(({ id }) => id);
  const after = stepsOf(POT.replace('l1.out - roof.p34', 'l1.out - roof.p35')).map(({ id }) => id);
  const fresh = after.filter((id) => !before.includes(id));
  expect(fresh.filter((id) => id.startsWith('wire'))).toEqual(['wire l1.out roof.p35']);
  expect(fresh.filter((id) => id.startsWith('measure'))).toHaveLength(4);
  // A wire taken off is no step more, and what was measured with it says nothing any more.
  const fewer = stepsOf(POT.replace('l1.gnd - roof.gnd', '')).map(({ id }) => id);
  expect(fewer.filter((id) => id.startsWith('measure') && before.includes(id))).toEqual([]);
  expect(new Set(before).size).toBe(before.length);
});

test('the next step is the first one that is open from here on, then one that was passed over', () => {
  const steps = stepsOf(POT);
  const done =
    (...open: number[]) =>
    (id: string) =>
      !open.includes(steps.findIndex((one) => one.id === id));
  expect(nextStep(steps, () => false)).toBe(0);
  expect(nextStep(steps, done(2, 7), 4)).toBe(7);
  expect(nextStep(steps, done(2), 4)).toBe(2);
  expect(nextStep(steps, () => true, 4)).toBeNull();
});

test('without wires there is nothing to build', () => {
  expect(stepsOf('roof: board-wifi-two-groups')).toEqual([]);
});
