import { describe, expect, test } from 'vitest';
import { newMailbox, NOON, report } from './mailboxForTests.ts';
import type { Report } from '@plain-trowel/core/protocol/report';

/** Hands reports in, each with its second; gives what became of them, and what lies there afterwards. */
async function heard(...reports: readonly (readonly [atS: number, report: Report])[]) {
  const mailbox = newMailbox();
  const kinds: string[] = [];
  for (const [atS, one] of reports) kinds.push((await mailbox.put('hare', one, NOON + atS * 1000)).kind);
  const entries = mailbox.after('hare', 0, 100);
  await mailbox.close();
  return { kinds, entries };
}

describe('a board that tells its starts apart', () => {
  test('is kept once when it sends a report again, however much later', async () => {
    const again = report(7, { upS: 90_000, readings: [{ n: 'c2', v: 1507, agoS: 89_583 }] });
    const { kinds, entries } = await heard([0, report(7)], [1, report(7)], [89_580, again]);
    expect(kinds).toEqual(['kept', 'again', 'again']);
    expect(entries).toHaveLength(1);
    expect(entries[0]?.readings).toEqual([{ n: 'c2', v: 1507, atMs: NOON - 3000 }]);
  });
  test('may count from 0 again after a start', async () => {
    const { kinds, entries } = await heard(
      [0, report(0)],
      [60, report(1)],
      [90, report(0, { boot: 13 })],
      [150, report(1, { boot: 13 })],
    );
    expect(kinds).toEqual(['kept', 'kept', 'kept', 'kept']);
    expect(entries.map(({ n, boot, seq }) => [n, boot, seq])).toEqual([
      [1, 12, 0],
      [2, 12, 1],
      [3, 13, 0],
      [4, 13, 1],
    ]);
  });
  test('loses nothing when it does not keep its promise and uses a number twice', async () => {
    const { kinds, entries } = await heard(
      [0, report(3)],
      [60, report(3, { readings: [{ n: 'c2', v: 9, agoS: 0 }] })],
    );
    expect(kinds).toEqual(['kept', 'kept']);
    expect(entries.map(({ run }) => run)).toEqual([0, 1]);
  });
  test('may send what it had kept back after what is newer', async () => {
    const { entries } = await heard([0, report(5)], [1, report(3)], [2, report(4)], [3, report(3)]);
    expect(entries.map(({ seq }) => seq)).toEqual([5, 3, 4]);
  });
});

describe('a board that cannot tell its starts apart (boot 0)', () => {
  const switchAlone = (seq: number, upS: number) =>
    report(seq, { boot: 0, upS, readings: [{ n: 'rain', v: 0, agoS: 0 }] });
  test('has started anew when its uptime says so, also with the very same report', async () => {
    const { kinds, entries } = await heard(
      [0, switchAlone(0, 3)],
      [60, switchAlone(1, 63)],
      [600, switchAlone(0, 3)],
      [660, switchAlone(1, 63)],
    );
    expect(kinds).toEqual(['kept', 'kept', 'kept', 'kept']);
    expect(entries.map(({ run, seq }) => [run, seq])).toEqual([
      [0, 0],
      [0, 1],
      [1, 0],
      [1, 1],
    ]);
  });
  test('has not, when it says the same again with its uptime gone on', async () => {
    const { kinds } = await heard([0, switchAlone(0, 3)], [40, switchAlone(0, 43)]);
    expect(kinds).toEqual(['kept', 'again']);
  });
  test('may have a clock that is wrong by two in a hundred either way', async () => {
    for (const rate of [0.981, 1.019]) {
      const days = Array.from({ length: 30 }, (_, day) => day * 86_400);
      const { entries } = await heard(
        ...days.map((atS, seq) => [atS, switchAlone(seq, Math.round(atS * rate))] as const),
      );
      expect(new Set(entries.map(({ run }) => run))).toEqual(new Set([0]));
    }
  });
});

test('boards, and gardens, do not know of each other', async () => {
  const mailbox = newMailbox();
  for (const [garden, board] of [
    ['hare', 'roof'],
    ['hare', 'stern'],
    ['boat', 'roof'],
  ] as const)
    expect(await mailbox.put(garden, report(1, { board }), NOON)).toMatchObject({ kind: 'kept' });
  expect(mailbox.after('hare', 0, 9).map(({ n, boardId }) => [n, boardId])).toEqual([
    [1, 'roof'],
    [2, 'stern'],
  ]);
  expect(mailbox.after('boat', 0, 9).map(({ n }) => n)).toEqual([1]);
  await mailbox.close();
});
