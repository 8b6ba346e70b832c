import { describe, expect, test } from 'vitest';
import { disagreements } from '../bind/layOut.ts';
import type { Garden } from '../document/schema.ts';
import { NO_ANSWERS, type Answers } from '../../plan/interview.ts';
import { EMPTY_PLAN } from '../../plan/schema.ts';
import { checkWiring } from '../../wiring/checks/all.ts';
import { readCircuit } from '../../wiring/circuit.ts';
import { changePart } from '../../wiring/edit.ts';
import { MINT } from './gardenForTests.ts';
import { layOutGarden, partsDropped, type Holds } from './layOutGarden.ts';
import { catalogueOf, changePlan, settingOf } from './plan.ts';
import { addBarePlot, addPlot, emptyGarden, setPlot } from './plots.ts';

let n = 0;
const random = () => (n = (n + 0.0717) % 1);
const empty = emptyGarden('Roof', 'UTC', { random, nowIso: '2026-05-01T08:00:00Z' });
const bare = (garden: Garden, name: string) =>
  addBarePlot(garden, { name, plant: '', kind: 'pot' }, random).garden;
const asked = (garden: Garden, answers: Partial<Answers>) =>
  changePlan(garden, { answers: { ...NO_ANSWERS, ...answers } });
const GARDEN: Holds = { board: 'garden', probe: 'garden' };
const laid = (garden: Garden, holds: Holds = GARDEN) => layOutGarden(garden, holds, random);
const serious = (garden: Garden) =>
  checkWiring(readCircuit(garden.wiring, catalogueOf(garden)), settingOf(garden)).findings.filter((one) =>
    ['danger', 'fault'].includes(one.severity),
  );

describe('a garden of names alone', () => {
  const names = asked(bare(bare(empty, 'Mint'), 'Chilli'), { wants: 'number', wifi: 'good', power: 'usb' });
  const { garden, refused } = laid(names);
  test('gets its board and a probe in each plot from the plan, each read at the pin it is wired to', () => {
    expect(refused).toBeNull();
    expect(garden.boards).toMatchObject([{ adcBits: 12, supplyV: 3.3 }]);
    expect(garden.probes.map(({ label, kind }) => [label, kind])).toEqual([
      ['P1', 'capacitive stick'],
      ['P2', 'capacitive stick'],
    ]);
    expect(garden.probes.map((one) => one.plotId)).toEqual(garden.plots.map((one) => one.id));
    for (const channel of garden.channels) expect(channel.pin).toMatch(/^P\d+$/);
    expect(serious(garden)).toEqual([]);
  });
  test('laid out again, nothing is doubled and nothing dropped', () => {
    const again = laid(garden).garden;
    expect(again.probes).toEqual(garden.probes);
    expect(again.boards).toEqual(garden.boards);
    expect(partsDropped(garden.wiring, again.wiring)).toEqual([]);
  });
  test('each cable has the way to its own plot; where nobody measured one, the answer', () => {
    const [near, far] = garden.plots;
    const ways = setPlot(setPlot(garden, near?.id ?? '', { cableM: 1.5 }), far?.id ?? '', { cableM: 4 });
    const lengths = (of: Garden) =>
      laid(of)
        .garden.wiring.cables.filter((one) => /^P\d$/.test(one.label))
        .map((one) => one.lengthM);
    expect(lengths(ways)).toEqual([1.5, 4]);
    expect(lengths(asked(setPlot(garden, near?.id ?? '', { cableM: 1.5 }), { cableM: 3 }))).toEqual([1.5, 3]);
  });
  test('a bus probe fills a plot as well', () => {
    const bus = changePlan(names, {
      choices: { ...EMPTY_PLAN.choices, probe: { candidate: 'probe-bus-rods', reason: '' } },
    });
    expect(laid(bus).garden.probes.map((one) => one.kind)).toEqual([
      'steel-rod bus probe',
      'steel-rod bus probe',
    ]);
  });
});

describe('where the garden and its plan say different things', () => {
  const board = { name: 'Old board', traits: '8-bit 5 V board, six 10-bit inputs', adcBits: 10, supplyV: 5 };
  const { garden: typed } = addPlot(empty, { ...MINT, board, pump: null }, random);
  const garden = asked(typed, { wants: 'number', wifi: 'good', power: 'usb' });
  test('it is told, with both entries; a plan without answers says nothing', () => {
    expect(disagreements(garden, catalogueOf(garden))).toEqual([
      {
        topic: 'board',
        ids: [garden.boards[0]?.id],
        gardenEntry: 'board-8bit-six',
        planEntry: 'board-wifi-two-groups',
      },
    ]);
    expect(disagreements(typed, catalogueOf(typed))).toEqual([]);
  });
  test('what the person lets hold, holds', () => {
    const boardEntry = (of: Garden) =>
      of.wiring.parts.find((part) => part.stands?.list === 'boards')?.entryId;
    const own = laid(garden).garden;
    expect(boardEntry(own)).toBe('board-8bit-six');
    expect(own.boards[0]).toMatchObject(board);
    const planned = laid(garden, { board: 'plan', probe: 'garden' }).garden;
    expect(boardEntry(planned)).toBe('board-wifi-two-groups');
    expect(planned.boards[0]).toMatchObject({ name: 'Old board', adcBits: 12, supplyV: 3.3 });
    expect(disagreements(planned, catalogueOf(planned))).toEqual([]);
  });
});

describe('laid out again', () => {
  const first = laid(
    asked(bare(empty, 'Mint'), { wants: 'number', wifi: 'good', power: 'usb', water: 'tank' }),
  ).garden;
  test('figures and places that a person set stay', () => {
    const pump = first.wiring.parts.find((part) => part.entryId === 'pump-5v');
    const set = changePart(first.wiring, pump?.id ?? '', {
      settings: { activeMa: 180 },
      at: { x: 40, y: 80 },
    });
    const again = laid({ ...first, wiring: set }).garden;
    expect(again.wiring.parts.find((part) => part.entryId === 'pump-5v')).toMatchObject({
      settings: { activeMa: 180 },
      at: { x: 40, y: 80 },
    });
  });
  test('what the plan does not have any more is named', () => {
    const byHand = laid(asked(first, { wants: 'number', wifi: 'good', power: 'usb', water: 'none' })).garden;
    const dropped = partsDropped(first.wiring, byHand.wiring);
    expect(dropped).toEqual(expect.arrayContaining(['Pump', 'Tank float']));
    expect(dropped).not.toContain('P1');
  });
});

test('an irrigation timer: as many valves as zones, each with a permit contact, and no fault', () => {
  const garden = laid(
    asked(bare(empty, 'Bed'), { wants: 'number', wifi: 'good', power: 'mains', water: 'timer', zones: 3 }),
  ).garden;
  const count = (entryId: string) => garden.wiring.parts.filter((part) => part.entryId === entryId).length;
  expect([count('timer-24vac'), count('valve-24vac'), count('switch-permit')]).toEqual([1, 3, 3]);
  expect(serious(garden)).toEqual([]);
});
