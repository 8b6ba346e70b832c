/** Lamps, pumps, valves and what switches them. */
import type { Entry, Terminal } from './schema.ts';
import { digitalIn, ground, lead, load, scl, sda, supplyIn } from './terminals.ts';

const SOURCE = 'Typical of the kind; your part’s sheet goes first.';
const part = (
  of: Pick<Entry, 'id' | 'role' | 'name' | 'good' | 'bad' | 'facts' | 'cost'> & Partial<Entry>,
  terminals: readonly Terminal[],
): Entry => ({ addresses: [], source: SOURCE, ...of, terminals: [...terminals] });

const ledLeads = [lead('anode', 'anode', 'anode'), lead('cathode', 'cathode', 'cathode')];

export const OUTPUTS: readonly Entry[] = [
  part(
    {
      id: 'lamp-led',
      role: 'LED',
      name: 'LED, single colour',
      good: 'The simplest signal.',
      bad: 'Needs a series resistor.',
      cost: 'pennies',
      facts: { forwardV: 2, activeMa: 5, poweredYears: 10, idleYears: 10 },
    },
    ledLeads,
  ),
  part(
    {
      id: 'lamp-ring',
      role: 'lamp',
      name: 'addressable lamp ring, 12 lights',
      good: 'Any colour, one data wire.',
      bad: 'Up to 60 mA a light at full white; its data wants 0.7 of its supply.',
      cost: 'cheap',
      facts: { activeMa: 60, peakMa: 720, poweredYears: 5, idleYears: 8 },
    },
    [
      supplyIn(4.5, 5.5),
      ground(),
      digitalIn({ id: 'data', name: 'data in', maxV: 5.5, highFromV: 3.5, takesMa: 0.1 }),
    ],
  ),
  part(
    {
      id: 'buzzer',
      role: 'buzzer',
      name: 'active buzzer module',
      good: 'Heard without looking.',
      bad: 'Neighbours hear it too: quiet hours.',
      cost: 'pennies',
      facts: { activeMa: 0, peakMa: 30, poweredYears: 5, idleYears: 8 },
    },
    [supplyIn(3, 5.5), ground(), digitalIn({ id: 'in', name: 'input', highFromV: 2, takesMa: 1 })],
  ),
  part(
    {
      id: 'display-i2c',
      role: 'display',
      name: 'small I2C display',
      good: 'Words at the bench.',
      bad: 'Takes current for as long as it is lit.',
      cost: 'cheap',
      addresses: [0x3c, 0x3d],
      facts: {
        activeMa: 15,
        peakMa: 25,
        sleepMa: 0.01,
        busPf: 20,
        ownPullUpOhm: 10_000,
        poweredYears: 3,
        idleYears: 6,
      },
    },
    [supplyIn(3, 5.5), ground(), sda(5.5), scl(5.5)],
  ),
  part(
    {
      id: 'pump-5v',
      role: 'pump',
      name: 'submersible pump, 3–5 V',
      good: 'Cheap, stands in the water.',
      bad: 'Little lift; dies when it runs dry.',
      cost: 'pennies',
      facts: { ratedV: 5, activeMa: 180, peakMa: 500, poweredYears: 1, idleYears: 2 },
    },
    load('motor'),
  ),
  part(
    {
      id: 'pump-12v',
      role: 'pump',
      name: 'diaphragm pump, 12 V',
      good: 'Self-priming, lifts two metres and more.',
      bad: 'Loud; takes an ampere or more and several at the start.',
      cost: 'moderate',
      facts: { ratedV: 12, activeMa: 900, peakMa: 3000, poweredYears: 3, idleYears: 5 },
    },
    load('motor'),
  ),
  part(
    {
      id: 'pump-hose',
      role: 'pump',
      name: 'hose (peristaltic) pump, 12 V',
      good: 'Exact small doses, holds the water when it stands.',
      bad: 'Slow; its hose wears out.',
      cost: 'cheap',
      facts: { ratedV: 12, activeMa: 300, peakMa: 700, poweredYears: 1, idleYears: 3 },
    },
    load('motor'),
  ),
  part(
    {
      id: 'valve-12v',
      role: 'valve',
      name: 'solenoid valve, 12 V DC',
      good: 'Opens from a tank or a tap.',
      bad: 'Takes current for as long as it is open; many want some water pressure.',
      cost: 'cheap',
      facts: { ratedV: 12, activeMa: 400, peakMa: 420, poweredYears: 5, idleYears: 8 },
    },
    load('coil'),
  ),
  part(
    {
      id: 'valve-24vac',
      role: 'valve',
      name: 'irrigation valve, 24 V AC',
      good: 'The usual garden valve.',
      bad: 'Alternating current: a relay contact switches it, a MOSFET cannot; its transformer is a ready-made certified one.',
      cost: 'moderate',
      facts: { ratedV: 24, activeMa: 250, peakMa: 400, poweredYears: 8, idleYears: 10 },
    },
    load('coil'),
  ),
  part(
    {
      id: 'valve-servo',
      role: 'servo',
      name: 'servo that pinches a tube',
      good: 'No pressure needed, shuts a gravity line.',
      bad: 'Takes half an ampere and more when it turns or jams.',
      cost: 'cheap',
      facts: { activeMa: 10, peakMa: 700, poweredYears: 2, idleYears: 4 },
    },
    [supplyIn(4.8, 6), ground(), digitalIn({ id: 'in', name: 'pulse', highFromV: 2.5, takesMa: 0.5 })],
  ),
  part(
    {
      id: 'plug-mains',
      role: 'mains plug',
      name: 'certified switched plug with radio, for a grow light',
      good: 'Bought ready-made: nothing of the mains is wired here.',
      bad: 'Needs residual-current protection behind it; keep it dry.',
      cost: 'moderate',
      facts: { poweredYears: 5, idleYears: 5 },
    },
    [{ type: 'mains', id: 'plug', name: 'mains, ready-made only' }],
  ),
  part(
    {
      id: 'switch-mosfet',
      role: 'MOSFET',
      name: 'MOSFET, logic level, 30 V',
      good: 'Switches amperes from 3.3 V, wastes almost nothing.',
      bad: 'Wants a gate resistor, a pull-down and a diode across the load.',
      cost: 'pennies',
      facts: {
        gateFullOnV: 2.5,
        onOhm: 0.04,
        switchedV: 30,
        switchedMa: 5000,
        hasFlyback: 0,
        poweredYears: 10,
        idleYears: 10,
      },
    },
    [
      { type: 'control', id: 'gate', name: 'gate', device: 'gate' },
      { type: 'switched', id: 'drain', name: 'drain', side: 'low' },
      ground('source', 'source'),
    ],
  ),
  part(
    {
      id: 'switch-mosfet-10v',
      role: 'MOSFET',
      name: 'MOSFET, needs 10 V at its gate',
      good: 'Found in many drawers.',
      bad: 'Not fully on from a board’s pin: it heats and the pump starves.',
      cost: 'pennies',
      facts: {
        gateFullOnV: 10,
        onOhm: 0.02,
        switchedV: 60,
        switchedMa: 10_000,
        hasFlyback: 0,
        poweredYears: 10,
        idleYears: 10,
      },
    },
    [
      { type: 'control', id: 'gate', name: 'gate', device: 'gate' },
      { type: 'switched', id: 'drain', name: 'drain', side: 'low' },
      ground('source', 'source'),
    ],
  ),
  part(
    {
      id: 'switch-transistor',
      role: 'transistor',
      name: 'NPN transistor, 45 V, 0.8 A',
      good: 'Pennies, enough for a small pump or a relay coil.',
      bad: 'Wants a base resistor and a diode; loses half a volt and more.',
      cost: 'pennies',
      facts: { hfe: 100, switchedV: 45, switchedMa: 800, hasFlyback: 0, poweredYears: 10, idleYears: 10 },
    },
    [
      { type: 'control', id: 'base', name: 'base', device: 'base' },
      { type: 'switched', id: 'collector', name: 'collector', side: 'low' },
      ground('emitter', 'emitter'),
    ],
  ),
  part(
    {
      id: 'switch-relay-low',
      role: 'relay',
      name: 'relay module, active low, 5 V coil',
      good: 'Switches anything, even 24 V AC; clicks so that one hears it.',
      bad: 'On when its input is low: the pump may run while the board boots. 70 mA for as long as it is on.',
      cost: 'cheap',
      facts: {
        activeMa: 0,
        peakMa: 75,
        activeLow: 1,
        hasFlyback: 1,
        switchedV: 30,
        switchedMa: 5000,
        poweredYears: 5,
        idleYears: 8,
      },
    },
    relayTerminals(4),
  ),
  part(
    {
      id: 'switch-relay-high',
      role: 'relay',
      name: 'relay module, active high, 5 V coil',
      good: 'As above, and off while the board boots.',
      bad: '70 mA for as long as it is on.',
      cost: 'cheap',
      facts: {
        activeMa: 0,
        peakMa: 75,
        activeLow: 0,
        hasFlyback: 1,
        switchedV: 30,
        switchedMa: 5000,
        poweredYears: 5,
        idleYears: 8,
      },
    },
    relayTerminals(2.5),
  ),
  part(
    {
      id: 'switch-driver',
      role: 'driver module',
      name: 'MOSFET driver module with diode',
      good: 'Resistors and diode are on it: two wires in, two out.',
      bad: 'Some want more than 3.3 V at the input; look at its sheet.',
      cost: 'cheap',
      facts: { switchedV: 24, switchedMa: 5000, hasFlyback: 1, activeLow: 0, poweredYears: 8, idleYears: 10 },
    },
    [
      digitalIn({ id: 'in', name: 'input', maxV: 20, highFromV: 3, takesMa: 1 }),
      ground(),
      { type: 'switched', id: 'load', name: 'load −', side: 'low' },
    ],
  ),
];

function relayTerminals(highFromV: number): Terminal[] {
  return [
    supplyIn(4.5, 5.5),
    ground(),
    digitalIn({ id: 'in', name: 'input', maxV: 5.5, highFromV, takesMa: 5 }),
    { type: 'switched', id: 'common', name: 'common', side: 'common' },
    { type: 'switched', id: 'open', name: 'normally open', side: 'open' },
  ];
}
