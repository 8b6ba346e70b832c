import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { readSerialLog } from '@plain-trowel/core/signal/serialLog';
import { marigoldHare } from '@plain-trowel/standins/sample/marigoldHare';
import type { SourceUpdate } from './lineSource.ts';
import { LiveSession } from './liveSession.ts';
import { LogSource } from './logSource.ts';
import { StandInSource } from './standInSource.ts';

const T0 = Date.UTC(2026, 4, 1, 9);
beforeEach(() => vi.useFakeTimers({ now: T0 }));
afterEach(() => vi.useRealTimers());

const tickMs = () => Date.now();
const garden = marigoldHare(T0);

function logOf(text: string) {
  const log = readSerialLog(text, { startMs: T0, intervalMs: 1000 });
  if (!log.ok) throw new Error(log.issue.kind);
  return log.value;
}

const linesOf = (updates: readonly SourceUpdate[]) =>
  updates.flatMap((update) => (update.kind === 'lines' ? update.lines.map((line) => line.text) : []));

describe('a serial log', () => {
  test('is played at its own pace, faster, or all at once', async () => {
    const log = logOf('1\n2\n3\n4\n5\n6\n7\n8\n9\n10\n11\n12');
    const source = new LogSource(log, 'roof', 'log', tickMs);
    source.setSpeed(1);
    const updates: SourceUpdate[] = [];
    source.start((update) => updates.push(update));
    await vi.advanceTimersByTimeAsync(2000);
    expect(linesOf(updates)).toEqual(['1', '2', '3']);
    source.setSpeed(10);
    await vi.advanceTimersByTimeAsync(500);
    expect(linesOf(updates)).toHaveLength(8);
    source.setSpeed('all');
    await vi.advanceTimersByTimeAsync(100);
    expect(linesOf(updates)).toHaveLength(12);
    expect(updates.at(-1)).toMatchObject({ kind: 'status', status: 'ended' });
  });

  test('may be recorded only when its times are real', () => {
    expect(new LogSource(logOf('1\n2'), 'roof', 'log', tickMs).mayRecord).toBe(false);
    expect(new LogSource(logOf('12:00:01 1'), 'roof', 'log', tickMs).mayRecord).toBe(false);
    expect(new LogSource(logOf('2026-05-01T09:00:00Z 1'), 'roof', 'log', tickMs).mayRecord).toBe(true);
  });
});

describe('the stand-in boards', () => {
  test('run on the clock they are set to, and sleep while their tab sleeps', async () => {
    const source = new StandInSource(garden, null, T0, tickMs);
    source.start(() => undefined);
    await vi.advanceTimersByTimeAsync(1000);
    expect(source.nowMs() - T0).toBe(1000);
    source.setSpeed(60);
    await vi.advanceTimersByTimeAsync(1000);
    expect(source.nowMs() - T0).toBe(61_000);
    source.setSpeed(1);
    vi.setSystemTime(Date.now() + 3_600_000);
    await vi.advanceTimersByTimeAsync(100);
    expect(source.nowMs() - T0).toBe(66_000);
  });

  test('tell what a hand did to them', async () => {
    const updates: SourceUpdate[] = [];
    const source = new StandInSource(garden, null, T0, tickMs);
    source.start((update) => updates.push(update));
    source.hands.pour('chilli', 50);
    source.hands.move('probe-c2', 'air');
    expect(source.hands.placeOf('probe-c2')).toBe('air');
    expect(updates.flatMap((update) => (update.kind === 'events' ? update.events : []))).toMatchObject([
      { kind: 'poured', volumeMl: 50, plotId: 'chilli' },
      { kind: 'probe-moved', to: 'air', plotId: 'chilli' },
    ]);
    await source.stop();
  });
});

describe('a live session', () => {
  const session = () => {
    const saved = new Map<string, number>();
    const live = new LiveSession(
      garden,
      (readings) => {
        for (const [channelId, list] of readings)
          saved.set(channelId, (saved.get(channelId) ?? 0) + list.length);
        return Promise.resolve({ beside: 0 });
      },
      { nowMs: () => Date.now(), tickMs },
    );
    return { live, saved };
  };

  test('maps named values to channels, counts lines and records one reading an interval', async () => {
    const { live, saved } = session();
    await live.connect(new StandInSource(garden, null, T0, tickMs));
    await vi.advanceTimersByTimeAsync(20_500);
    const seen = live.getSnapshot();
    expect(seen.status).toBe('open');
    expect([...seen.present.keys()].sort()).toEqual([
      'channel-air',
      'channel-bat',
      'channel-c2',
      'channel-l1',
      'channel-m1',
      'channel-s1',
      'channel-t1',
      'channel-tank',
    ]);
    expect(seen.understood).toBeGreaterThanOrEqual(80);
    expect(seen.recent.lines / seen.recent.durationS).toBeCloseTo(4, 0);
    await live.flush();
    // at 0, 10 and 20 s
    expect(saved.get('channel-c2')).toBe(3);
    await live.close();
  });

  test('counts lines it cannot read and shows them with their reason', async () => {
    const { live } = session();
    await live.connect(new LogSource(logOf('c2=1512\nroof board is ready\nc2=1e309'), 'roof', 'log', tickMs));
    await vi.advanceTimersByTimeAsync(200);
    expect(live.getSnapshot()).toMatchObject({
      understood: 1,
      notUnderstood: 2,
      badLines: [{ text: 'roof board is ready', reason: 'no-number' }, { reason: 'not-finite' }],
    });
    await live.close();
  });

  test('names that belong to no probe are offered, not recorded', async () => {
    const { live, saved } = session();
    await live.connect(new LogSource(logOf('2026-05-01T09:00:00Z A0=512'), 'roof', 'log', tickMs));
    live.setRecording(true);
    await vi.advanceTimersByTimeAsync(200);
    expect(live.getSnapshot().streams).toEqual([{ boardId: 'roof', name: 'A0', last: 512, unit: null }]);
    await live.flush();
    expect(saved.size).toBe(0);
    await live.close();
  });

  test('when the boards fall silent, no value, verdict or fault outlives its data, and the lamp says “unknown”: only the last word with its age is left', async () => {
    const { live } = session();
    const source = new StandInSource(garden, null, T0, tickMs);
    await live.connect(source);
    await vi.advanceTimersByTimeAsync(60_000);
    const before = live.getSnapshot();
    expect(before.settling.has('channel-c2')).toBe(true);
    expect([before.silent.size, before.signals.chilli?.state === 'unknown']).toEqual([0, false]);
    await source.stop();
    // Its clock goes on although nothing is sent.
    vi.spyOn(source, 'nowMs').mockImplementation(() => Date.now());
    await vi.advanceTimersByTimeAsync(8000);
    const seen = live.getSnapshot();
    for (const of of [seen.present, seen.settling, seen.faults]) expect(of.has('channel-c2')).toBe(false);
    expect(seen.signals.chilli?.state).toBe('unknown');
    expect(seen.silent.get('channel-c2')?.ageS).toBeGreaterThan(7);
    expect(seen.silent.get('channel-c2')?.rawCounts).toBeGreaterThan(1000);
    await live.close();
  });

  test('a file that has come to its end is read again when it becomes known what one of its names is', async () => {
    const { live } = session();
    const text = Array.from({ length: 40 }, (_, n) => `A0=${512 + (n % 3)}`).join('\n');
    await live.connect(new LogSource(logOf(text), 'roof', 'log', tickMs));
    await vi.advanceTimersByTimeAsync(500);
    expect(live.getSnapshot()).toMatchObject({ status: 'ended', understood: 40 });
    expect(live.getSnapshot().settling.has('channel-c2')).toBe(false);
    const channels = garden.channels.map((one) =>
      one.id === 'channel-c2' ? { ...one, streamName: 'A0' } : one,
    );
    live.setGarden({ ...garden, channels });
    await vi.advanceTimersByTimeAsync(500);
    expect(live.getSnapshot()).toMatchObject({ status: 'ended', understood: 40 });
    expect(live.getSnapshot().settling.has('channel-c2')).toBe(true);
    // Another name of the garden changes nothing about it.
    live.setGarden({ ...garden, channels, name: 'Another name' });
    await vi.advanceTimersByTimeAsync(500);
    expect(live.getSnapshot().understood).toBe(40);
    await live.close();
  });

  test('a comma that may be two things is asked about until somebody has said it', async () => {
    const { live } = session();
    await live.connect(new LogSource(logOf('2600,5\n2601,5'), 'roof', 'log', tickMs));
    await vi.advanceTimersByTimeAsync(500);
    expect(live.getSnapshot().asksComma).toEqual({ boardId: 'roof', text: '2601,5' });
    const boards = garden.boards.map((one) =>
      one.id === 'roof' ? { ...one, reads: { ...one.reads, comma: 'decimal' as const } } : one,
    );
    live.setGarden({ ...garden, boards });
    await vi.advanceTimersByTimeAsync(500);
    expect(live.getSnapshot().asksComma).toBeNull();
    expect(live.getSnapshot().streams.map(({ name, last }) => [name, last])).toEqual([['value', 2601.5]]);
    await live.close();
  });

  test('a log is never recorded as it plays: its readings come in as one import', async () => {
    const { live, saved } = session();
    const log = new LogSource(logOf('2026-05-01T09:00:00Z c2=1512'), 'roof', 'log', tickMs);
    await live.connect(log);
    live.setRecording(true);
    await vi.advanceTimersByTimeAsync(200);
    await live.flush();
    expect([live.getSnapshot().recording, saved.size]).toEqual([false, 0]);
    expect(log.boardLines()).toEqual([
      { boardId: 'roof', text: '2026-05-01T09:00:00Z c2=1512', atMs: Date.UTC(2026, 4, 1, 9) },
    ]);
    await live.close();
  });

  test('for a real board or a log the page works out what the rules would answer', async () => {
    const { live } = session();
    // 2600 counts are 18.7 % span, below the start limit; the first hold is the interval counted from now
    await live.connect(new LogSource(logOf('c2=2600'), 'roof', 'log', tickMs));
    await vi.advanceTimersByTimeAsync(200);
    expect(live.getSnapshot().answers['line-roof']).toMatchObject({ isOn: false, reason: 'min-interval' });
    expect(live.getSnapshot().signals.chilli).toMatchObject({ state: 'too-dry', lamp: 'red' });
    // A file tells of the past: nobody is alerted.
    expect(live.getSnapshot().alerts).toEqual([]);
    await live.close();
  });

  test('lines of a source that was closed are not read any more', async () => {
    const { live } = session();
    const first = new LogSource(logOf('c2=1\nc2=2\nc2=3'), 'roof', 'log', tickMs);
    first.setSpeed(1);
    await live.connect(first);
    await live.disconnect();
    await vi.advanceTimersByTimeAsync(5000);
    expect(live.getSnapshot()).toMatchObject({ source: null, status: 'none' });
    await live.close();
  });
});
