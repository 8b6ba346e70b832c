import { afterEach, describe, expect, test, vi } from 'vitest';
import type { Entry } from '@plain-trowel/core/protocol/feed';
import { fail, ok } from '@plain-trowel/core/quantity/result';
import { FLAGS } from '@plain-trowel/core/records/series';
import { marigoldHare } from '@plain-trowel/standins/sample/marigoldHare';
import { GatewaySource, type Feed } from './gatewaySource.ts';
import type { SourceUpdate } from './lineSource.ts';

afterEach(() => {
  vi.useRealTimers();
});

const NOON = Date.UTC(2026, 10, 28, 12);
const GARDEN = marigoldHare(NOON);
const LINE = GARDEN.waterLines[0];

/** A gateway as the source sees it: what it is told, and what it is asked. */
function heard() {
  vi.useFakeTimers({ now: NOON });
  const updates: SourceUpdate[] = [];
  const noted: unknown[] = [];
  const ordered: unknown[] = [];
  const seen: unknown[] = [];
  const listeners = new Map<string, (event: Event) => void>();
  let opened = 0;
  const state = { kept: true, readyState: 1, hears: true };
  const feed = {
    addEventListener: (kind: string, listen: (event: Event) => void) => listeners.set(kind, listen),
    close: () => undefined,
    get readyState() {
      return state.readyState;
    },
  } as unknown as Feed;
  const source = new GatewaySource(GARDEN, 'abcdefgh', {
    client: {
      feedUrl: () => '/feed',
      fetched: (_garden, to) => {
        noted.push(to);
        return Promise.resolve(ok({}));
      },
      order: (_garden, boardId, text, liveS) => {
        ordered.push([boardId, text, liveS]);
        return Promise.resolve(ok({}));
      },
      seen: (_garden, key, untilMs) => {
        seen.push([key, untilMs]);
        return Promise.resolve(state.hears ? ok({}) : fail({ kind: 'no-answer' }));
      },
      session: () => Promise.resolve(ok({ isIn: false, isOpen: true })),
    },
    openFeed: () => {
      opened += 1;
      return feed;
    },
    keep: () => Promise.resolve(state.kept),
    nowMs: () => Date.now(),
  });
  source.start((update) => updates.push(update));
  const tell = (kind: string, what: object = {}) => {
    listeners.get(kind)?.({ data: JSON.stringify(what) } as unknown as Event);
    // Entries are taken in right after.
    vi.advanceTimersByTime(1);
  };
  const of = <K extends SourceUpdate['kind']>(kind: K) =>
    updates.filter((one): one is Extract<SourceUpdate, { kind: K }> => one.kind === kind);
  const hello = (store = 's1', after = 0, nowMs = NOON) => tell('hello', { store, after, nowMs });
  return { source, tell, hello, of, noted, ordered, seen, state, opened: () => opened };
}

const entry = (n: number, more: Partial<Entry> = {}): Entry => ({
  n,
  boardId: LINE?.boardId ?? '',
  boot: 3,
  run: 0,
  seq: n,
  receivedMs: NOON,
  upS: 60,
  simulated: false,
  readings: [
    { n: 'c2', v: 1512, atMs: NOON - 2000 },
    { n: 'l1', v: 2240, atMs: NOON - 2000 },
    { n: 'air', v: 21.5, atMs: NOON - 5000 },
  ],
  said: [],
  orders: [],
  ...more,
});

describe('what boards report', () => {
  test('comes as readings by their own times, those of one moment together', () => {
    const { hello, tell, of } = heard();
    hello();
    tell('entry', entry(1));
    const boardId = LINE?.boardId;
    expect(of('readings')[0]?.readings).toEqual([
      {
        boardId,
        seq: 1,
        atMs: NOON - 5000,
        values: [{ name: 'air', value: 21.5 }],
        flags: 0,
        bundleMs: 10_000,
      },
      {
        boardId,
        seq: 1,
        atMs: NOON - 2000,
        values: [
          { name: 'c2', value: 1512 },
          { name: 'l1', value: 2240 },
        ],
        flags: 0,
        bundleMs: 10_000,
      },
    ]);
  });
  test('belongs to the log alone when it was taken more than ten minutes ago, however late it came', () => {
    const { hello, tell, of } = heard();
    hello();
    const readings = [601_000, 599_000].map((agoMs) => ({ n: 'c2', v: 1500, atMs: NOON - agoMs }));
    tell('entry', entry(1, { receivedMs: NOON, readings }));
    const times = (kind: 'past' | 'readings') =>
      of(kind).flatMap((one) => one.readings.map(({ atMs }) => NOON - atMs));
    expect([times('past'), times('readings')]).toEqual([[601_000], [599_000]]);
  });
  test('is told once, also when a broken connection begins before where it was', () => {
    const { hello, tell, of } = heard();
    hello();
    for (const n of [1, 2]) tell('entry', entry(n));
    hello('s1', 0);
    for (const n of [1, 2, 3]) tell('entry', entry(n));
    expect(of('readings')).toHaveLength(3 * 2 - 3);
    // Another store has other entries under the same numbers.
    hello('s2', 0);
    tell('entry', entry(1));
    expect(of('readings')).toHaveLength(4);
  });
  test('is marked where a stand-in reports', () => {
    const { hello, tell, of, source } = heard();
    hello();
    tell('entry', entry(1));
    expect(source.simulated).toBe(false);
    tell('entry', entry(2, { simulated: true }));
    expect(source.simulated).toBe(true);
    expect(of('readings').map(({ readings }) => readings[0]?.flags)).toEqual([0, FLAGS.simulated]);
  });
  test('carries how far apart its board’s reports are', () => {
    const { hello, tell, of } = heard();
    hello();
    for (const [at, receivedMs] of [0, 600_000, 1_200_000, 1_200_900, 1_800_000].entries())
      tell('entry', entry(at + 1, { receivedMs: NOON - 2_000_000 + receivedMs }));
    expect(of('readings').at(-1)?.readings[0]?.bundleMs).toBe(600_000 - 450);
  });
  test('that cannot be understood changes nothing', () => {
    const { hello, tell, of } = heard();
    hello();
    tell('entry', { n: 'x' });
    tell('entry', []);
    expect(of('readings')).toEqual([]);
  });
  test('is timed by the gateway’s clock, however wrong the browser’s is', () => {
    const { hello, source } = heard();
    hello('s1', 0, NOON + 7_200_000);
    vi.advanceTimersByTime(1000);
    expect(source.nowMs()).toBe(NOON + 7_201_001);
  });
});

describe('what it has is noted at the gateway', () => {
  test('only once it is on disk, and only when there is more', async () => {
    const { hello, tell, noted, state } = heard();
    hello();
    tell('entry', entry(1));
    state.kept = false;
    await vi.advanceTimersByTimeAsync(5000);
    expect(noted).toEqual([]);
    state.kept = true;
    await vi.advanceTimersByTimeAsync(5000);
    await vi.advanceTimersByTimeAsync(5000);
    expect(noted).toEqual([{ app: 'abcdefgh', name: 'browser abcd', store: 's1', n: 1 }]);
  });
});

describe('a board that runs a program of ours', () => {
  const said = (...texts: string[]) => texts.map((text) => ({ text, atMs: NOON - 1000 }));
  const start = () => {
    const all = heard();
    all.hello();
    all.tell('entry', entry(1, { said: said('# version 7 abc000000009 engine 1', `# lines ${LINE?.id}`) }));
    return all;
  };
  test('is known by what it says, and decides', () => {
    const { source } = start();
    expect(source.boardAt(LINE?.boardId ?? '')?.program).toMatchObject({ number: 7, name: 'abc000000009' });
    expect(source.can.decides).toBe(true);
  });
  test('has no say any more once it has fallen silent: whether its pump runs nobody knows then', async () => {
    const { tell, of } = start();
    tell('entry', entry(2, { said: said('# line 1 runs below-start today 40 ml') }));
    const lines = () => Object.keys(of('answers').at(-1)?.answers.lines ?? {});
    expect(lines()).toEqual([LINE?.id]);
    await vi.advanceTimersByTimeAsync(60_000);
    expect(lines()).toEqual([]);
    tell('entry', entry(3, { receivedMs: Date.now(), said: said('# line 1 rests dose-done today 81 ml') }));
    expect(lines()).toEqual([LINE?.id]);
  });
  test('stands beside the others: what one says of its lines does not take away those of another', () => {
    const { tell, of } = start();
    tell('entry', entry(2, { said: said('# line 1 rests not-below-start today 0 ml') }));
    const other = {
      boardId: 'stern',
      said: said('# version 1 abc000000009 engine 1', '# lines other', '# line 1 rests not-due today 0 ml'),
    };
    tell('entry', entry(3, other));
    expect(Object.keys(of('answers').at(-1)?.answers.lines ?? {}).sort()).toEqual([LINE?.id, 'other'].sort());
  });
  test('is not asked as long as it tells by itself; what a page has missed is asked for once', async () => {
    const all = start();
    expect(all.ordered).toEqual([]);
    await vi.advanceTimersByTimeAsync(20_000);
    expect(all.ordered).toEqual([[LINE?.boardId, 'limits', 120]]);
    const told = start();
    told.tell('entry', entry(2, { said: said('# limits 1 start 35.0 dose 120 water on') }));
    await vi.advanceTimersByTimeAsync(20_000);
    expect(told.ordered).toEqual([]);
  });
  test('hears what a person says in the order in which it is said', async () => {
    const { source, ordered } = start();
    const board = source.boardAt(LINE?.boardId ?? '');
    for (const text of ['set 1 water off', 'limits', 'why']) board?.type(text);
    await vi.advanceTimersByTimeAsync(1);
    expect(ordered.map((one) => (one as string[])[1])).toEqual(['set 1 water off', 'limits', 'why']);
  });
  test('gets orders through the gateway, each with a life', async () => {
    const { source, ordered } = start();
    source.order({ kind: 'water', lineId: LINE?.id ?? '', volumeMl: 120 });
    await vi.advanceTimersByTimeAsync(1);
    expect(ordered).toEqual([[LINE?.boardId, 'give 1 120', 120]]);
  });
  test('tells its waterings under names that are the same wherever they are told again', () => {
    const names = () => {
      const { tell, of } = start();
      tell(
        'entry',
        entry(2, { said: said('# started 1 below-start 9 s at 31.5', '# stopped 1 dose-done 9 s 81 ml') }),
      );
      return of('events').flatMap(({ events }) => events.map(({ id, kind }) => [id, kind]));
    };
    expect(names()).toEqual([
      [`s1 ${LINE?.boardId} 3 0 2 0 0`, 'pump-started'],
      [`s1 ${LINE?.boardId} 3 0 2 1 0`, 'pump-stopped'],
    ]);
    expect(names()).toEqual(names());
  });
  test.each([
    ['refused', 'daily-max', 'refused'],
    ['expired', undefined, 'refused'],
    ['taken', undefined, 'taken'],
  ])('says what became of an order that was %s', (state, why, kind) => {
    const { source, tell } = start();
    const order = { id: 'o1', boardId: LINE?.boardId, text: 'give 1 5', madeMs: NOON, untilMs: NOON + 1 };
    tell('order', { ...order, state, why });
    expect(source.boardAt(LINE?.boardId ?? '')?.program.answer?.said.kind).toBe(kind);
  });
});

test('a gateway that is away is waited for; one that asks for its passphrase is told', async () => {
  const { hello, tell, of, state, opened } = heard();
  hello();
  tell('error');
  expect(of('status').at(-1)).toMatchObject({ status: 'opening', message: /does not answer/ });
  expect(opened()).toBe(1);
  state.readyState = 2;
  tell('error');
  await vi.advanceTimersByTimeAsync(5000);
  expect(of('status').at(-1)).toMatchObject({ status: 'failed', message: /passphrase/ });
});

describe('alerts that the gateway judges', () => {
  const state = { sinceMs: NOON, raisedMs: NOON, toldMs: NOON, acknowledged: false, snoozedUntilMs: null };
  const states = { 'dry chilli': state };
  test('stand on the page as they stand there, and the page judges none itself', () => {
    const { source, tell, hello, of } = heard();
    hello();
    expect(source.alerts).toBeNull();
    tell('alerts', { states });
    expect(of('alerts')).toEqual([{ kind: 'alerts', states }]);
    expect(source.alerts).not.toBeNull();
    // After another connection it must say so again.
    hello();
    expect(source.alerts).toBeNull();
  });
  test('are seen and put off there', () => {
    const { source, tell, hello, seen } = heard();
    hello();
    tell('alerts', { states });
    source.alerts?.seen('dry chilli');
    source.alerts?.putOff('dry chilli', NOON + 1000);
    expect(seen).toEqual([
      ['dry chilli', null],
      ['dry chilli', NOON + 1000],
    ]);
  });
  test('that the gateway did not hear to be seen stand as before', async () => {
    const { source, tell, hello, of, state: gate } = heard();
    hello();
    tell('alerts', { states });
    gate.hears = false;
    source.alerts?.seen('dry chilli');
    await vi.advanceTimersByTimeAsync(1);
    expect(of('alerts')).toHaveLength(2);
  });
  test('that were told while nobody looked come with their names; damaged ones are left out whole', () => {
    const { tell, hello, of } = heard();
    hello();
    const event = {
      id: 's1 abc',
      author: 'page',
      atMs: NOON,
      boardId: null,
      lineId: null,
      channelId: null,
      seq: null,
      plotId: 'chilli',
      simulated: false,
      kind: 'alert',
      alert: 'dry',
      phase: 'raised',
      subject: 'Chilli crate',
    };
    tell('told', { events: [event], isNew: false });
    tell('told', { events: [{ ...event, alert: 'flood' }], isNew: true });
    expect(of('told')).toEqual([{ kind: 'told', events: [event], isNew: false }]);
  });
});
