/** Resistors, diodes, bus and level parts, supplies and fuses. */
import type { Entry, Terminal } from './schema.ts';
import { ground, lead, rs485a, rs485b, scl, sda, supplyIn, supplyOut } from './terminals.ts';

const SOURCE = 'Typical of the kind; your part’s sheet goes first.';
const part = (
  of: Pick<Entry, 'id' | 'role' | 'name' | 'good' | 'bad'> & Partial<Entry>,
  terminals: readonly Terminal[],
): Entry => ({
  addresses: [],
  source: SOURCE,
  cost: 'pennies',
  ...of,
  facts: { poweredYears: 10, idleYears: 10, ...of.facts },
  terminals: [...terminals],
});

const twoLeads = [lead('a', 'one end'), lead('b', 'other end')];

const shifterPairs: Terminal[] = [1, 2, 3, 4].flatMap((n): Terminal[] => [
  lead(`lv${n}`, `low ${n}`),
  lead(`hv${n}`, `high ${n}`),
]);

const converterInputs: Terminal[] = [0, 1, 2, 3].map((n) => ({
  type: 'analog in',
  id: `in${n}`,
  name: `input ${n}`,
  maxV: 3.6,
  fullScaleV: 4.096,
}));

export const SMALL: readonly Entry[] = [
  part(
    {
      id: 'resistor',
      role: 'resistor',
      name: 'resistor',
      good: 'Set its value.',
      bad: 'Tolerance 1 to 5 %.',
      facts: { ohm: null },
    },
    twoLeads,
  ),
  part(
    {
      id: 'divider',
      role: 'divider',
      name: 'divider, two resistors',
      good: 'Hands on a share of a voltage.',
      bad: 'Loads the probe a little.',
      facts: { upperOhm: null, lowerOhm: null },
    },
    [lead('in', 'in', 'in'), lead('out', 'out', 'out'), ground()],
  ),
  part(
    {
      id: 'pull-ups',
      role: 'pull-ups',
      name: 'pull-up pair for I2C',
      good: 'One pair for the whole bus.',
      bad: 'Modules often bring their own as well.',
      facts: { ohm: 4700 },
    },
    [lead('up', 'to the supply', 'in'), lead('sda', 'SDA'), lead('scl', 'SCL')],
  ),
  part(
    {
      id: 'shunt',
      role: 'shunt',
      name: 'shunt for a 4–20 mA probe',
      good: 'Makes a voltage of the current.',
      bad: 'Its value sets full scale.',
      facts: { ohm: 150 },
    },
    [lead('in', 'loop −', 'in'), ground()],
  ),
  part(
    {
      id: 'diode',
      role: 'diode',
      name: 'flyback diode, 1 A',
      good: 'Takes the kick of a coil or motor.',
      bad: 'The ring goes to plus.',
      facts: { switchedMa: 1000 },
    },
    [lead('anode', 'anode', 'anode'), lead('cathode', 'cathode, ring', 'cathode')],
  ),
  part(
    {
      id: 'level-shifter',
      role: 'level shifter',
      name: 'level shifter, four lines, both ways',
      good: 'Between 3.3 V and 5 V logic.',
      bad: 'Not for analog signals.',
      cost: 'cheap',
    },
    [lead('lv', 'low supply', 'in'), lead('hv', 'high supply', 'in'), ground(), ...shifterPairs],
  ),
  part(
    {
      id: 'transceiver-5v',
      role: 'transceiver',
      name: 'RS-485 transceiver, 5 V, direction pin',
      good: 'The usual one.',
      bad: '5 V logic: a 3.3 V board wants a level shifter.',
      cost: 'cheap',
      facts: { activeMa: 2, peakMa: 60, unitLoad: 1, selfDirected: 0, hasTermination: 1 },
    },
    [
      supplyIn(4.75, 5.25),
      ground(),
      { type: 'uart in', id: 'di', name: 'data in', maxV: 5.5, highFromV: 2 },
      { type: 'uart out', id: 'ro', name: 'data out', highV: null, follows: 'vcc' },
      { type: 'digital in', id: 'de', name: 'direction', maxV: 5.5, highFromV: 2, takesMa: 0.1 },
      rs485a,
      rs485b,
    ],
  ),
  part(
    {
      id: 'transceiver-33v',
      role: 'transceiver',
      name: 'RS-485 transceiver, 3.3 V, automatic direction',
      good: 'Fits 3.3 V boards without a shifter, needs no direction pin.',
      bad: 'Costs a little more.',
      cost: 'cheap',
      facts: { activeMa: 2, peakMa: 60, unitLoad: 0.125, selfDirected: 1, hasTermination: 1 },
    },
    [
      supplyIn(3, 5.5),
      ground(),
      { type: 'uart in', id: 'di', name: 'data in', maxV: 5.5, highFromV: 2 },
      { type: 'uart out', id: 'ro', name: 'data out', highV: null, follows: 'vcc' },
      rs485a,
      rs485b,
    ],
  ),
  part(
    {
      id: 'converter-i2c',
      role: 'converter',
      name: 'I2C converter, four 16-bit inputs',
      good: 'Four fine inputs for a board that has one or none.',
      bad: 'Slow beside a board’s own inputs, which does not matter here.',
      cost: 'cheap',
      addresses: [0x48, 0x49, 0x4a, 0x4b],
      facts: {
        activeMa: 0.3,
        peakMa: 1,
        busPf: 15,
        ownPullUpOhm: 10_000,
        adcBits: 16,
        adcReferenceV: 4.096,
        sourceLimitOhm: 100_000,
        inputOhm: 6e6,
      },
    },
    [supplyIn(2, 5.5), ground(), sda(5.5), scl(5.5), ...converterInputs],
  ),
  part(
    {
      id: 'expander-i2c',
      role: 'expander',
      name: 'I2C port expander, eight lines',
      good: 'Eight more digital pins from two.',
      bad: 'Weak outputs: drive a MOSFET or a module with it.',
      cost: 'cheap',
      addresses: [0x20, 0x21, 0x22, 0x23, 0x24, 0x25, 0x26, 0x27],
      facts: { activeMa: 0.1, peakMa: 1, busPf: 15, pinMa: 10, pinsTotalMa: 80, logicV: 3.3 },
    },
    [
      supplyIn(2.5, 5.5),
      ground(),
      sda(5.5),
      scl(5.5),
      ...[0, 1, 2, 3, 4, 5, 6, 7].map((n): Terminal => ({
        type: 'pin',
        id: `x${n}`,
        name: `X${n}`,
        caps: ['in', 'out'],
        maxV: 5.5,
      })),
    ],
  ),
  part(
    {
      id: 'regulator-5v',
      role: 'regulator',
      name: 'step-down regulator, 12 V to 5 V, 2 A',
      good: 'Cool and thrifty.',
      bad: 'Set or check its output before anything is connected.',
      cost: 'cheap',
      facts: { activeMa: 3, sleepMa: 0.5 },
    },
    [supplyIn(7, 24), ground(), supplyOut(5, 2000, 'out', '5 V out')],
  ),
  part(
    {
      id: 'supply-usb',
      role: 'supply',
      name: 'USB supply, 5 V, 2 A',
      good: 'Ready-made, safe to touch.',
      bad: 'Power banks switch themselves off under small loads.',
      cost: 'cheap',
    },
    [supplyOut(5, 2000, 'out', '5 V'), ground()],
  ),
  part(
    {
      id: 'supply-12v',
      role: 'supply',
      name: 'certified plug-in supply, 12 V, 3 A',
      good: 'Ready-made: nothing of the mains is wired here.',
      bad: 'Keep it indoors and dry, behind residual-current protection.',
      cost: 'moderate',
    },
    [supplyOut(12, 3000, 'out', '12 V'), ground()],
  ),
  part(
    {
      id: 'supply-24vac',
      role: 'supply',
      name: 'certified transformer, 24 V AC',
      good: 'For irrigation valves.',
      bad: 'Bought ready-made; alternating current for the valves only.',
      cost: 'moderate',
    },
    [supplyOut(24, 1000, 'out', '24 V AC'), ground('gnd', 'other side')],
  ),
  part(
    {
      id: 'battery-12v',
      role: 'battery',
      name: '12 V lead-acid battery, 7 Ah',
      good: 'Cheap, bears the cold, easily charged by a small panel.',
      bad: 'Heavy; half of it may be used. Fuse it.',
      cost: 'moderate',
      facts: { capacityMah: 7000, poweredYears: 4, idleYears: 3 },
    },
    [supplyOut(14.4, 30_000, 'plus', '+'), ground('gnd', '−')],
  ),
  part(
    {
      id: 'battery-lithium',
      role: 'battery',
      name: 'lithium cell with protection, 3.7 V, 3 Ah',
      good: 'Small and light.',
      bad: 'Needs its own charger and a fuse, and must never be charged below freezing.',
      cost: 'cheap',
      facts: { capacityMah: 3000, poweredYears: 3, idleYears: 3 },
    },
    [supplyOut(4.2, 3000, 'plus', '+'), ground('gnd', '−')],
  ),
  part(
    {
      id: 'battery-aa',
      role: 'battery',
      name: 'three alkaline cells, 4.5 V',
      good: 'Bought anywhere.',
      bad: 'The voltage falls as they empty: a probe that follows its supply falls with it.',
      facts: { capacityMah: 2500, poweredYears: 1, idleYears: 5 },
    },
    [supplyOut(4.8, 1000, 'plus', '+'), ground('gnd', '−')],
  ),
  part(
    {
      id: 'solar-panel',
      role: 'solar',
      name: 'solar panel with charge controller, 12 V',
      good: 'Keeps a battery full through the summer.',
      bad: 'The worst month decides its size.',
      cost: 'moderate',
      facts: { panelW: 20, poweredYears: 12, idleYears: 15 },
    },
    [lead('plus', 'to battery +', 'out'), ground('gnd', 'to battery −')],
  ),
  part(
    {
      id: 'fuse',
      role: 'fuse',
      name: 'fuse in its holder',
      good: 'Saves the cable, and with it the boat or shed.',
      bad: 'Within a hand’s breadth of the battery.',
      facts: { fuseA: null },
    },
    [lead('a', 'battery side', 'in'), lead('b', 'load side', 'out')],
  ),
];
