/** Parts on I2C: found in the wiring, asked by their sheets' bytes, and read bit by bit by the program in C++. */
import { describe, expect, test } from 'vitest';
import { catalogueWith } from '../catalogue/catalogue.ts';
import { i2cValue, type I2cRead } from '../catalogue/i2cTalk.ts';
import { fullScaleOf } from '../garden/bind/channels.ts';
import { windowOf } from '../garden/bind/scale.ts';
import { catalogueOf, setWiring } from '../garden/edits/plan.ts';
import type { Garden } from '../garden/document/schema.ts';
import { sketchNetlist } from '../wiring/sketchNetlist.ts';
import { planBoard } from './boardPlan.ts';
import { compiled, played } from '../../../engine/cpp/host/compiled.ts';
import { cppSketch } from './cpp.ts';
import { oneStickOnePump } from './gardenForTests.ts';
import type { BoardPlan } from './plan.ts';
import { pythonSettings } from './python.ts';

const { garden: plain, boardId } = oneStickOnePump();
const probeId = plain.probes[0]?.id ?? '';
const lineId = plain.waterLines[0]?.id ?? '';
const [first] = plain.channels;
if (!first) throw new Error('no channel');

const PUMP = `pump: pump-12v; mos: switch-mosfet; bat: battery-12v
  mos.gate - b.p25; mos.source - b.gnd; mos.drain - pump.minus; pump.plus - bat.plus; bat.minus - b.gnd`;

/** The garden with its stick, or another probe, on a Wi-Fi board drawn like this; "x" is the probe. */
function drawn(
  wires: string,
  {
    addresses = {},
    change = {},
  }: { addresses?: Record<string, number | null>; change?: Partial<Garden> } = {},
): Garden {
  const wiring = sketchNetlist(`b: board-wifi-two-groups; ${wires}; ${PUMP}`, {
    parts: {
      b: { stands: { list: 'boards', id: boardId } },
      x: { stands: { list: 'probes', id: probeId } },
      pump: { stands: { list: 'waterLines', id: lineId } },
    },
  });
  const parts = wiring.parts.map((one) => {
    const address = addresses[one.label] ?? addresses[one.id];
    return address === undefined ? one : { ...one, address };
  });
  const boards = plain.boards.map((one) => ({ ...one, traits: '3.3 V Wi-Fi board, 12-bit inputs' }));
  return setWiring({ ...plain, boards, ...change }, { ...wiring, parts });
}
const planned = (garden: Garden) => planBoard(garden, boardId);
function planOf(garden: Garden): BoardPlan {
  const found = planned(garden);
  if (!found.ok) throw new Error(JSON.stringify(found.problems));
  return found.plan;
}
const problemsOf = (garden: Garden): readonly string[] => {
  const found = planned(garden);
  return found.ok ? [] : found.problems.map(({ kind }) => kind);
};

const CONVERTER = 'x: probe-capacitive; c: converter-i2c; c.sda - b.p21; c.scl - b.p22; x.out - c.in2';
const byConverter = drawn(CONVERTER, { addresses: { c: 72 } });

describe('a stick on a converter', () => {
  test('is asked at its input: written, waited, read, as the sheet of the converter says', () => {
    const { i2c, inputs } = planOf(byConverter);
    expect(i2c?.parts).toEqual([
      { sda: { kind: 'pin', number: 21 }, scl: { kind: 'pin', number: 22 }, address: 72, begin: [] },
    ]);
    // Input 2 against ground: 110 in the bits 14 to 12 of the configuration; 4.096 V, one conversion, begun.
    expect(i2c?.asks[0]?.read).toMatchObject({ ask: [0x01, 0b1110_0011, 0x83], from: [0x00], signed: true });
    expect(inputs).toMatchObject([{ reads: 'i2c', asked: { place: 0, address: 72, decimals: 0 } }]);
  });
  test('its counts reach as far as the supply does, and no further: 3.3 of 4.096 V', () => {
    expect(fullScaleOf(byConverter, first)).toBe(Math.round((32_767 * 3.3) / 4.096));
    // Half a percent at either end is a rail.
    expect(windowOf(byConverter, first)).toEqual({ lowCounts: 132, highCounts: 26_267 });
    expect(fullScaleOf(plain, first)).toBe(4095);
  });
  test('the heading names pins and address, in both languages', () => {
    const plan = planOf(byConverter);
    for (const text of [cppSketch(plan, ''), pythonSettings(plan, '')])
      expect(text).toContain('P21 and P22, I2C at 0x48: reads C2, printed as c2');
  });
  test.each([
    ['without an address', drawn(CONVERTER), 'no-address'],
    [
      'not drawn up to the board',
      drawn(CONVERTER.replace('c.scl - b.p22; ', ''), { addresses: { c: 72 } }),
      'no-i2c',
    ],
    [
      'of an own kind that does not say how it is asked',
      drawn(CONVERTER, {
        addresses: { c: 72 },
        change: {
          catalogue: [catalogueWith([]).get('converter-i2c')].flatMap((one) =>
            one ? [{ ...one, i2c: undefined }] : [],
          ),
        },
      }),
      'not-told',
    ],
  ])('%s nothing is written', (_, garden, kind) => expect(problemsOf(garden)).toContain(kind));
  test('that can have one address alone has it without being told', () => {
    const [entry] = [catalogueWith([]).get('converter-i2c')];
    if (!entry) throw new Error('no converter');
    const change = { catalogue: [{ ...entry, addresses: [75] }] };
    expect(planOf(drawn(CONVERTER, { change })).i2c?.parts).toMatchObject([{ address: 75 }]);
  });
  test('that is fed only to be read is fed by its pin, and the stick with it; two pins for one reading are refused', () => {
    const fed = (wires: string, ...labels: readonly string[]) => {
      const garden = drawn(`${CONVERTER}; ${wires}`, { addresses: { c: 72 } });
      const parts = garden.wiring.parts.map((one) =>
        labels.includes(one.id) ? { ...one, perReading: true } : one,
      );
      return { ...garden, wiring: { ...garden.wiring, parts } };
    };
    const { powers, inputs } = planOf(fed('c.vcc - b.p18', 'c'));
    expect(powers).toMatchObject([{ pin: { kind: 'pin', number: 18 } }]);
    expect(inputs).toMatchObject([{ power: 0 }]);
    expect(planOf(fed('c.vcc - b.p18; x.vcc - b.p18', 'c', 'x')).powers).toHaveLength(1);
    expect(problemsOf(fed('c.vcc - b.p18; x.vcc - b.p19', 'c', 'x'))).toContain('no-power-pin');
  });
  test('is found across a level shifter as well', () => {
    const shifted = `x: probe-capacitive; c: converter-i2c; s: level-shifter
      c.sda - s.hv1; c.scl - s.hv2; s.lv1 - b.p21; s.lv2 - b.p22; x.out - c.in2`;
    expect(planOf(drawn(shifted, { addresses: { c: 72 } })).i2c?.parts).toMatchObject([
      { sda: { number: 21 }, scl: { number: 22 } },
    ]);
    expect(problemsOf(drawn(shifted.replace('s.lv2', 's.lv3'), { addresses: { c: 72 } }))).toEqual([
      'no-i2c',
    ]);
  });
  test('its lines are a pin each: nothing else may hang on them', () => {
    const pumpToo = drawn(CONVERTER.replace('b.p22', 'b.p25'), { addresses: { c: 72 } });
    expect(problemsOf(pumpToo)).toContain('pin-taken-twice');
  });
});

const read = (id: string, at = 0): I2cRead => {
  const found = catalogueOf(plain).get(id)?.i2c?.reads[at];
  if (!found) throw new Error('no read');
  return found;
};

describe('what an answer means', () => {
  // Worked by the formulas that sheets give: T = −45 + 175 · n / 65535, humidity = 100 · n / 65535; sixteenths of a degree from the left; lux = n / 1.2.
  test.each([
    ['probe-humidity', 0, 0x6666, 4000],
    ['probe-humidity', 1, 0x6666, 2500],
    ['probe-humidity', 1, 0, -4500],
    ['thermo-i2c', 0, 0x1900, 2500],
    ['thermo-i2c', 0, 0xff00, -100],
    ['thermo-i2c', 0, 0xe700, -2500],
    ['light-i2c', 0, 0x8683, 28_695],
    ['converter-i2c', 0, 0x7fff, 32_767],
    ['converter-i2c', 3, 0xffff, -1],
    ['probe-digital-capacitive', 0, 1016, 1016],
    // 0x0015 8000 of 65536 are 21.5 degrees; its middle bytes are enough.
    ['probe-digital-capacitive', 1, 0x1580, 2150],
    ['probe-digital-capacitive', 1, 0xfe80, -150],
  ])('%s, read %i: 0x%s', (id, at, word, value) => expect(i2cValue(read(id, at), word)).toBe(value));
});

// ---- Read by the program

const KINDS = [
  ['stick', 'converter-i2c', 0],
  ['cold', 'thermo-i2c', 0],
  ['digital', 'probe-digital-capacitive', 0],
  ['humid', 'probe-humidity', 0],
  ['warm', 'probe-humidity', 1],
  ['light', 'light-i2c', 0],
] as const;

/** A board with one of each, at addresses from 64 on. */
function oneOfEach(): BoardPlan {
  const plan = planOf(byConverter);
  const [stick] = plan.inputs;
  const [part] = plan.i2c?.parts ?? [];
  if (!stick || !part) throw new Error('no input');
  return {
    ...plan,
    inputs: KINDS.map(([name, id, at], place) => {
      const { decimals, least, most } = read(id, at);
      const asked = { place, address: 64 + place, decimals, least, most };
      return { ...stick, channelId: name, name, label: name, asked };
    }),
    i2c: {
      parts: KINDS.map(([, id], at) => ({
        ...part,
        address: 64 + at,
        begin: catalogueOf(plain).get(id)?.i2c?.begin ?? [],
      })),
      asks: KINDS.map(([, id, at], part) => ({ part, read: read(id, at) })),
    },
  };
}

describe('the program in C++, against parts of ours that go by the two lines alone', () => {
  const { program, said } = compiled(oneOfEach(), '-O1');
  /** What is said by a name after these parts were put on the lines: address, what must be written, what is answered. */
  const saidBy = (name: string, parts: readonly string[], seconds = 2) =>
    played(program, [...parts.map((one) => `i 21 22 ${one}`), `w ${seconds}`]).flatMap(
      (line) => new RegExp(`^> .*\\b${name}=(\\S+)`).exec(line)?.[1] ?? [],
    );
  test('compiles without a warning', () => expect(said).toBe(''));
  test.each([
    ['stick', '64 01c383/00 3039', '12345'],
    ['cold', '65 00 e780', '-24.50'],
    ['digital', '66 0f10 03f8', '1016'],
    // The check of BE EF is 92, as its sheet works out.
    ['humid', '67 2400 000081beef92', '74.58'],
    ['warm', '68 2400 beef92000081', '85.52'],
  ])('%s: %s', (name, part, value) => expect(saidBy(name, [part])).toEqual([value]));
  test.each([
    ['a damaged answer', 'humid', '67 2400 000081beef93'],
    ['another address', 'cold', '77 00 1900'],
    ['what cannot be', 'digital', '66 0f10 ffff'],
  ])('%s is no reading', (_, name, part) => expect(saidBy(name, [part])).toEqual([]));
  test('what must be told to begin is told once, and not believed until it has measured', () => {
    const parts = ['69 01/10 8683', '69 - 04b0'];
    expect(saidBy('light', parts, 6)).toEqual(['28695', '1000', '1000']);
  });
  test('one that is silent keeps nobody else from being read', () => {
    expect(saidBy('cold', ['65 00 1900', '69 01/10 8683'])).toEqual(['25.00']);
  });
});
