import { describe, expect, test } from 'vitest';
import { BUILT_IN_MAPS, type RegisterMap } from '../bus/registers.ts';
import { addBusProbe, setBusSpeed } from '../garden/edits/bench.ts';
import { onePlot } from '../garden/edits/gardenForTests.ts';
import { catalogueOf, setWiring } from '../garden/edits/plan.ts';
import type { Garden } from '../garden/document/schema.ts';
import { readCircuit } from '../wiring/circuit.ts';
import { sketchNetlist } from '../wiring/sketchNetlist.ts';
import { busOf, registerOf } from './bus.ts';
import { isInput, readInputs } from './inputs.ts';

const map = (change: Partial<RegisterMap> = {}): RegisterMap => ({
  ...(BUILT_IN_MAPS[1] as RegisterMap),
  ...change,
});

let drawnSoFar = 0;
const random = () => (drawnSoFar = (drawnSoFar + 0.137) % 1);

/** A board with a bus probe, and this drawn between them. */
function drawn(wires: string, of: RegisterMap = map()): { garden: Garden; boardId: string } {
  const plain = onePlot();
  const [plot, board] = [plain.plots[0], plain.boards[0]];
  if (!plot || !board) throw new Error('no plot');
  const garden = addBusProbe(
    { ...plain, registerMaps: [of] },
    {
      plotId: plot.id,
      boardId: board.id,
      label: 'B1',
      colour: 'white',
      depthCm: 10,
      address: 4,
      baud: 9600,
      map: of,
    },
    random,
  );
  const wiring = sketchNetlist(wires, {
    parts: { w: { stands: { list: 'boards', id: board.id } }, x: { boardId: 'w' } },
  });
  return { garden: setWiring(garden, wiring), boardId: board.id };
}
const planned = ({ garden, boardId }: ReturnType<typeof drawn>) =>
  busOf(garden, boardId, readCircuit(garden.wiring, catalogueOf(garden)));

const AUTOMATIC = 'w: board-wifi-two-groups; x: transceiver-33v; w.p16 - x.di; w.p17 - x.ro';

describe('a bus', () => {
  test('goes by the pins that its transceiver is drawn to, and asks for what its map names', () => {
    expect(planned(drawn(AUTOMATIC))).toEqual({
      tx: { kind: 'pin', number: 16 },
      rx: { kind: 'pin', number: 17 },
      direction: null,
      baud: 9600,
      probes: [{ address: 4, function: 3, register: 0, count: 3 }],
    });
  });
  test('that is not drawn up to the board is none', () => {
    expect(planned(drawn('w: board-wifi-two-groups; x: transceiver-33v; w.p16 - x.di'))).toBeNull();
    expect(planned(drawn('w: board-wifi-two-groups'))).toBeNull();
  });
  test('with a direction pin needs it', () => {
    const wires = 'w: board-wifi-two-groups; x: transceiver-5v; w.p16 - x.di; w.p17 - x.ro';
    expect(planned(drawn(wires))).toBeNull();
    expect(planned(drawn(`${wires}; w.p18 - x.de`))).toMatchObject({
      direction: { kind: 'pin', number: 18 },
    });
  });
});

test('probes of one bus that are set to two speeds are named: one of them is never heard', () => {
  const { garden, boardId } = drawn(AUTOMATIC);
  const at = (baud: 4800 | 9600): Garden => ({
    ...garden,
    probes: garden.probes.flatMap((one) =>
      one.bus ? [one, { ...one, id: 'b2', label: 'B2', bus: { ...one.bus, address: 5, baud } }] : [one],
    ),
    channels: garden.channels.flatMap((one) =>
      one.streamName === 'b1.moisture'
        ? [one, { ...one, id: 'c9', probeId: 'b2', streamName: 'b2.moisture' }]
        : [one],
    ),
  });
  const kindOf = (of: Garden) => {
    const found = readInputs(of, boardId).read.find(({ channel }) => channel.id === 'c9')?.input;
    return found && (isInput(found) ? found.reads : found.kind);
  };
  expect(kindOf(at(9600))).toBe('bus');
  expect(kindOf(at(4800))).toBe('bus-speeds');
  expect(readInputs(setBusSpeed(at(4800), 2400), boardId).bus?.baud).toBe(2400);
});

describe('a channel of it', () => {
  test('is the word that its map names, with its decimals and its sign', () => {
    const { garden, boardId } = drawn(AUTOMATIC);
    const bus = planned({ garden, boardId });
    const found = garden.channels
      .filter((one) => one.streamName.startsWith('b1.'))
      .map((one) => bus && registerOf(garden, one, bus));
    const plain = { times: 1, per: 1, plus: 0 };
    expect(found).toEqual([
      { probe: 0, word: 0, kind: 'uint16', decimals: 1, ...plain },
      { probe: 0, word: 1, kind: 'int16', decimals: 1, ...plain },
      { probe: 0, word: 2, kind: 'uint16', decimals: 0, ...plain },
    ]);
  });

  const moistureOf = (change: Partial<RegisterMap['fields'][number]>) => {
    const of = map({ fields: map().fields.map((field) => ({ ...field, ...change })) });
    const { garden, boardId } = drawn(AUTOMATIC, of);
    const bus = planned({ garden, boardId });
    const at = (name: string) => {
      const channel = garden.channels.find((one) => one.streamName === name);
      return bus && channel ? registerOf(garden, channel, bus) : null;
    };
    return { moisture: at('b1.moisture'), temperature: at('b1.temperature') };
  };
  test.each([
    ['whole percent', { scale: 1 }, { decimals: 1, times: 10, per: 1, plus: 0 }],
    [
      'hundredths of a percent, less than is reckoned with',
      { scale: 0.01 },
      { decimals: 1, times: 1, per: 10, plus: 0 },
    ],
    ['quarters', { scale: 0.25 }, null],
    ['thirds', { scale: 1 / 3 }, null],
  ])('its own percent is reckoned in tenths: %s', (_, change, how) => {
    const { moisture } = moistureOf(change);
    if (how) expect(moisture).toMatchObject(how);
    else expect(moisture).toBeNull();
  });
  test.each([
    ['quarters', { scale: 0.25 }, { kind: 'int16', decimals: 2, times: 25, per: 1, plus: 0 }],
    ['from -40 on', { offset: -40 }, { kind: 'int16', decimals: 1, times: 1, per: 1, plus: -400 }],
    ['thirds', { scale: 1 / 3 }, null],
    [
      'two words with a point',
      { type: 'float32', scale: 1 },
      { kind: 'float32, high first', decimals: 2, times: 100 },
    ],
    ['two words, the low one first', { type: 'int32', wordOrder: 'low first' }, { kind: 'int32, low first' }],
  ] as const)('what else it gives keeps what its register says: %s', (_, change, how) => {
    const { temperature } = moistureOf(change);
    if (how) expect(temperature).toMatchObject(how);
    else expect(temperature).toBeNull();
  });
});

test('registers too far apart for one frame are asked for in turn', () => {
  const far = map({ fields: map().fields.map((field, at) => ({ ...field, register: 1000 * at })) });
  const { garden, boardId } = drawn(AUTOMATIC, far);
  const bus = planned({ garden, boardId });
  expect(bus?.probes.map(({ register, count }) => [register, count])).toEqual([
    [0, 1],
    [1000, 1],
    [2000, 1],
  ]);
  const channel = garden.channels.find((one) => one.streamName === 'b1.ec');
  expect(bus && channel && registerOf(garden, channel, bus)).toMatchObject({ probe: 2, word: 0 });
});

test('a probe that another board reads is not asked here', () => {
  const { garden, boardId } = drawn(AUTOMATIC);
  const elsewhere = {
    ...garden,
    boards: [...garden.boards, ...garden.boards.map((one) => ({ ...one, id: 'other' }))],
    channels: garden.channels.map((one) =>
      one.streamName.startsWith('b1.') ? { ...one, boardId: 'other' } : one,
    ),
  };
  expect(planned({ garden, boardId })?.probes).toHaveLength(1);
  expect(planned({ garden: elsewhere, boardId })).toBeNull();
});
