import fc from 'fast-check';
import { expect, test } from 'vitest';
import { EARLIEST_MS, LATEST_MS } from '../quantity/moment.ts';
import { isBenchRecording, readBenchRecording, recordingHead, recordingRow } from './benchRecording.ts';

const head = {
  garden: 'The Marigold Hare',
  source: 'Stand-in boards',
  startedAt: '2026-04-02T08:15:00.000Z',
  simulated: true,
};
const file = (...rows: string[]) => recordingHead(head) + rows.join('');

test('what is written is read back, line by line, understood or not', () => {
  const line = fc.record({
    boardId: fc.constantFrom('roof', 'stern'),
    text: fc.string({ maxLength: 80 }),
    atMs: fc.integer({ min: EARLIEST_MS, max: LATEST_MS - 1 }),
  });
  fc.assert(
    fc.property(fc.array(line, { minLength: 1, maxLength: 20 }), (lines) => {
      const read = readBenchRecording(file(...lines.map(recordingRow)));
      expect(read).toEqual({
        ok: true,
        value: { head, lines: lines.toSorted((a, b) => a.atMs - b.atMs), skipped: 0 },
      });
    }),
  );
});
test('a last row that was cut off is left out and counted', () => {
  const whole = recordingRow({ boardId: 'roof', text: 'c2=1512', atMs: EARLIEST_MS });
  expect(readBenchRecording(file(whole, '{"t":2,"board":"ro'))).toMatchObject({
    ok: true,
    value: { skipped: 1 },
  });
});
test('a row whose time no garden has is left out and counted', () => {
  const rows = [EARLIEST_MS - 1, EARLIEST_MS, LATEST_MS].map((atMs) =>
    recordingRow({ boardId: 'roof', text: 'c2=1512', atMs }),
  );
  expect(readBenchRecording(file(...rows))).toMatchObject({
    ok: true,
    value: { skipped: 2, lines: [{ atMs: EARLIEST_MS }] },
  });
});
test.each([
  ['c2=1512\nc2=1513\n', { kind: 'not-a-recording' }],
  ['', { kind: 'not-a-recording' }],
  [recordingHead(head), { kind: 'no-lines' }],
  [recordingHead(head).replace('"version":1', '"version":9'), { kind: 'newer', version: 9 }],
])('%o is refused with its reason', (text, issue) => {
  expect(readBenchRecording(text)).toEqual({ ok: false, issue });
});
test('a recording is told from other files by its first line', () => {
  expect(isBenchRecording(file())).toBe(true);
  expect(isBenchRecording('{"c2":1512}\n')).toBe(false);
});
