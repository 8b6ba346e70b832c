import { describe, expect, test } from 'vitest';
import { catalogueWith } from '../catalogue/catalogue.ts';
import { EMPTY_PLAN } from '../plan/schema.ts';
import { readCircuit } from '../wiring/circuit.ts';
import { sketchNetlist, type Sketched } from '../wiring/sketchNetlist.ts';
import { supplyBudget } from './budget.ts';

const catalogue = catalogueWith([]);
const habits = { ...EMPTY_PLAN.supply, everyS: 600, waterS: 60, batteryV: 5 };
const budget = (text: string, more: Sketched = {}, change: Partial<typeof habits> = {}) =>
  supplyBudget(readCircuit(sketchNetlist(text, more), catalogue), { ...habits, ...change });
const state = (of: ReturnType<typeof budget>, name: string) => of.uses.find((one) => one.state === name);

const oneStick = 'w: board-wifi-two-groups; l1: probe-capacitive; l1.vcc - w.out33';

describe('from the wiring', () => {
  test('a board that never sleeps takes its working current all day, and the powered stick with it', () => {
    // board 50 mA, stick 5 mA
    expect(state(budget(oneStick), 'sleep')).toMatchObject({ currentMa: 55 });
  });
  test('asleep between 144 readings: 0.05 mA and the stick; awake 3 s and 2 s on the air for each', () => {
    const found = budget(oneStick, {}, { sleeps: true });
    expect(state(found, 'sleep')).toMatchObject({
      currentMa: 5.05,
      secondsPerDay: 86_400 - 144 * 3 - 144 * 2,
    });
    expect(state(found, 'wake')).toMatchObject({ currentMa: 55, secondsPerDay: 432 });
    expect(state(found, 'radio')).toMatchObject({ currentMa: 185, secondsPerDay: 288 });
    expect(found.readings).toBe(144);
  });
  test('a board whose program stays awake counts as awake all day; one that wakes for longer, for what it does', () => {
    const circuit = readCircuit(sketchNetlist('w: board-wifi-two-groups'), catalogue);
    const with_ = (staysAwake: readonly string[], awakeS: number) =>
      supplyBudget(circuit, { ...habits, sleeps: true }, { staysAwake: new Set(staysAwake), awakeS });
    expect(state(with_(['w'], 0), 'sleep')?.currentMa).toBe(50);
    expect(state(with_([], 12), 'sleep')?.currentMa).toBe(0.05);
    expect(state(with_([], 12), 'wake')?.secondsPerDay).toBe(144 * 12);
    expect(state(with_([], 1), 'wake')?.secondsPerDay).toBe(144 * 3);
  });
  test('a stick powered only to be read: 0.6 s for each reading, nothing in between', () => {
    const found = budget(oneStick, { parts: { l1: { perReading: true } } }, { sleeps: true });
    expect(state(found, 'sleep')?.currentMa).toBeCloseTo(0.05, 12);
    expect(state(found, 'measure')?.secondsPerDay).toBeCloseTo(144 * 0.6, 9);
    expect(state(found, 'measure')?.currentMa).toBeCloseTo(55, 12);
  });
  test('a pump counts for its seconds a day', () => {
    const found = budget(`${oneStick}; pump: pump-5v`);
    expect(state(found, 'pump')).toMatchObject({ secondsPerDay: 60, currentMa: 55 + 180 });
  });
  test('behind a step-down regulator 12 V gives 5 / 12 / 0.9 of the current', () => {
    const found = budget(
      `b: battery-12v; reg: regulator-5v; reg.vcc - b.plus; ${oneStick}; reg.out - w.v5`,
      {},
      { batteryV: 12 },
    );
    // the regulator’s own 3 mA count as they are
    expect(state(found, 'sleep')?.currentMa).toBeCloseTo((55 * 5) / 12 / 0.9 + 3, 9);
  });
});

describe('what a person sets, and what is not known', () => {
  test('a figure that is set goes before the one from the parts', () => {
    expect(
      state(budget(oneStick, {}, { sleep: { currentMa: 1, secondsPerDay: null } }), 'sleep')?.currentMa,
    ).toBe(1);
    expect(
      state(budget(oneStick, {}, { radio: { currentMa: null, secondsPerDay: 10 } }), 'radio')?.secondsPerDay,
    ).toBe(10);
  });
  test('a board whose current is not known is named, not taken for zero in silence', () => {
    expect(
      budget('w: board-wifi-two-groups', { parts: { w: { settings: { activeMa: null } } } }).missing,
    ).toEqual(['w']);
  });
});
