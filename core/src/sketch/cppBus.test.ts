/** Probes on a bus, asked bit by bit by the program in C++, against probes of ours that keep their own time. */
import { expect, test } from 'vitest';
import { TENTHS_TABLE } from '../control/host/combined.ts';
import { compiled, planOf, played } from '../../../engine/cpp/host/compiled.ts';
import { WIDE } from './playForTests.ts';
import type { BoardPlan, SketchInput } from './plan.ts';

const plan = planOf();
const [stick] = plan.inputs;
if (!stick) throw new Error('no input');
const stickPin = 200 + stick.pin.number;
const pin = (number: number) => ({ kind: 'pin', number }) as const;

const word = (
  name: string,
  probe: number,
  place: number,
  isSigned: boolean,
  decimals: 0 | 1,
): SketchInput => ({
  ...stick,
  channelId: name,
  name,
  label: name,
  reads: 'bus',
  register: { probe, word: place, kind: isSigned ? 'int16' : 'uint16', decimals, times: 1, per: 1, plus: 0 },
});

/** Two probes of two words each, on pins 16 and 17; the transceiver turns by pin 18 where one is given. */
const onABus = (baud: number, direction: number | null): BoardPlan => ({
  ...plan,
  inputs: [
    stick,
    word('b1.moisture', 0, 0, false, 1),
    word('b1.temperature', 0, 1, true, 1),
    word('b2.ec', 1, 1, false, 0),
  ],
  bus: {
    tx: pin(16),
    rx: pin(17),
    direction: direction === null ? null : pin(direction),
    baud,
    probes: [
      { address: 1, function: 3, register: 0, count: 2 },
      { address: 200, function: 4, register: 258, count: 2 },
    ],
  },
});

/** A probe of the board on the computer: how it thinks, how far its clock is off, which byte of its answer is damaged. */
const probe = (
  address: number,
  registers: readonly number[],
  { direction = 255, baud = 9600, thinksUs = 40_000, skew = 0, flips = -1 } = {},
) => `b 16 17 ${direction} ${baud} ${address} ${thinksUs} ${skew} ${flips} ${registers.join(' ')}`;
const FAR = [...Array.from({ length: 258 }, () => 7), 12, 1413];

const saidOf = (lines: readonly string[], name: string) =>
  lines.flatMap((line) => {
    const found = new RegExp(`^> .*\\b${name.replace('.', '\\.')}=(\\S+)`).exec(line);
    return found ? [found[1]] : [];
  });

const board = compiled(onABus(9600, null), '-O1');

test('compiles without a warning', () => expect(board.said).toBe(''));

test('they are asked in turn, one a second, and said with the decimals of their maps; below freezing as well', () => {
  const lines = played(board.program, [
    `a ${stickPin} 1512`,
    probe(1, [314, 65_504]),
    probe(200, FAR),
    'w 1',
    'w 1',
    'w 1',
    'w 1',
  ]);
  // The first answer is read in the second after the one in which it was asked for.
  expect(lines.filter((line) => line.includes('c2='))).toEqual([
    '> c2=1512',
    '> c2=1512 b1.moisture=31.4 b1.temperature=-3.2',
    '> c2=1512 b2.ec=1413',
    '> c2=1512 b1.moisture=31.4 b1.temperature=-3.2',
  ]);
});

test.each([
  [2400, 0],
  [9600, -25],
  [19_200, 15],
])('at %i bits a second a clock that is off by %i thousandths does not matter', (baud, skew) => {
  const { program } = compiled(onABus(baud, 18));
  const lines = played(program, [
    probe(1, [314, 65_504], { baud, skew, direction: 18 }),
    probe(200, FAR, { baud, skew, direction: 18, thinksUs: 250_000 }),
    'w 5',
  ]);
  expect(saidOf(lines, 'b1.moisture')).toEqual(['31.4', '31.4']);
  expect(saidOf(lines, 'b2.ec')).toEqual(['1413', '1413']);
});

test.each([0, 1, 2, 3, 5, 7, 8])(
  'byte %i of an answer damaged: no reading, and the other probe goes on',
  (flips) => {
    const lines = played(board.program, [probe(1, [314, 250], { flips }), probe(200, FAR), 'w 7']);
    expect(saidOf(lines, 'b1.moisture')).toEqual([]);
    expect(saidOf(lines, 'b2.ec')).toEqual(['1413', '1413', '1413']);
  },
);

test.each([
  ['nobody is there', []],
  ['it thinks for longer than it may', [probe(1, [314, 250], { thinksUs: 320_000 })]],
  ['it is set to another speed', [probe(1, [314, 250], { baud: 4800 })]],
  ['it has fewer registers', [probe(1, [314])]],
])('no reading while %s', (_, rows) => {
  expect(saidOf(played(board.program, [...rows, 'w 6']), 'b1.moisture')).toEqual([]);
});

test('an answer that came once is not said again after the probe is gone', () => {
  const lines = played(board.program, [
    probe(1, [314, 250]),
    'w 4',
    probe(1, [314, 250], { flips: 3 }),
    'w 8',
  ]);
  expect(saidOf(lines, 'b1.moisture')).toEqual(['31.4', '31.4']);
});

const IN_TENTHS = { table: TENTHS_TABLE, lowRaw: 0, highRaw: 1000, soilLowRaw: 0, soilHighRaw: 1000 };
test('several of them together are one: what another’s turn is holds, and none of them long', () => {
  const table = [
    { raw: 0, tenths: 0 },
    { raw: 1000, tenths: 1000 },
  ];
  const member = (input: number) => ({ input, table, lowRaw: 0, highRaw: 1000 });
  const together = {
    ...onABus(9600, null),
    sources: [{ by: 'mean', members: [member(1), member(3)] }] as const,
    engine: { ...plan.engine, sensors: plan.engine.sensors.map((one) => ({ ...one, ...IN_TENTHS })) },
  };
  const { program } = compiled(together);
  const percents = (...rows: readonly string[]) =>
    played(program, rows).flatMap((line) => /^> # percent \S+ (\S+)/.exec(line)?.[1] ?? []);
  const wet = [...FAR.slice(0, 259), 500];
  const rows = [probe(1, [300, 0]), probe(200, wet), 'w 4', 'c all'];
  expect(percents(...rows)).toEqual(['40.0']);
  // One alone is not more than half of two.
  expect(percents(probe(1, [300, 0]), 'w 30', 'c all')).toEqual([]);
});

const wide: BoardPlan = {
  ...onABus(9600, null),
  inputs: WIDE.map(([of], at) => {
    const one = word(`w${at}`, 0, 2 * at, false, 0);
    return {
      ...one,
      register: { probe: 0, word: 2 * at, kind: 'uint16', decimals: 0, times: 1, per: 1, plus: 0, ...of },
    };
  }),
  sources: [{ by: 'one', input: 0 }],
  bus: {
    ...(onABus(9600, null).bus as NonNullable<BoardPlan['bus']>),
    probes: [{ address: 1, function: 3, register: 0, count: 2 * WIDE.length }],
  },
};
test('words of every kind and scale', () => {
  const { program, said } = compiled(wide, '-O1');
  expect(said).toBe('');
  const lines = played(program, [
    probe(
      1,
      WIDE.flatMap(([, words]) => words),
    ),
    'w 2',
  ]);
  for (const [at, [, , value]] of WIDE.entries())
    expect(saidOf(lines, `w${at}`), `w${at}`).toEqual(value === null ? [] : [value]);
});
