import { describe, expect, test } from 'vitest';
import { catalogueWith } from '../../catalogue/catalogue.ts';
import { addPlot, emptyGarden, type Parts } from '../edits/plots.ts';
import { changePlan, settingOf } from '../edits/plan.ts';
import type { Garden } from '../document/schema.ts';
import { checkWiring } from '../../wiring/checks/all.ts';
import { readCircuit } from '../../wiring/circuit.ts';
import { planWiring } from '../../wiring/planWiring.ts';
import { answerText, NO_ANSWERS, type Answers } from '../../plan/interview.ts';
import { chosen, layOut, probeCount } from './layOut.ts';
import { EMPTY_PLAN, type Plan } from '../../plan/schema.ts';

const catalogue = catalogueWith([]);
const random = (() => {
  let n = 0;
  return () => (n = (n + 0.0717) % 1);
})();
const bare = emptyGarden('Roof', 'UTC', { random, nowIso: '2026-05-01T08:00:00Z' });
const plot = (garden: Garden, change: Partial<Parts> = {}): Garden =>
  addPlot(
    garden,
    {
      plotName: 'Mint',
      plant: '',
      probeLabel: 'M1',
      probeKind: 'capacitive stick',
      colour: 'green',
      depthCm: 5,
      pin: '',
      streamName: 'm1',
      pump: null,
      board: {
        name: 'Roof board',
        traits: '3.3 V Wi-Fi board, 12-bit, two converter groups',
        adcBits: 12,
        supplyV: 3.3,
      },
      ...change,
    },
    random,
  ).garden;
const asked = (garden: Garden, answers: Partial<Answers>, choices: Partial<Plan['choices']> = {}) =>
  changePlan(garden, {
    answers: { ...NO_ANSWERS, ...answers },
    choices: { ...EMPTY_PLAN.choices, ...choices },
  });
const entries = (garden: Garden) => layOut(garden, catalogue).parts.map((part) => part.entryId);

describe('what is laid out', () => {
  test('an empty garden gets one board and one probe of what leads', () => {
    const garden = asked(bare, { wants: 'number', wifi: 'good', power: 'usb' });
    expect(entries(garden)).toEqual(['board-wifi-two-groups', 'supply-usb', 'probe-capacitive']);
  });
  test('as many probes as were answered, the garden’s own first', () => {
    const garden = asked(plot(bare), { probes: 3, power: 'usb' });
    const { parts } = layOut(garden, catalogue);
    expect(
      parts.filter((part) => catalogue.get(part.entryId)?.role === 'probe').map((part) => part.label),
    ).toEqual(['M1', 'P2', 'P3']);
    expect(probeCount(garden)).toBe(3);
    expect(probeCount(plot(bare))).toBe(1);
  });
  test('a board is known by its words, else by converter and voltage', () => {
    const words = (traits: string, adcBits: number, supplyV: number) =>
      entries(plot(bare, { board: { name: 'B', traits, adcBits, supplyV } }))[0];
    expect(words('8-bit 5 V board, eight 10-bit inputs', 10, 5)).toBe('board-8bit-eight');
    expect(words('some 5 V board from the drawer', 10, 5)).toBe('board-8bit-six');
    expect(words('some Wi-Fi board', 12, 3.3)).toBe('board-wifi-two-groups');
    expect(words('something else', 16, 1.8)).toBe('board-wifi-two-groups');
  });
  test('a 12 V battery comes with a regulator, water from a tank with pump, switch and float', () => {
    const found = entries(
      asked(plot(bare), { power: 'solar', water: 'tank', wifi: 'good', wants: 'number' }),
    );
    expect(found).toEqual(
      expect.arrayContaining([
        'battery-12v',
        'solar-panel',
        'regulator-5v',
        'pump-12v',
        'switch-mosfet',
        'contact-float',
      ]),
    );
  });
  test('water from a pipe with a valve; on USB a small pump', () => {
    expect(entries(asked(bare, { power: 'mains', water: 'tap' }))).toContain('valve-12v');
    expect(entries(asked(bare, { power: 'usb', water: 'tank' }))).toContain('pump-5v');
  });
  test('bus probes come with a transceiver and count their addresses up from 1', () => {
    const { parts } = layOut(
      asked(bare, { probes: 3 }, { probe: { candidate: 'probe-bus-rods', reason: '' } }),
      catalogue,
    );
    expect(parts.filter((part) => part.entryId === 'probe-bus-rods').map((part) => part.address)).toEqual([
      1, 2, 3,
    ]);
    expect(parts.filter((part) => part.entryId === 'transceiver-33v')).toHaveLength(1);
  });
  test('a lamp when a lamp is all that is asked', () => {
    expect(entries(asked(bare, { wants: 'lamp' }))).toContain('lamp-led');
  });
  test('a choice goes before what leads', () => {
    const garden = asked(bare, {}, { probe: { candidate: 'probe-fork', reason: 'in the drawer' } });
    expect(chosen(garden).probe).toBe('probe-fork');
    expect(entries(garden)).toContain('probe-fork');
  });
});

describe('every usual set of answers can be wired without a fault', () => {
  const places: Partial<Answers>[] = [
    { power: 'usb', wifi: 'good', water: 'none', wants: 'number', probes: 3, cableM: 1 },
    { power: 'usb', wifi: 'none', water: 'tank', wants: 'number', probes: 2, cableM: 1 },
    { power: 'mains', wifi: 'good', water: 'tap', wants: 'number', probes: 5, cableM: 3 },
    { power: 'mains', wifi: 'weak', water: 'tank', wants: 'number', probes: 6, cableM: 4, budget: 'middle' },
    {
      power: 'solar',
      wifi: 'good',
      water: 'tank',
      wants: 'number',
      probes: 4,
      cableM: 10,
      stays: 'buried',
      place: 'bed',
    },
    { power: 'battery', wifi: 'none', water: 'none', wants: 'lamp', probes: 1, cableM: 1, budget: 'little' },
    {
      power: 'battery',
      wifi: 'good',
      water: 'tank',
      wants: 'number',
      probes: 6,
      cableM: 2,
      place: 'balcony',
    },
  ];
  test.each(
    places.map(
      (one) =>
        [
          Object.entries(one)
            .map(([id, value]) => answerText(id as keyof Answers, value))
            .join(', '),
          one,
        ] as const,
    ),
  )('%s', (_, answers) => {
    const garden = asked(bare, answers);
    const setting = settingOf(garden);
    const done = planWiring(layOut(garden, catalogue), catalogue, setting, {
      lengthM: answers.cableM ?? null,
    });
    expect(done.blocked.map((one) => one.says)).toEqual([]);
    expect(done.unfed).toEqual([]);
    const { findings } = checkWiring(readCircuit(done.netlist, catalogue), setting);
    expect(
      findings.filter((one) => ['danger', 'fault'].includes(one.severity)).map((one) => one.says),
    ).toEqual([]);
  });
});

test('answers read as people gave them', () => {
  expect(answerText('stays', 'buried')).toBe('buried for a season');
  expect(answerText('probes', 1)).toBe('1 probe');
  expect(answerText('probes', 4)).toBe('4 probes');
  expect(answerText('cableM', 12)).toBe('12 m of cable');
  expect(answerText('wifi', null)).toBe('not answered');
});
