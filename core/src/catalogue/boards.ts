/** Six boards by their traits. Pin names are this program's own: IN for converter inputs, P for the others; write your board's print beside them. */
import type { Entry, Terminal } from './schema.ts';
import { ground, pin, supplyIn, supplyOut } from './terminals.ts';

const SOURCE = 'Typical figures of this class of board; your board’s data sheet goes first.';

const board = (
  of: Pick<Entry, 'id' | 'name' | 'good' | 'bad' | 'facts' | 'cost'>,
  terminals: readonly Terminal[],
): Entry => ({ role: 'board', addresses: [], source: SOURCE, ...of, terminals: [...terminals] });

const range = (count: number, first = 0) => Array.from({ length: count }, (_, at) => first + at);

const power5 = [
  supplyIn(4.8, 5.3, 'v5', '5 V in'),
  supplyOut(5, 400, 'out5', '5 V out'),
  supplyOut(3.3, 50, 'out33', '3.3 V out'),
  ground(),
];
const power33 = [supplyIn(4.7, 5.3, 'v5', '5 V in'), supplyOut(3.3, 400, 'out33', '3.3 V out'), ground()];

const eightBitFacts = {
  logicV: 5,
  adcBits: 10,
  adcReferenceV: 5,
  sourceLimitOhm: 10_000,
  inputOhm: 1e8,
  pinMa: 20,
  pinsTotalMa: 200,
  regulatorMa: 400,
  activeMa: 45,
  sleepMa: 25,
  radioMa: 0,
  hasRadio: 0,
  wakeS: 2,
  radioS: 0,
  poweredYears: 10,
  idleYears: 10,
};

const eightBitPins = (inputs: number) => [
  pin('p0', 'P0', 'in out rx', 5.5, { serial: true }),
  pin('p1', 'P1', 'in out tx', 5.5, { serial: true }),
  ...range(12, 2).map((n) =>
    pin(
      `p${n}`,
      `P${n}`,
      [2, 3].includes(n)
        ? 'in out interrupt one-wire rx tx'
        : [5, 6, 9, 10, 11].includes(n)
          ? 'in out pwm one-wire rx tx'
          : 'in out one-wire rx tx',
      5.5,
    ),
  ),
  ...range(inputs).map((n) =>
    pin(
      `in${n}`,
      `IN${n}`,
      n === 4 ? 'adc in out sda' : n === 5 ? 'adc in out scl' : n > 5 ? 'adc' : 'adc in out',
      5.5,
      { fullScaleV: 5 },
    ),
  ),
];

export const BOARDS: readonly Entry[] = [
  board(
    {
      id: 'board-8bit-six',
      name: '8-bit 5 V board, six 10-bit inputs',
      good: 'Forgiving, many 5 V probes fit directly, six analog inputs.',
      bad: 'No radio. The two inputs IN4 and IN5 are also the I2C bus.',
      cost: 'cheap',
      facts: eightBitFacts,
    },
    [...power5, ...eightBitPins(6)],
  ),
  board(
    {
      id: 'board-8bit-eight',
      name: '8-bit 5 V board, eight 10-bit inputs',
      good: 'Small, eight analog inputs, 5 V logic.',
      bad: 'No radio. Two of the inputs are analog only, two are also the I2C bus.',
      cost: 'cheap',
      facts: { ...eightBitFacts, activeMa: 22, sleepMa: 6 },
    },
    [...power5, ...eightBitPins(8)],
  ),
  board(
    {
      id: 'board-wifi-one',
      name: '3.3 V Wi-Fi board, one 0–1 V input',
      good: 'Wi-Fi at a low price, deep sleep.',
      bad: 'One analog input of one volt only; more probes need a converter on the bus. Several pins decide how it starts.',
      cost: 'cheap',
      facts: {
        logicV: 3.3,
        adcBits: 10,
        adcReferenceV: 1,
        sourceLimitOhm: 10_000,
        inputOhm: 1e7,
        pinMa: 12,
        pinsTotalMa: 100,
        regulatorMa: 400,
        activeMa: 75,
        sleepMa: 0.15,
        radioMa: 170,
        hasRadio: 1,
        wakeS: 4,
        radioS: 3,
        poweredYears: 8,
        idleYears: 8,
      },
    },
    [
      ...power33,
      pin('in0', 'IN0', 'adc', 1, { fullScaleV: 1 }),
      pin('p0', 'P0', 'in out pwm', 3.6, { strap: 'must be high at start; low loads a program' }),
      pin('p1', 'P1', 'in out tx', 3.6, { serial: true }),
      pin('p2', 'P2', 'in out pwm', 3.6, { strap: 'must be high at start' }),
      pin('p3', 'P3', 'in out rx', 3.6, { serial: true }),
      pin('p4', 'P4', 'in out pwm interrupt sda one-wire', 3.6),
      pin('p5', 'P5', 'in out pwm interrupt scl one-wire', 3.6),
      ...[12, 13, 14].map((n) => pin(`p${n}`, `P${n}`, 'in out pwm interrupt one-wire rx tx', 3.6)),
      pin('p15', 'P15', 'in out pwm', 3.6, { strap: 'must be low at start' }),
      pin('p16', 'P16', 'in out', 3.6, { highAtBoot: true }),
    ],
  ),
  board(
    {
      id: 'board-wifi-two-groups',
      name: '3.3 V Wi-Fi board, 12-bit, two converter groups',
      good: 'Wi-Fi, many 12-bit inputs, very low current asleep, most pins can do most things.',
      bad: 'Inputs of group 2 read nothing while the radio is on; the converter is not straight near its ends; some pins decide how it starts.',
      cost: 'cheap',
      facts: {
        logicV: 3.3,
        adcBits: 12,
        adcReferenceV: 3.3,
        sourceLimitOhm: 10_000,
        inputOhm: 1e7,
        pinMa: 20,
        pinsTotalMa: 200,
        regulatorMa: 400,
        activeMa: 50,
        sleepMa: 0.05,
        radioMa: 180,
        hasRadio: 1,
        wakeS: 3,
        radioS: 2,
        poweredYears: 8,
        idleYears: 8,
      },
    },
    [
      ...power33,
      ...[32, 33].map((n) =>
        pin(`p${n}`, `P${n}`, 'adc in out pwm interrupt one-wire', 3.6, { fullScaleV: 3.3, adcGroup: '1' }),
      ),
      ...[34, 35, 36, 39].map((n) =>
        pin(`p${n}`, `P${n}`, 'adc in interrupt', 3.6, { fullScaleV: 3.3, adcGroup: '1' }),
      ),
      ...[13, 14, 25, 26, 27].map((n) =>
        pin(`p${n}`, `P${n}`, 'adc in out pwm interrupt one-wire rx tx', 3.6, {
          fullScaleV: 3.3,
          adcGroup: '2',
          lostWithRadio: true,
        }),
      ),
      ...[4].map((n) =>
        pin(`p${n}`, `P${n}`, 'adc in out pwm interrupt one-wire', 3.6, {
          fullScaleV: 3.3,
          adcGroup: '2',
          lostWithRadio: true,
        }),
      ),
      pin('p0', 'P0', 'in out pwm', 3.6, { strap: 'must be high at start; low loads a program' }),
      pin('p2', 'P2', 'in out pwm', 3.6, { strap: 'must be low or open while a program is loaded' }),
      pin('p5', 'P5', 'in out pwm', 3.6, { strap: 'must be high at start', highAtBoot: true }),
      pin('p12', 'P12', 'in out pwm', 3.6, {
        strap: 'must be low at start; high picks the wrong memory voltage',
      }),
      pin('p15', 'P15', 'in out pwm', 3.6, { strap: 'must be high at start', highAtBoot: true }),
      pin('p1', 'P1', 'in out tx', 3.6, { serial: true }),
      pin('p3', 'P3', 'in out rx', 3.6, { serial: true }),
      ...[16, 17].map((n) => pin(`p${n}`, `P${n}`, 'in out pwm interrupt rx tx one-wire', 3.6)),
      ...[18, 19, 23].map((n) => pin(`p${n}`, `P${n}`, 'in out pwm interrupt one-wire', 3.6)),
      pin('p21', 'P21', 'in out pwm sda', 3.6),
      pin('p22', 'P22', 'in out pwm scl', 3.6),
    ],
  ),
  board(
    {
      id: 'board-33-three',
      name: '3.3 V board, three 12-bit inputs',
      good: 'Tidy 12-bit readings, programmable input and output, cheap; with a radio in one version.',
      bad: 'Three analog inputs only.',
      cost: 'cheap',
      facts: {
        logicV: 3.3,
        adcBits: 12,
        adcReferenceV: 3.3,
        sourceLimitOhm: 10_000,
        inputOhm: 1e7,
        pinMa: 12,
        pinsTotalMa: 50,
        regulatorMa: 300,
        activeMa: 25,
        sleepMa: 1.3,
        radioMa: 0,
        hasRadio: 0,
        wakeS: 2,
        radioS: 0,
        poweredYears: 8,
        idleYears: 8,
      },
    },
    [
      ...power33,
      ...range(3, 26).map((n) =>
        pin(`p${n}`, `P${n}`, 'adc in out pwm interrupt one-wire', 3.6, { fullScaleV: 3.3, adcGroup: '1' }),
      ),
      pin('p0', 'P0', 'in out tx', 3.6, { serial: true }),
      pin('p1', 'P1', 'in out rx', 3.6, { serial: true }),
      pin('p4', 'P4', 'in out pwm sda', 3.6),
      pin('p5', 'P5', 'in out pwm scl', 3.6),
      pin('p8', 'P8', 'in out pwm tx', 3.6),
      pin('p9', 'P9', 'in out pwm rx', 3.6),
      ...[2, 3, 6, 7, ...range(10, 10)].map((n) =>
        pin(`p${n}`, `P${n}`, 'in out pwm interrupt one-wire', 3.6),
      ),
    ],
  ),
  board(
    {
      id: 'board-32bit-seven',
      name: '32-bit 3.3 V board, seven 12-bit inputs',
      good: 'Seven good inputs, low noise, low current asleep.',
      bad: 'No radio; 3.3 V only, so 5 V probes need a divider. Little current from each pin.',
      cost: 'moderate',
      facts: {
        logicV: 3.3,
        adcBits: 12,
        adcReferenceV: 3.3,
        sourceLimitOhm: 10_000,
        inputOhm: 1e7,
        pinMa: 7,
        pinsTotalMa: 46,
        regulatorMa: 200,
        activeMa: 20,
        sleepMa: 0.8,
        radioMa: 0,
        hasRadio: 0,
        wakeS: 2,
        radioS: 0,
        poweredYears: 10,
        idleYears: 10,
      },
    },
    [
      ...power33,
      ...range(7).map((n) => pin(`in${n}`, `IN${n}`, 'adc in out', 3.6, { fullScaleV: 3.3 })),
      ...range(6).map((n) => pin(`p${n}`, `P${n}`, 'in out pwm interrupt one-wire', 3.6)),
      pin('p11', 'P11', 'in out pwm sda', 3.6),
      pin('p12', 'P12', 'in out pwm scl', 3.6),
      pin('p13', 'P13', 'in out rx', 3.6),
      pin('p14', 'P14', 'in out tx', 3.6),
    ],
  ),
];
