import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { identified, type EventDraft, type GardenEvent } from '../records/event.ts';
import type { Reading } from '../records/series.ts';
import { Recorder, type RecorderState } from './recorder.ts';

type Problem = 'full' | 'no-answer' | 'closed' | 'gone' | 'unknown';
class Failure extends Error {
  constructor(readonly problem: Problem) {
    super(problem);
  }
}

beforeEach(() => vi.useFakeTimers());
afterEach(() => vi.useRealTimers());

const T0 = 1_772_346_600_000;
const at = (afterMs: number): Reading => ({ timeMs: T0 + afterMs, raw: afterMs / 1000, flags: 0 });
const note = (text = 'watered'): EventDraft => ({
  kind: 'note',
  atMs: T0 + 500,
  plotId: null,
  simulated: false,
  text,
});

/** A recorder over a disk that keeps every event and reading once, and fails as told. */
function recording(failures: readonly (Problem | 'after')[] = []) {
  const saved = new Set<number>();
  const events = new Map<string, GardenEvent>();
  const states: RecorderState<Problem>[] = [];
  const writes: number[] = [];
  const left = [...failures];
  let names = 0;
  const recorder = new Recorder<Problem>({
    save: (readings, told) => {
      const failure = left.shift();
      if (failure && failure !== 'after') return Promise.reject(new Failure(failure));
      const times = [...readings.values()].flatMap((list) => list.map((one) => one.timeMs - T0));
      writes.push(times.length);
      for (const time of times) saved.add(time);
      for (const event of told) events.set(event.id, event);
      // "after": it is on disk, and the answer says that it failed.
      return failure === 'after' ? Promise.reject(new Failure('no-answer')) : Promise.resolve({ beside: 0 });
    },
    report: (state) => states.push(state),
    named: (drafts, author) => drafts.map((draft) => identified(draft, `event ${(names += 1)}`, author)),
    problemOf: (error) => (error instanceof Failure ? error.problem : 'unknown'),
    after: (ms, run) => {
      const timer = setTimeout(run, ms);
      return () => clearTimeout(timer);
    },
  });
  return { recorder, saved, events, states, writes };
}

test('one reading an interval is kept, the first at once', async () => {
  const { recorder, saved } = recording();
  for (let ms = 0; ms <= 25_000; ms += 500) recorder.offer('c', at(ms), 10);
  await recorder.flush();
  expect([...saved]).toEqual([0, 10_000, 20_000]);
});

test('channels are thinned on their own', async () => {
  const { recorder, saved } = recording();
  recorder.offer('a', at(0), 10);
  recorder.offer('b', at(1000), 10);
  await recorder.flush();
  expect([...saved]).toEqual([0, 1000]);
});

test('a clock set back does not stop the record', async () => {
  const { recorder, saved } = recording();
  recorder.offer('c', at(60_000), 10);
  recorder.offer('c', at(5000), 10);
  await recorder.flush();
  expect([...saved]).toEqual([60_000, 5000]);
});

test('it writes by itself within two seconds and says up to when', async () => {
  const { recorder, saved, events, states } = recording();
  recorder.offer('c', at(700), 10);
  recorder.note([note()]);
  await vi.advanceTimersByTimeAsync(2000);
  expect([...saved]).toEqual([700]);
  expect([...events.values()]).toMatchObject([note()]);
  expect(states).toEqual([
    { savedToMs: T0 + 700, problem: null, waiting: { readings: 0, events: 0 }, beside: 0 },
  ]);
});

test('what could not be written waits, in order, is counted, and is written when storage is back', async () => {
  const { recorder, saved, events, states } = recording(['full', 'closed']);
  recorder.offer('c', at(0), 10);
  recorder.note([note()]);
  await recorder.flush();
  expect(states.at(-1)).toMatchObject({ problem: 'full', waiting: { readings: 1, events: 1 } });
  expect(recorder.waiting()).toMatchObject({ readings: new Map([['c', [at(0)]]]), events: [note()] });
  recorder.offer('c', at(10_000), 10);
  await vi.advanceTimersByTimeAsync(2000);
  expect(states.at(-1)).toMatchObject({ problem: 'closed', waiting: { readings: 2, events: 1 } });
  await vi.advanceTimersByTimeAsync(2000);
  expect([...saved]).toEqual([0, 10_000]);
  expect([...events.values()]).toMatchObject([note()]);
  expect(states.at(-1)).toMatchObject({ problem: null, waiting: { readings: 0, events: 0 } });
});

test('a write that reached the disk and was said to have failed doubles nothing', async () => {
  const { recorder, saved, events } = recording(['after', 'after']);
  recorder.offer('c', at(0), 10);
  recorder.note([note('one'), note('one')]);
  await recorder.flush();
  await vi.advanceTimersByTimeAsync(4000);
  expect([...saved]).toEqual([0]);
  expect(events.size).toBe(2);
});

test('a whole season at once is written in bounded portions, each on disk before the next', async () => {
  const { recorder, writes, states } = recording();
  for (let n = 0; n < 160_000; n += 1) recorder.offer('c', at(n * 10_000), 10);
  await recorder.flush();
  expect(Math.max(...writes)).toBeLessThanOrEqual(5000);
  expect(writes.reduce((sum, one) => sum + one, 0)).toBe(160_000);
  expect(states.at(-1)).toMatchObject({ problem: null, waiting: { readings: 0 } });
  const waiting = states.map((state) => state.waiting.readings);
  expect(waiting).toEqual(waiting.toSorted((a, b) => b - a));
});

test.each([
  ['a time before 2000', { timeMs: 4500, raw: 1, flags: 0 }],
  ['the year 58221', { timeMs: 1.775e15, raw: 1, flags: 0 }],
  ['a value that nothing counts', { timeMs: T0, raw: 1e308, flags: 0 }],
])('%s is not recorded and holds nothing up', async (_, reading) => {
  const { recorder, saved } = recording();
  recorder.offer('c', reading, 10);
  recorder.offer('c', at(0), 10);
  await recorder.flush();
  expect([...saved]).toEqual([0]);
});

test('an event that could not be read back holds nothing up', async () => {
  const { recorder, events } = recording();
  expect(recorder.note([{ ...note(), atMs: 9e15 }, note('fine')])).toBe(false);
  await recorder.flush();
  expect([...events.values()]).toMatchObject([note('fine')]);
});

test('nothing to write writes nothing', async () => {
  const { recorder, states } = recording();
  await recorder.flush();
  expect(states).toEqual([]);
});
