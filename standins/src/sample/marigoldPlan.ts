/** The complete plan of The Marigold Hare: answers, parts with prices, and the whole wiring as the planner draws it. */
import { catalogueWith } from '@plain-trowel/core/catalogue/catalogue';
import { EMPTY_PLAN, type Plan } from '@plain-trowel/core/plan/schema';
import { addPart, changeCable, type NewPart } from '@plain-trowel/core/wiring/edit';
import { EMPTY_NETLIST, type Netlist } from '@plain-trowel/core/wiring/netlist';
import { planWiring } from '@plain-trowel/core/wiring/planWiring';

export const MARIGOLD_PLAN: Plan = {
  ...EMPTY_PLAN,
  answers: {
    place: 'balcony',
    stays: 'moved',
    wants: 'number',
    power: 'solar',
    wifi: 'good',
    water: 'tank',
    zones: null,
    budget: 'middle',
    probes: 5,
    cableM: 3,
  },
  choices: {
    ...EMPTY_PLAN.choices,
    probe: {
      candidate: 'probe-capacitive',
      reason: 'Three were in the drawer; the barrel gets a bus probe because its soil is deep.',
    },
  },
  money: {
    currency: '£',
    prices: {
      'board-wifi-two-groups': 6.5,
      'board-8bit-six': 4.2,
      'battery-12v': 19,
      'solar-panel': 28,
      'regulator-5v': 3.1,
      'probe-capacitive': 2.4,
      'probe-fork': 0.9,
      'probe-bus-rods': 17.5,
      'thermo-ntc': 0.6,
      'thermo-one-wire': 2.9,
      'transceiver-33v': 2.2,
      'display-i2c': 3.8,
      'pump-12v': 12.5,
      'switch-mosfet': 0.7,
      'contact-float': 1.9,
      'lamp-led': 0.1,
      'plug-mains-input': 21,
      'monitor-battery': 0.2,
      diode: 0.1,
      'fuse 5': 1.6,
      'cable-0.22': 0.45,
      'cable-1': 1.1,
      'cable-1.5': 1.5,
    },
    spares: { 'probe-fork': 2, 'probe-capacitive': 1, 'fuse 5': 2 },
    lives: {},
  },
  supply: {
    ...EMPTY_PLAN.supply,
    everyS: 300,
    waterS: 90,
    latitudeDeg: 52.3,
    longitudeDeg: -1.2,
    temperatureC: 8,
    darkDays: 4,
  },
};

/** Every part, before a wire is drawn. */
function parts(): Netlist {
  const catalogue = catalogueWith([]);
  let next = EMPTY_NETLIST;
  const add = (of: NewPart) => {
    const added = addPart(next, catalogue, of);
    next = added.netlist;
    return added.id;
  };
  const probe = (id: string) => ({ list: 'probes', id: `probe-${id}` }) as const;
  const roof = add({
    entryId: 'board-wifi-two-groups',
    label: 'Roof board',
    stands: { list: 'boards', id: 'roof' },
  });
  const stern = add({
    entryId: 'board-8bit-six',
    label: 'Stern board',
    stands: { list: 'boards', id: 'stern' },
  });
  add({ entryId: 'battery-12v', label: 'Battery', colour: 'red' });
  add({ entryId: 'solar-panel', label: 'Panel', colour: 'black' });
  add({ entryId: 'regulator-5v', label: '5 V regulator' });
  add({ entryId: 'fuse', label: 'F1', settings: { fuseA: 5 } });
  add({ entryId: 'probe-capacitive', label: 'L1', colour: 'yellow', boardId: roof, stands: probe('l1') });
  add({ entryId: 'probe-capacitive', label: 'C2', colour: 'blue', boardId: roof, stands: probe('c2') });
  add({
    entryId: 'probe-fork',
    label: 'M1',
    colour: 'green',
    boardId: stern,
    stands: probe('m1'),
    perReading: true,
  });
  add({ entryId: 'probe-capacitive', label: 'S1', colour: 'red', boardId: stern, stands: probe('s1') });
  add({
    entryId: 'probe-bus-rods',
    label: 'B1',
    colour: 'white',
    boardId: roof,
    address: 1,
    stands: probe('b1'),
  });
  add({ entryId: 'transceiver-33v', label: 'Bus transceiver', boardId: roof });
  add({ entryId: 'thermo-ntc', label: 'T1', colour: 'black', boardId: stern, stands: probe('t1') });
  add({ entryId: 'display-i2c', label: 'Stern display', boardId: stern });
  add({
    entryId: 'pump-12v',
    label: 'Roof pump',
    colour: 'blue',
    boardId: roof,
    stands: { list: 'waterLines', id: 'line-roof' },
  });
  add({ entryId: 'switch-mosfet', label: 'Pump switch', boardId: roof });
  add({ entryId: 'contact-float', label: 'Tank float', colour: 'white', boardId: roof });
  add({ entryId: 'thermo-one-wire', label: 'Air under the hatch', boardId: roof });
  add({ entryId: 'monitor-battery', label: 'Battery monitor', boardId: roof });
  add({
    entryId: 'lamp-led',
    label: 'Dry lamp',
    boardId: roof,
    stands: { list: 'plots', id: 'chilli' },
  });
  add({
    entryId: 'plug-mains-input',
    label: 'Galley light',
    boardId: stern,
    stands: { list: 'contacts', id: 'galley-light' },
  });
  return next;
}

/** Lengths as they were measured along the gunwale, m. */
const LENGTHS: Readonly<Record<string, number>> = {
  L1: 2.4,
  C2: 1.6,
  M1: 2.1,
  S1: 3,
  B1: 4.5,
  T1: 3.2,
  'Roof pump': 2.8,
  'Tank float': 2.6,
  Panel: 4,
  Supply: 0.6,
};

/** The wiring as the planner draws it; lengths are the measured ones. */
export function marigoldWiring(): Netlist {
  const catalogue = catalogueWith([]);
  const planned = planWiring(parts(), catalogue, { radioOn: true, tapWater: false }, { lengthM: 2 }).netlist;
  return planned.cables.reduce(
    (next, cable) => changeCable(next, cable.id, { lengthM: LENGTHS[cable.label] ?? cable.lengthM }),
    planned,
  );
}
