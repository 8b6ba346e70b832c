import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { crc16, crcHolds, withCrc } from './crc16.ts';
import { explainAnswer, explainRequest, hex } from './explain.ts';
import {
  answerLength,
  buildAnswer,
  buildException,
  buildRequest,
  readAnswer,
  readRequest,
  type Request,
} from './frame.ts';
import { meaningOf, mgPerKgFromMgPerL, mgPerLFromMgPerKg } from './indication.ts';
import {
  BUILT_IN_MAPS,
  decode,
  encode,
  mapOf,
  planReads,
  registerMapSchema,
  valuesOf,
  type RegisterField,
} from './registers.ts';
import { answerWithinMs, characterMs, frameGapMs } from './timing.ts';

const bytes = (text: string) => Uint8Array.from(text.split(' ').map((one) => Number.parseInt(one, 16)));
const hexOf = (frame: Uint8Array) => [...frame].map(hex).join(' ');

describe('check value', () => {
  // Worked by hand in many introductions to the protocol; both are public knowledge.
  test.each([
    ['01 03 00 00 00 0A', 'C5 CD'],
    ['01 04 00 00 00 01', '31 CA'],
    ['11 06 00 01 00 03', '9A 9B'],
    ['02 07', '41 12'],
  ])('%s is followed by %s', (data, check) => {
    expect(hexOf(withCrc([...bytes(data)]))).toBe(`${data} ${check}`);
  });
  test('of nothing is all bits set', () => expect(crc16([])).toBe(0xffff));
  test('any single bit that turns is noticed', () => {
    fc.assert(
      fc.property(fc.uint8Array({ minLength: 1, maxLength: 40 }), fc.nat(), (data, where) => {
        const frame = withCrc([...data]);
        const bit = where % (frame.length * 8);
        frame[bit >> 3] = (frame[bit >> 3] ?? 0) ^ (1 << (bit & 7));
        return !crcHolds(frame);
      }),
    );
  });
  test('two bytes are too few to be checked', () => expect(crcHolds(bytes('FF FF'))).toBe(false));
});

const read: Request = { function: 3, address: 17, register: 0x6b, count: 3 };

describe('frames', () => {
  // The examples of Modbus Application Protocol V1.1b3, sections 6.3 and 6.12, at address 0x11.
  test('read three holding registers', () => {
    expect(hexOf(buildRequest(read))).toBe('11 03 00 6B 00 03 76 87');
    const answer = withCrc([...bytes('11 03 06 02 2B 00 00 00 64')]);
    expect(readAnswer(read, answer)).toEqual({ ok: true, value: [555, 0, 100] });
  });
  test('write two registers, and its confirmation', () => {
    const write: Request = { function: 16, address: 17, register: 1, values: [10, 258] };
    expect(hexOf(buildRequest(write)).slice(0, -6)).toBe('11 10 00 01 00 02 04 00 0A 01 02');
    expect(readAnswer(write, withCrc([...bytes('11 10 00 01 00 02')]))).toEqual({ ok: true, value: [] });
    expect(readAnswer(write, withCrc([...bytes('11 10 00 01 00 01')]))).toMatchObject({
      issue: { kind: 'not-confirmed' },
    });
  });

  const good = buildAnswer(read, [555, 0, 100]);
  test.each([
    ['nothing came', new Uint8Array(), { kind: 'no-answer' }],
    ['half of it came', good.subarray(0, 7), { kind: 'too-short', got: 7, wanted: 11 }],
    ['a bit was lost', good.map((byte, at) => (at === 4 ? byte ^ 4 : byte)), { kind: 'wrong-crc' }],
    [
      'another probe answered',
      buildAnswer({ ...read, address: 18 }, [1, 2, 3]),
      { kind: 'wrong-address', got: 18, wanted: 17 },
    ],
    [
      'another function',
      buildAnswer({ ...read, function: 4 }, [1, 2, 3]),
      { kind: 'wrong-function', got: 4 },
    ],
    ['it refused', buildException(17, 3, 2), { kind: 'exception', code: 2 }],
    [
      'fewer registers than asked',
      withCrc([17, 3, 4, 0, 1, 0, 2, 0, 0]),
      { kind: 'too-short', got: 4, wanted: 6 },
    ],
    ['only our own request', buildRequest(read), { kind: 'echo' }],
  ])('when %s it is said', (_, frame, issue) => {
    expect(readAnswer(read, frame)).toEqual({ ok: false, issue });
  });
  test('an adapter that hears itself is seen through', () => {
    expect(readAnswer(read, Uint8Array.from([...buildRequest(read), ...good]))).toMatchObject({ ok: true });
  });

  const address = fc.integer({ min: 1, max: 247 });
  const word = fc.integer({ min: 0, max: 0xffff });
  const request: fc.Arbitrary<Request> = fc.oneof(
    fc.record({
      function: fc.constantFrom(3 as const, 4 as const),
      address,
      register: word,
      count: fc.integer({ min: 1, max: 125 }),
    }),
    fc.record({ function: fc.constant(6 as const), address, register: word, value: word }),
    fc.record({
      function: fc.constant(16 as const),
      address,
      register: word,
      values: fc.array(word, { minLength: 1, maxLength: 123 }),
    }),
  );
  test('what is built is read back, and its answer has the length foretold', () => {
    fc.assert(
      fc.property(request, fc.array(word, { minLength: 125, maxLength: 125 }), (asked, pool) => {
        expect(readRequest(buildRequest(asked))).toEqual({ ok: true, value: asked });
        const held = 'count' in asked ? pool.slice(0, asked.count) : [];
        const answer = buildAnswer(asked, held);
        expect(answer).toHaveLength(answerLength(asked));
        expect(readAnswer(asked, answer)).toEqual({ ok: true, value: held });
      }),
    );
  });
  test('no bytes whatever make a reader throw', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 60 }), (noise) => {
        readAnswer(read, noise);
        readRequest(noise);
        explainRequest(noise);
        explainAnswer(noise, 0);
      }),
    );
  });
  test.each([
    { function: 3, address: 256, register: 0, count: 1 },
    { function: 3, address: 1, register: 0, count: 126 },
    { function: 6, address: 1, register: 0, value: -1 },
    { function: 16, address: 1, register: 0, values: [] },
  ] as Request[])('a frame that cannot be is our mistake: %o', (wrong) => {
    expect(() => buildRequest(wrong)).toThrow(RangeError);
  });
});

describe('numbers in registers', () => {
  test.each([
    ['int16', 'high first', [0xff9b], -101],
    ['uint16', 'high first', [0xff9b], 65_435],
    ['int32', 'high first', [0xffff, 0xff9b], -101],
    ['uint32', 'low first', [0x0002, 0x0001], 65_538],
    // 23.5 as IEEE 754: sign 0, exponent 131, fraction 0.46875.
    ['float32', 'high first', [0x41bc, 0x0000], 23.5],
    ['float32', 'low first', [0x0000, 0x41bc], 23.5],
  ] as const)('%s, %s', (type, order, words, value) => {
    expect(decode(type, order, words)).toBe(value);
    expect(encode(type, order, value)).toEqual(words);
  });
  test('what does not fit is cut to what does', () => {
    expect(encode('uint16', 'high first', -3)).toEqual([0]);
    expect(encode('int16', 'high first', 40_000)).toEqual([0x7fff]);
  });
});

describe('register maps', () => {
  const seven = mapOf([], 'seven');
  test('every built-in map fits its schema', () => {
    expect(BUILT_IN_MAPS).toHaveLength(4);
    for (const map of BUILT_IN_MAPS) expect(registerMapSchema.safeParse(map).success).toBe(true);
  });
  test('neighbours are read in one request, and come out scaled, with their sign', () => {
    const plans = seven ? planReads(seven, 5) : [];
    expect(plans.map((plan) => plan.request)).toEqual([{ function: 3, address: 5, register: 0, count: 7 }]);
    const [plan] = plans;
    const values = plan ? valuesOf(plan, [314, 0xffd8, 412, 68, 31, 12, 90]) : [];
    expect(values.map((one) => [one.field.name, Number(one.value.toFixed(3))])).toEqual([
      ['moisture', 31.4],
      ['temperature', -4],
      ['ec', 412],
      ['ph', 6.8],
      ['nitrogen', 31],
      ['phosphorus', 12],
      ['potassium', 90],
    ]);
  });
  const at = (register: number, type: RegisterField['type'] = 'uint16'): RegisterField => ({
    quantity: 'other',
    name: `r${register}`,
    unit: '',
    register,
    type,
    wordOrder: 'high first',
    scale: 1,
    offset: 0,
  });
  test('far registers are asked for apart, in whatever order they are written', () => {
    const map = {
      id: 'own',
      name: 'Own',
      readFunction: 4 as const,
      address: null,
      fields: [at(30), at(2, 'float32'), at(0)],
    };
    expect(planReads(map, 1).map(({ request }) => [request.register, request.count])).toEqual([
      [0, 4],
      [30, 1],
    ]);
  });
  test('up to four registers that nobody wants are read along; five are too many', () => {
    const map = (second: number) => ({
      id: 'own',
      name: 'Own',
      readFunction: 3 as const,
      address: null,
      fields: [at(0), at(second)],
    });
    expect(planReads(map(5), 1).map(({ request }) => request.count)).toEqual([6]);
    expect(planReads(map(6), 1).map(({ request }) => request.count)).toEqual([1, 1]);
  });
  test('a float that is no number is left out', () => {
    const plan = {
      request: { function: 3 as const, address: 1, register: 0, count: 2 },
      fields: [at(0, 'float32')],
    };
    expect(valuesOf(plan, [0x7fc0, 0])).toEqual([]);
  });
  test('an own map stands in the place of a built-in one', () => {
    const own = { ...BUILT_IN_MAPS[0], id: 'two', name: 'Mine' } as (typeof BUILT_IN_MAPS)[number];
    expect(mapOf([own], 'two')?.name).toBe('Mine');
    expect(mapOf([own], 'nine')).toBeNull();
  });
});

describe('time on the line', () => {
  test('a character takes eleven bits, a frame ends after 3.5 of them', () => {
    expect(characterMs(9600)).toBeCloseTo(1.1458, 4);
    expect(frameGapMs(9600)).toBeCloseTo(4.0104, 4);
    expect(frameGapMs(19_200)).toBeCloseTo(2.0052, 4);
  });
  test('above 19 200 baud the pause is 1.75 ms, as the standard asks', () =>
    expect(frameGapMs(115_200)).toBe(1.75));
  test('a longer answer is waited for longer', () => {
    // 8 + 19 bytes of 1.1458 ms, two pauses of 4.0104 ms, 300 ms to think.
    expect(answerWithinMs(9600, 8, 19)).toBeCloseTo(338.96, 1);
  });
});

describe('the hex view', () => {
  const told = (parts: ReturnType<typeof explainRequest>) =>
    parts.map((one) => `${one.bytes.map(hex).join(' ')} ${one.means}`);
  test('explains each byte of a request once', () => {
    expect(told(explainRequest(buildRequest(read)))).toEqual([
      '11 to address 17',
      '03 function 3: read holding registers',
      '00 6B from register 107',
      '00 03 3 registers',
      '76 87 check value, low byte first: holds',
    ]);
  });
  test('and of an answer, a refusal, a broken one', () => {
    expect(told(explainAnswer(buildAnswer(read, [555, 0, 100]), 107)).slice(2, 5)).toEqual([
      '06 6 bytes follow',
      '02 2B register 107: 555',
      '00 00 register 108: 0',
    ]);
    expect(told(explainAnswer(buildException(17, 3, 2), 107))[2]).toBe(
      '02 reason 2: the probe has no such register',
    );
    const broken = buildAnswer(read, [1, 2, 3]).map((byte, at) => (at === 10 ? byte ^ 1 : byte));
    expect(told(explainAnswer(broken, 0)).at(-1)).toMatch(/does not hold$/);
  });
  test('no byte is lost or told twice', () => {
    for (const frame of [
      buildRequest(read),
      buildRequest({ function: 16, address: 1, register: 4, values: [1, 2] }),
    ])
      expect(explainRequest(frame).flatMap((one) => [...one.bytes])).toEqual([...frame]);
    fc.assert(
      fc.property(fc.uint8Array({ minLength: 1, maxLength: 40 }), (frame) => {
        expect(explainAnswer(frame, 0).flatMap((one) => [...one.bytes])).toEqual([...frame]);
      }),
    );
  });
});

describe('indications', () => {
  test('nutrients mean nothing in dry soil, moisture always stands for itself', () => {
    expect(meaningOf('nitrogen', 24.9)).toBe('too-dry');
    expect(meaningOf('nitrogen', 25)).toBe('indication');
    expect(meaningOf('conductivity', 16)).toBe('indication');
    expect(meaningOf('conductivity', null)).toBe('moisture-unknown');
    expect(meaningOf('moisture', null)).toBe('measured');
  });
  test('30 mg/kg in a mix of 0.4 kg/l are 12 mg/l, and back', () => {
    expect(mgPerLFromMgPerKg(30, 0.4)).toBeCloseTo(12, 12);
    expect(mgPerKgFromMgPerL(12, 0.4)).toBeCloseTo(30, 12);
  });
});
