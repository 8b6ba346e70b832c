import { readBenchRecording } from '@plain-trowel/core/signal/benchRecording';
import { expect, test } from 'vitest';
import { BenchRecorder, type BenchStore } from './benchRecorder.ts';

const HEAD = {
  garden: 'Shed',
  source: 'a board',
  startedAt: '2026-05-01T08:00:00.000Z',
  simulated: false,
} as const;
const START = Date.UTC(2026, 4, 1, 8);
const line = (at: number) => ({ boardId: 'roof', text: `c2=${1500 + at}`, atMs: START + 1000 * at });

function storeOf(most = Infinity): BenchStore & { readonly held: Map<string, string> } {
  const held = new Map<string, string>();
  return {
    held,
    getItem: (key) => held.get(key) ?? null,
    setItem: (key, text) => {
      if (held.size >= most) throw new Error('quota exceeded');
      held.set(key, text);
    },
    removeItem: (key) => void held.delete(key),
  };
}
const textsOf = (file: string | null) => {
  const read = readBenchRecording(file ?? '');
  return read.ok ? read.value.lines.map((one) => one.text) : read.issue;
};

test('a reload goes on with the session: every line of it is in the file', () => {
  const store = storeOf();
  const before = new BenchRecorder('bench shed', store);
  before.start(HEAD, START);
  for (let at = 0; at < 130; at += 1) before.take(line(at));
  before.putBy();
  const after = new BenchRecorder('bench shed', store);
  expect([after.lines, after.sinceMs]).toEqual([130, START]);
  after.take(line(130));
  expect(textsOf(after.stop())).toEqual(Array.from({ length: 131 }, (_, at) => `c2=${1500 + at}`));
  expect(store.held.size).toBe(0);
});
test('another garden has its own, and none is none', () => {
  const store = storeOf();
  new BenchRecorder('bench shed', store).start(HEAD, START);
  expect(new BenchRecorder('bench roof', store).lines).toBe(null);
  expect(new BenchRecorder('bench roof', store).stop()).toBe(null);
});
test('without room the session goes on in memory, and says that a reload would lose it', () => {
  const recorder = new BenchRecorder('bench shed', storeOf(2));
  recorder.start(HEAD, START);
  for (let at = 0; at < 100; at += 1) recorder.take(line(at));
  expect(recorder.isAtRisk).toBe(true);
  expect(textsOf(recorder.stop())).toHaveLength(100);
});
test('what cannot be read is no session', () => {
  const store = storeOf();
  for (const text of ['', '{', '{"head":1}', 'null', '{"head":"x","sinceMs":"y"}']) {
    store.setItem('bench shed head', text);
    expect(new BenchRecorder('bench shed', store).lines).toBe(null);
  }
});
