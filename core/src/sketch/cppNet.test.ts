/** The program in C++ over a network: compiled against a radio of ours, it reports as the gateway reads, and does what the gateway's answers say. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { answerSchema, readReport, type Answer, type Report } from '../protocol/report.ts';
import { compiled, compiledAsHandedOut, KEY, planOf, played } from '../../../engine/cpp/host/compiled.ts';
import type { BoardPlan, SketchInput } from './plan.ts';

const plan = planOf();
const overHttp: BoardPlan = {
  ...plan,
  traits: '3.3 V Wi-Fi board, 12-bit inputs',
  network: { over: 'http', gardenId: 'g', boardId: 'b', everyS: 10 },
};
const stick = 200 + (plan.inputs[0]?.pin.number ?? 0);
const pump = plan.lines[0]?.output.pin.number ?? 0;

// Reads beyond an array end the program as well.
const SAFE = ['-O1', '-fsanitize=address'];
const board = compiled(overHttp, ...SAFE);

const { network } = overHttp;
const broker = compiled({ ...overHttp, network: network && { ...network, over: 'mqtt' } }, ...SAFE);

const hex = (text: string): string => Buffer.from(text).toString('hex');
const answer = (more: Partial<Answer> = {}): Answer => ({
  seq: 0,
  revision: 0,
  settings: [],
  orders: [],
  far: [],
  clock: { daySecond: 43_200, weekday: 5 },
  sun: null,
  everyS: 10,
  ...more,
});
/** From now on the gateway answers so, under the number of whatever report it answers. */
const says = (more: Partial<Answer> = {}): string =>
  `n say ${hex(JSON.stringify(answerSchema.parse(answer(more))).replace('"seq":0', '"seq":@@'))}`;

/** What a run printed and sent: requests with head and report, connections, what the console said, switches of the pump. */
function run(rows: readonly string[], program = board.program) {
  const lines = played(program, [`a ${stick} 1512`, ...rows]);
  const sent = lines.flatMap((line) =>
    line.startsWith('^ ') ? [Buffer.from(line.slice(2), 'hex').toString()] : [],
  );
  const reports = sent.flatMap((text): Report[] => {
    const [, body] = text.split('\r\n\r\n');
    const read = readReport(body ?? '');
    if (!read.ok) throw new Error(`${JSON.stringify(read.issue)} in ${text}`);
    return [read.value];
  });
  return {
    lines,
    sent,
    reports,
    texts: reports.flatMap((report) => report.said.map(({ text }) => text)),
    became: reports.flatMap((report) => report.orders),
    console: lines.flatMap((line) => (line.startsWith('> ') ? [line.slice(2)] : [])),
    connected: lines.filter((line) => line.startsWith('^connect')),
    switches: lines.filter((line) => new RegExp(`^\\d+ ${pump} \\d$`).test(line)),
  };
}
const UP = ['n up', says()];

test('compiles without a warning', () => expect(board.said).toBe(''));

describe('a report', () => {
  test('goes out under the board’s key, in a form that the gateway reads', () => {
    const { lines, sent, reports, texts, connected } = run([...UP, 'w 8']);
    expect(lines).toContain('^join Hare & Hounds a b');
    expect(connected[0]).toMatch(/^\^connect 192\.168\.1\.5:4860 /);
    expect(sent[0]?.split('\r\n\r\n')[0]?.split('\r\n')).toEqual([
      'POST /api/readings HTTP/1.1',
      'Host: 192.168.1.5:4860',
      `Authorization: Bearer ${KEY}`,
      'Content-Type: application/json',
      expect.stringMatching(/^Content-Length: \d+$/),
      'Connection: close',
    ]);
    expect(reports[0]).toMatchObject({
      board: 'b',
      seq: 1,
      program: expect.stringMatching(/^[0-9a-f]{12}$/) as string,
    });
    expect(reports[0]?.boot).toBeGreaterThan(0);
    expect(reports[0]?.readings).toEqual([{ n: 'c2', v: 1512, agoS: expect.any(Number) as number }]);
    expect(texts[0]).toBe(`# version 0 ${reports[0]?.program} engine 1`);
    expect(texts.some((text) => text.startsWith('# limits 1 start 40.0 stop 60.0'))).toBe(true);
  });

  test('comes at the pace that the answer asks for, a reading of each stretch, numbers in a row', () => {
    const { reports } = run([...UP, 'W 66', says({ everyS: 30 }), 'W 12', 'W 90']);
    const ups = reports.map(({ upS }) => upS);
    expect(reports.map(({ seq }) => seq)).toEqual(reports.map((_, at) => at + 1));
    expect(ups.filter((s) => s < 66)).toHaveLength(7);
    expect(ups.filter((s) => s > 78)).toHaveLength(3);
    expect(reports.slice(1).every(({ readings }) => readings.length === 1)).toBe(true);
  });

  test('an unanswered one is sent again under its number, with ages that have gone on', () => {
    const { reports } = run([...UP, 'n quiet', 'w 40', 'n speak', 'w 120']);
    const first = reports.filter(({ seq }) => seq === 1);
    expect(first.length).toBeGreaterThan(1);
    const taken = (report: Report | undefined) => (report?.upS ?? 0) - (report?.readings[0]?.agoS ?? 0);
    expect(new Set(first.map(taken)).size).toBe(1);
    expect(first.at(-1)?.said.map(({ text }) => text)).toEqual(first[0]?.said.map(({ text }) => text));
    expect(reports.at(-1)?.seq).toBeGreaterThan(5);
  });

  test('three hours without a network are told afterwards, a reading each five minutes, oldest first', () => {
    const { reports } = run([...UP, 'w 30', 'n down', 'w 10800', 'n up', 'w 700']);
    const taken = reports.flatMap(({ upS, readings }) => readings.map(({ agoS }) => upS - agoS));
    const alone = taken.filter((s) => s > 150 && s < 10_800);
    expect(alone).toHaveLength(Math.floor((10_800 - 150) / 300));
    expect(alone).toEqual([...alone].sort((a, b) => a - b));
  });

  test('what can never be taken is not in the way of what comes after it; what can be is sent again', () => {
    const numbers = (status: number) => {
      const { reports } = run([...UP, `n status ${status}`, 'W 45', 'n status 200', 'W 25']);
      return reports.map(({ seq }) => seq);
    };
    expect(numbers(400)).toEqual([1, 2, 3, 4, 5, 6, 7]);
    expect(numbers(507)).toEqual([1, 1, 1, 1, 1, 1, 2]);
    expect(run([...UP, 'n status 401', 'W 15']).console).toContain(
      '# net the gateway does not take this key',
    );
  });

  test('stays as it was sent, whatever happens meanwhile; of the news the newest are kept', () => {
    const runs = Array.from({ length: 25 }, () => ['c give 1 9', 'W 5']).flat();
    const { reports } = run([...UP, 'n quiet', 'W 20', ...runs, 'W 20', 'n speak', 'W 60']);
    const first = reports.filter(({ seq }) => seq === 1);
    const told = ({ upS, said }: Report) => said.map(({ text, agoS }) => `${text} ${upS - agoS}`);
    expect(first.length).toBeGreaterThan(2);
    expect(new Set(first.map((one) => told(one).join())).size).toBe(1);
    const later = reports.filter(({ seq }) => seq > 1).flatMap(({ said }) => said.map(({ text }) => text));
    const events = later.filter((text) => /^# (started|stopped)/.test(text));
    expect(events.length).toBeGreaterThan(10);
    expect(events.at(-1)).toMatch(/^# stopped 1 /);
  });
});

describe('an order', () => {
  test('is obeyed once, however often it is told, and told of once', () => {
    const give = says({ orders: [{ id: 'o17', text: 'give 1 50', liveS: 120 }] });
    const { became, switches, console: said } = run([...UP, 'W 700', give, 'W 40']);
    expect(became).toEqual([{ id: 'o17', state: 'taken' }]);
    expect(switches.filter((line) => line.endsWith(' 1'))).toHaveLength(1);
    // The console hears of the run, not of the order's answer.
    expect(said.some((text) => text.startsWith('# started 1 order'))).toBe(true);
    expect(said).not.toContain('# taken');
  });

  test('that a guard refuses is told with its reason', () => {
    const order = (id: string) => says({ orders: [{ id, text: 'give 1 600', liveS: 60 }] });
    const rows = ['o1', 'o2', 'o3', 'o4', 'o5'].flatMap((id) => [order(id), 'W 120']);
    const { became, texts } = run([...UP, 'W 10', ...rows]);
    const given = texts.flatMap((text) => /^# stopped 1 \S+ \d+ s (\d+) ml/.exec(text)?.[1] ?? []);
    const [first, last] = [became[0], became.at(-1)];
    expect([first, last]).toEqual([
      { id: 'o1', state: 'taken' },
      { id: 'o5', state: 'refused', why: 'daily-max' },
    ]);
    expect(given.reduce((sum, ml) => sum + Number(ml), 0)).toBe(plan.engine.lines[0]?.guards.dailyMaxMl);
  });

  test('that is none, is beyond the guards or belongs to the cable is refused with the console’s words', () => {
    const orders = [
      { id: 'a', text: 'set 1 start 99.5', liveS: 120 },
      { id: 'b', text: 'net', liveS: 120 },
      { id: 'c', text: 'open sesame', liveS: 120 },
      { id: 'd', text: 'set 1 start 42.5', liveS: 120 },
      { id: 'e', text: 'give 9 50', liveS: 120 },
    ];
    const { became, console: said } = run(['n up', says({ orders }), 'w 30', 'c limits', 'w 1']);
    expect(became.map(({ id, state }) => `${id} ${state}`)).toEqual([
      'a refused',
      'b refused',
      'c refused',
      'd taken',
      'e refused',
    ]);
    expect(became[1]?.why).toBe('only at its console');
    expect(said.some((text) => text.startsWith('# limits 1 start 42.5 '))).toBe(true);
  });
});

describe('settings', () => {
  const LINES = ['set 1 start 41.5', 'set 1 stop 61.0'];
  test('are taken in one go, told by their revision, and its limits come home with it', () => {
    const { reports, texts } = run(['n up', says({ revision: 3, settings: LINES }), 'w 40']);
    expect(reports.at(-1)?.revision).toBe(3);
    expect(texts.filter((text) => text === '# settings 3 taken')).toHaveLength(1);
    expect(texts.some((text) => text.startsWith('# limits 1 start 41.5 stop 61.0'))).toBe(true);
  });
  test('of which one is refused end there, and are not tried again', () => {
    const lines = ['set 1 start 41.5', 'set 9 stop 61', 'set 1 dose 90'];
    const { reports, texts } = run(['n up', says({ revision: 4, settings: lines }), 'w 60']);
    expect(texts.filter((text) => text.startsWith('# settings'))).toEqual([
      expect.stringMatching(/^# settings 4 refused set 9 stop 61: \S/),
    ]);
    expect(reports.at(-1)?.revision).toBeUndefined();
  });
  test('are lines of settings, and nothing else', () => {
    const { texts, switches } = run([...UP, 'w 700', says({ revision: 5, settings: ['give 1 50'] }), 'w 40']);
    expect(texts).toContain('# settings 5 refused give 1 50: not a setting');
    expect(switches.filter((line) => line.endsWith(' 1'))).toEqual([]);
  });
});

describe('what other boards read', () => {
  const [input] = overHttp.inputs;
  if (!input) throw new Error('no input');
  /** The stick hangs on another board, which prints a decimal of it. */
  const farInputs: readonly SketchInput[] = [
    {
      ...input,
      reads: 'far',
      name: 'ch-1',
      pin: { kind: 'pin', number: 0 },
      far: { board: 'Shed', decimals: 0 },
    },
  ];
  const far = compiled({ ...overHttp, inputs: farInputs }, '-O1');
  const told = (v: number) =>
    says({
      far: [
        { n: 'ch-1', v },
        { n: 'nobody', v: 3 },
      ],
    });
  test('decides as if it hung here, and is told to nobody', () => {
    expect(far.said).toBe('');
    const { texts, reports, switches } = run(['n up', told(2400), 'W 900'], far.program);
    expect(texts.some((text) => text.startsWith('# started 1 below-start'))).toBe(true);
    expect(switches.filter((one) => one.endsWith(' 1')).length).toBeGreaterThan(0);
    expect(reports.flatMap(({ readings }) => readings)).toEqual([]);
  });
  test('beside a probe of its own it counts as long as it is told of, and three minutes more', () => {
    // Numbers as they are, so the lowest of both is what the engine makes its percent of.
    const table = [
      { raw: 1000, tenths: 1000 },
      { raw: 3000, tenths: 3000 },
    ];
    const member = (at: number) => ({ input: at, table, lowRaw: 1000, highRaw: 3000 });
    const [own] = overHttp.inputs;
    const both = compiled({
      ...overHttp,
      inputs: [...(own ? [own] : []), ...farInputs],
      sources: [{ by: 'driest', members: [member(0), member(1)] }],
    });
    expect(both.said).toBe('');
    const { console: said } = run(
      [`a ${stick} 2000`, 'n up', told(1460), 'W 30', 'c all', says(), 'W 150', 'c all', 'W 45', 'c all'],
      both.program,
    );
    expect(said.flatMap((text) => /^# percent c2 (\S+)/.exec(text)?.[1] ?? [])).toEqual([
      '80.0',
      '80.0',
      '50.0',
    ]);
  });
  test('silent, it starts nothing', () => {
    const { texts, switches } = run(['n up', told(1512), 'W 60', says(), 'W 3000'], far.program);
    expect(switches.filter((one) => one.endsWith(' 1'))).toEqual([]);
    expect(texts.filter((one) => one.startsWith('# line 1 rests')).at(-1)).toContain('stale');
  });
});

describe('over MQTT', () => {
  /** Packets that were sent, whole. */
  const packets = (rows: readonly string[]) =>
    played(broker.program, [`a ${stick} 1512`, 'n mqtt', ...rows]).flatMap((line) =>
      line.startsWith('^ ') ? [Buffer.from(line.slice(2), 'hex')] : [],
    );
  /** Reports in packets of that kind: behind the length, the topic and the packet’s number. */
  const published = (sent: readonly Buffer[]) =>
    sent.flatMap((bytes): { readonly topic: string; readonly report: Report }[] => {
      if (bytes[0] !== 0x32) return [];
      let at = 1;
      while (((bytes[at] ?? 0) & 128) !== 0) at += 1;
      const topicEnd = at + 3 + bytes.readUInt16BE(at + 1);
      const read = readReport(bytes.subarray(topicEnd + 2).toString());
      if (!read.ok) throw new Error(JSON.stringify(read.issue));
      return [{ topic: bytes.subarray(at + 3, topicEnd).toString(), report: read.value }];
    });

  test('it says who it is with its key, asks for its answers, and publishes at least once', () => {
    expect(broker.said).toBe('');
    const sent = packets([...UP, 'W 8']);
    // By the standard: protocol MQTT at level 4, a clean session with user and password, 90 s; then name, user, password: 10 + 3 + 3 + 42 bytes.
    expect(sent[0]?.toString('hex')).toBe(`103a00044d51545404c2005a0001620001620028${hex(KEY)}`);
    expect(sent[1]?.toString('hex')).toBe(`8216ffff0011${hex('trowel/g/b/answer')}01`);
    expect(published(sent)[0]).toMatchObject({ topic: 'trowel/g/b/report', report: { board: 'b', seq: 1 } });
  });
  test('report after report over one connection, each answer acknowledged', () => {
    const sent = packets([...UP, 'W 65']);
    const reports = published(sent).map(({ report }) => report.seq);
    expect(reports).toEqual([1, 2, 3, 4, 5, 6, 7]);
    expect(sent.filter((bytes) => bytes[0] === 0x10)).toHaveLength(1);
    expect(sent.filter((bytes) => bytes.toString('hex') === '40020007')).toHaveLength(7);
  });
  test('made anew for each where the next is wanted much later, and when the broker has let go', () => {
    expect(
      packets(['n up', says({ everyS: 120 }), 'W 400']).filter((bytes) => bytes[0] === 0x10),
    ).toHaveLength(4);
    const again = packets([...UP, 'W 12', 'n quiet', 'W 10', 'n drop', 'n speak', 'W 40']);
    expect(again.filter((bytes) => bytes[0] === 0x10)).toHaveLength(2);
    expect(published(again).at(-1)?.report.seq).toBeGreaterThan(3);
  });
  test('an order is obeyed once, and a refusal is not in the way', () => {
    const order = says({ orders: [{ id: 'o1', text: 'set 1 start 42.5', liveS: 60 }] });
    const told = published(packets(['n up', order, 'W 40'])).flatMap(({ report }) => report.orders);
    expect(told).toEqual([{ id: 'o1', state: 'taken' }]);
    const after = published(packets(['n up', `n say ${hex('{"error":"no"}')}`, 'W 25', says(), 'W 60']));
    expect(after.at(-1)?.report.seq).toBeGreaterThan(3);
  });
});

describe('no pump runs on for the sake of a network', () => {
  const dry = [`a ${stick} 2400`, 'w 900'];
  const runS = (switches: readonly string[]) => {
    const at = (level: string) =>
      switches.filter((one) => one.endsWith(level)).map((one) => Number(one.split(' ')[0]));
    const off = at(' 0').slice(1);
    return at(' 1').map((from, place) => (off[place] ?? 0) - from);
  };
  test('a gateway that keeps a connection waiting for seven seconds, at every try: each run is as long as without it', () => {
    const alone = runS(run([...dry, 'w 40000']).switches);
    const slow = run([...UP, 'n slow 7', ...dry, 'w 40000']);
    expect(alone.length).toBeGreaterThan(1);
    expect(runS(slow.switches).slice(0, alone.length)).toEqual(alone);
    expect(slow.connected.length).toBeGreaterThan(100);
  });
  test('an order to stop from afar is heard when the run has ended, as the sheet says', () => {
    const { became, texts } = run([
      ...UP,
      'W 20',
      'c give 1 300',
      says({ orders: [{ id: 'o1', text: 'stop 1', liveS: 120 }] }),
      'W 90',
    ]);
    const [started, stopped] = ['started', 'stopped'].map((word) =>
      texts.find((text) => text.startsWith(`# ${word} 1 `)),
    );
    // It ran for the seconds that it was to.
    expect(stopped?.split(' ')[4]).toBe(started?.split(' ')[4]);
    expect(stopped).not.toContain('stop-order');
    expect(became).toEqual([{ id: 'o1', state: 'taken' }]);
  });
  test('connections are made while it rests, and the more rarely the longer nobody answers', () => {
    const { connected } = run(['n up', 'n deaf', 'w 3600']);
    const at = connected.map((line) => Number(line.split(' ').at(-1)));
    const pauses = at.slice(1).map((s, place) => s - (at[place] ?? 0));
    expect(pauses.slice(0, 6)).toEqual([10, 20, 40, 80, 120, 120]);
  });
});

describe('an answer that is none', () => {
  const GARBLED = [
    '',
    '{',
    '[]',
    'null',
    '{"seq":@@}',
    '{"seq":@@,"revision":0,"everyS":-3}',
    '{"seq":@@,"revision":0,"everyS":10,"orders":[{"id":"x"}]}',
    '{"seq":@@,"revision":0,"everyS":10,"orders":{"id":"x"}}',
    '{"seq":@@,"revision":0,"everyS":10,"clock":{"daySecond":3}}',
    '{"seq":99999999999,"revision":0,"everyS":10}',
    `{"seq":@@,"revision":0,"everyS":10,"x":${'['.repeat(4000)}`,
    `{"seq":@@,"revision":0,"everyS":10,"settings":["${'s'.repeat(400)}"]}`,
    '{"seq":@@,"revision":0,"everyS":10,"orders":[{"id":"x","text":"give 1 50"',
    `{"seq":@@,"revision":0,"everyS":1${'0'.repeat(400)}}`,
    'x'.repeat(20_000),
  ];
  test('does nothing, ends nothing, and the report comes again', () => {
    for (const text of GARBLED) {
      const {
        became,
        texts,
        reports,
        console: said,
      } = run([`a ${stick} 1512`, 'n up', `n say ${hex(text)}`, 'w 40', says(), 'w 200']);
      expect(became, text.slice(0, 60)).toEqual([]);
      expect(texts.filter((one) => one.startsWith('# settings'))).toEqual([]);
      expect(said).toContain('# net the answer cannot be read');
      expect(new Set(reports.map(({ seq }) => seq)).size).toBeGreaterThan(3);
    }
  });
  test('names that nobody knows are passed over, letters behind a bar as well', () => {
    const text =
      '{"new":{"a":[1,-2.5e-3,true,null,{"b":"\\u00e9\\n\\""}]},"everyS":20,"orders":[{"liveS":9,"text":"set 1 start 42.5","id":"o\\/1","more":[]}],"revision":1,"seq":@@}';
    expect(run(['n up', `n say ${hex(text)}`, 'w 40']).became).toEqual([]);
    expect(run(['n up', `n say ${hex(text.replace('o\\/1', 'o1'))}`, 'w 40']).became).toEqual([
      { id: 'o1', state: 'taken' },
    ]);
  });
});

describe('whatever comes over the network', () => {
  const sound = JSON.stringify(
    answer({
      revision: 9,
      settings: ['set 1 start 41.5', 'limits'],
      orders: [{ id: 'o1', text: 'why', liveS: 60 }],
      far: [{ n: 'x', v: -1.25 }],
      sun: { riseS: 20_000, setS: 70_000 },
    }),
  ).replace('"seq":0', '"seq":@@');
  const mutated = fc
    .tuple(
      fc.array(
        fc.tuple(fc.nat(sound.length), fc.nat(30), fc.constantFrom('"', '{', ']', '\\', '9', '', 'é', '\0')),
        {
          minLength: 1,
          maxLength: 4,
        },
      ),
      fc.nat(sound.length),
    )
    .map(([changes, end]) =>
      changes
        .reduce(
          (text, [at, cut, put]) => text.slice(0, at) + put.repeat(1 + (cut % 3)) + text.slice(at + cut),
          sound,
        )
        .slice(0, end % 3 === 0 ? end : undefined),
    );
  test('600 spoilt answers: nothing is switched, nothing ends', () => {
    const texts = fc.sample(mutated, { seed: 20_261_127, numRuns: 600 });
    const { switches, reports } = run(
      ['n up', ...texts.flatMap((text) => [`n say ${hex(text)}`, 'W 11'])],
      board.program,
    );
    expect(switches.filter((one) => one.endsWith(' 1'))).toEqual([]);
    expect(reports.length).toBeGreaterThan(500);
  });
  test('600 spoilt packets of a broker: the same', () => {
    const rows = fc.sample(fc.uint8Array({ minLength: 1, maxLength: 60 }), {
      seed: 20_261_127,
      numRuns: 600,
    });
    const heads = [0x20, 0x30, 0x32, 0x40, 0x90, 0xff];
    const lines = played(broker.program, [
      `a ${stick} 1512`,
      'n mqtt',
      ...UP,
      ...rows.flatMap((bytes, at) => [
        `n raw ${Buffer.from([heads[at % heads.length] ?? 0, ...bytes]).toString('hex')}`,
        'W 11',
      ]),
      'W 200',
    ]);
    expect(lines.filter((line) => new RegExp(`^\\d+ ${pump} 1$`).test(line))).toEqual([]);
    expect(lines.filter((line) => line.startsWith('^connect')).length).toBeGreaterThan(50);
  });
});

test('as it is handed out, with nothing filled in, it speaks at its console alone', () => {
  const alone = compiledAsHandedOut(overHttp);
  expect(alone.said).toBe('');
  const { lines, console: said } = run(['n up', 'w 60', 'c net'], alone.program);
  expect(lines.filter((line) => line.startsWith('^'))).toEqual([]);
  expect(said).toContain('# net off, secrets.h is not filled in');
});
