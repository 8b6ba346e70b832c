import { describe, expect, test } from 'vitest';
import { BUILT_IN } from '../../catalogue/catalogue.ts';
import { EMPTY_PLAN } from '../../plan/schema.ts';
import { layOut } from '../bind/layOut.ts';
import { planWiring } from '../../wiring/planWiring.ts';
import { addPlot, editPlot, emptyGarden, removePlot, type Parts } from './plots.ts';
import {
  catalogueOf,
  changePlan,
  importEntries,
  removeEntry,
  setEntry,
  setPlacement,
  settingOf,
  setWiring,
  standFor,
} from './plan.ts';
import { addContact, removeContact, setContact } from './contacts.ts';
import { onePlot } from './gardenForTests.ts';
import { standingOf } from '../bind/standing.ts';
import { sketchNetlist } from '../../wiring/sketchNetlist.ts';
import { gardenSchema, type Garden } from '../document/schema.ts';

const random = (() => {
  let n = 0;
  return () => (n = (n + 0.137) % 1);
})();
const parts: Parts = {
  plotName: 'Mint',
  plant: 'mint',
  probeLabel: 'M1',
  probeKind: 'resistive fork',
  colour: 'green',
  depthCm: 5,
  pin: 'input 1',
  streamName: 'm1',
  board: { name: 'Stern board', traits: '8-bit 5 V board, six 10-bit inputs', adcBits: 10, supplyV: 5 },
  pump: { flowMlPerS: 10 },
};
const { garden: bare, plotId } = addPlot(
  emptyGarden('Roof', 'UTC', { random, nowIso: '2026-05-01T08:00:00Z' }),
  parts,
  random,
);
const planned = (() => {
  const withAnswers = changePlan(bare, {
    answers: { ...EMPTY_PLAN.answers, power: 'usb', wifi: 'none', water: 'tank', probes: 2 },
  });
  const catalogue = catalogueOf(withAnswers);
  return setWiring(
    withAnswers,
    planWiring(layOut(withAnswers, catalogue), catalogue, settingOf(withAnswers), { lengthM: 2 }).netlist,
  );
})();

describe('laid out and wired', () => {
  test('boards, probes and pumps of the garden are parts that stand for them; the rest follows the answers', () => {
    const of = (label: string) => planned.wiring.parts.find((part) => part.label === label);
    expect(of('Stern board')).toMatchObject({ entryId: 'board-8bit-six', stands: { list: 'boards' } });
    expect(of('M1')).toMatchObject({ entryId: 'probe-fork', stands: { list: 'probes' }, colour: 'green' });
    expect(of('P2')).toMatchObject({ stands: null });
    expect(planned.wiring.parts.map((part) => part.entryId)).toEqual(
      expect.arrayContaining(['supply-usb', 'pump-5v', 'switch-mosfet', 'contact-float']),
    );
    expect(gardenSchema.safeParse(planned).error).toBeUndefined();
  });
  test('the channel says which input reads its probe', () => {
    expect(planned.channels[0]?.pin).toMatch(/^IN\d$/);
  });
  test('a renamed probe is renamed in the wiring; a removed plot leaves a part that stands for nothing', () => {
    const renamed = editPlot(
      planned,
      plotId,
      { ...parts, probeLabel: 'M7', colour: 'red', board: { id: planned.boards[0]?.id ?? '' } },
      random,
    );
    expect(renamed.wiring.parts.find((part) => part.stands?.list === 'probes')).toMatchObject({
      label: 'M7',
      colour: 'red',
    });
    expect(removePlot(planned, plotId).wiring.parts.some((part) => part.stands?.list === 'probes')).toBe(
      false,
    );
  });
});

test.each([
  { says: 'no answer: not known', answers: {}, link: null, radioOn: null },
  { says: 'Wi-Fi reaches', answers: { wifi: 'good' }, link: null, radioOn: true },
  { says: 'no Wi-Fi', answers: { wifi: 'none' }, link: null, radioOn: false },
  { says: 'a lamp will do', answers: { wants: 'lamp', wifi: 'good' }, link: null, radioOn: false },
  { says: 'a cable was chosen', answers: { wifi: 'good' }, link: 'link-serial', radioOn: false },
  { says: 'HTTP was chosen', answers: { wifi: 'none' }, link: 'link-http', radioOn: true },
] as const)('radio: $says', ({ answers, link, radioOn }) => {
  const garden = changePlan(bare, {
    answers: { ...EMPTY_PLAN.answers, ...answers },
    choices: { ...EMPTY_PLAN.choices, link: link && { candidate: link, reason: '' } },
  });
  expect(settingOf(garden).radioOn).toBe(radioOn);
});

test('drinking water is known only once it is answered', () => {
  const water = (answer: 'tap' | 'tank' | null) =>
    settingOf(changePlan(bare, { answers: { ...EMPTY_PLAN.answers, water: answer } })).tapWater;
  expect([water('tap'), water('tank'), water(null)]).toEqual([true, false, null]);
});

test('a placement changes what is said and leaves the rest', () => {
  const probeId = bare.probes[0]?.id ?? '';
  const placed = setPlacement(setPlacement(bare, probeId, { where: 'a hand from the rim' }), probeId, {
    depthCm: 9,
  });
  expect(placed.probes[0]).toMatchObject({
    depthCm: 9,
    placement: { where: 'a hand from the rim', between: '', mapNote: '' },
  });
});

describe('own catalogue', () => {
  const [fork] = BUILT_IN;
  if (!fork) throw new Error('no entries');
  const dear = { ...fork, bad: 'mine lasted a month' };
  test('a changed entry stands in the place of the built-in one until it is removed', () => {
    const changed = setEntry(setEntry(bare, { ...fork, bad: 'first' }), dear);
    expect(changed.catalogue).toHaveLength(1);
    expect(catalogueOf(changed).get(fork.id)?.bad).toBe('mine lasted a month');
    expect(catalogueOf(removeEntry(changed, fork.id)).get(fork.id)).toEqual(fork);
  });
  test('of an imported file only what differs is kept', () => {
    expect(importEntries(bare, [dear, ...BUILT_IN.slice(1)]).catalogue).toEqual([dear]);
  });
});

describe('what a part stands for', () => {
  const drawn = () => {
    const garden = addContact(onePlot(), onePlot().plots[0]?.id ?? '', 'permit', () => 0.5);
    const wiring = sketchNetlist(
      'relay: switch-permit; other: switch-permit; lamp: lamp-led; lamp2: lamp-led',
    );
    return setWiring(garden, wiring);
  };
  const partOf = (garden: Garden, id: string) => garden.wiring.parts.find((one) => one.id === id);

  test('a relay is a contact, and is called as it is; only one part is', () => {
    const garden = drawn();
    const contact = garden.contacts[0];
    if (!contact) throw new Error('no contact');
    const stands = { list: 'contacts', id: contact.id } as const;
    const first = standFor(garden, 'relay', stands);
    expect(partOf(first, 'relay')).toMatchObject({ stands, label: contact.name });
    const second = standFor(first, 'other', stands);
    expect(partOf(second, 'relay')).toMatchObject({ stands: null, label: contact.name });
    expect(partOf(second, 'other')).toMatchObject({ stands });
    expect(partOf(setContact(second, contact.id, { name: 'Lawn permit' }), 'other')?.label).toBe(
      'Lawn permit',
    );
    expect(partOf(removeContact(second, contact.id), 'other')?.stands).toBeNull();
  });

  test('a plot may have several lamps, each with a name of its own', () => {
    const garden = drawn();
    const stands = { list: 'plots', id: garden.plots[0]?.id ?? '' } as const;
    const lit = standFor(standFor(garden, 'lamp', stands), 'lamp2', stands);
    expect([partOf(lit, 'lamp'), partOf(lit, 'lamp2')]).toMatchObject([{ stands }, { stands }]);
    expect(partOf(lit, 'lamp')?.label).toBe(partOf(garden, 'lamp')?.label);
  });

  test('what may be chosen goes by its role', () => {
    const garden = drawn();
    expect(standingOf(garden, 'relay')).toMatchObject({ list: 'contacts', choices: [{}] });
    expect(standingOf(garden, 'LED')).toMatchObject({ list: 'plots' });
    expect(standingOf(garden, 'pump')).toMatchObject({ list: 'waterLines' });
    expect(standingOf(garden, 'resistor')).toBeNull();
  });
});
