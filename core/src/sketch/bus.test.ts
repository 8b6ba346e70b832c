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
    expect(found).toEqual([
      { probe: 0, word: 0, isSigned: false, decimals: 1 },
      { probe: 0, word: 1, isSigned: true, decimals: 1 },
      { probe: 0, word: 2, isSigned: false, decimals: 0 },
    ]);
  });
  test.each([
    ['a float of two words', { type: 'float32' }],
    ['a scale that is no power of ten', { scale: 0.25 }],
    ['an offset', { offset: -40 }],
  ] as const)('%s is not read', (_, change) => {
    const of = map({ fields: map().fields.map((field) => ({ ...field, ...change })) });
    const { garden, boardId } = drawn(AUTOMATIC, of);
    const bus = planned({ garden, boardId });
    const channel = garden.channels.find((one) => one.streamName === 'b1.moisture');
    expect(bus && channel && registerOf(garden, channel, bus)).toBeNull();
  });
});
