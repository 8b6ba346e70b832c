import { describe, expect, test } from 'vitest';
import { answerSchema, checkReport, type Answer } from '@plain-trowel/core/protocol/report';
import { REASONS } from '@plain-trowel/core/control/contract/reasons';
import { readTalk } from '@plain-trowel/core/sketch/talk';
import { marigoldHare } from '../sample/marigoldHare.ts';
import { NetBoards } from './netBoards.ts';
import { saidOfLine, skipOfLine, standingOfLine } from './said.ts';

const NOON = Date.UTC(2026, 10, 28, 12);
const GARDEN = marigoldHare(NOON);
const LINE = GARDEN.waterLines[0];
const BOARD = LINE?.boardId ?? '';

const answer = (seq: number, orders: Answer['orders'] = []): Answer => ({
  seq,
  revision: 0,
  settings: [],
  far: [],
  orders,
  clock: null,
  sun: null,
  everyS: 10,
});
const boards = () => new NetBoards(GARDEN, NOON, 5);

describe('a stand-in on the network', () => {
  test('reports what its probes say, by their age, in words that the page reads', () => {
    const all = boards();
    all.live(NOON + 10_000);
    const report = all.report(BOARD, NOON + 10_000);
    expect(checkReport(report)).toMatchObject({ ok: true });
    expect(report).toMatchObject({ board: BOARD, boot: 5, seq: 0, upS: 10 });
    expect(report?.readings.length).toBeGreaterThan(5);
    for (const { agoS } of report?.readings ?? []) expect(agoS).toBeLessThanOrEqual(10);
    for (const { text } of report?.said ?? []) expect(readTalk(text)).not.toBeNull();
  });
  test('sends the same again under its number until it is answered, then what is new', () => {
    const all = boards();
    all.live(NOON + 10_000);
    const first = all.report(BOARD, NOON + 10_000);
    all.live(NOON + 20_000);
    const again = all.report(BOARD, NOON + 20_000);
    expect(again?.seq).toBe(0);
    expect(again?.readings.map(({ v }) => v)).toEqual(first?.readings.map(({ v }) => v));
    expect(again?.readings[0]?.agoS).toBeCloseTo((first?.readings[0]?.agoS ?? 0) + 10, 5);
    all.answered(BOARD, answer(0));
    const next = all.report(BOARD, NOON + 20_000);
    expect(next?.seq).toBe(1);
    expect(Math.max(...(next?.readings ?? []).map(({ agoS }) => agoS))).toBeLessThanOrEqual(10);
  });
  test('does an order once, however often it is told, and says what came of it', () => {
    const all = boards();
    const stop = { id: 'o1', text: 'stop 1', liveS: 60 };
    all.live(NOON + 10_000);
    all.report(BOARD, NOON + 10_000);
    all.answered(BOARD, answer(0, [stop]));
    all.live(NOON + 12_000);
    all.settleOrders();
    expect(all.report(BOARD, NOON + 12_000)?.orders).toEqual([{ id: 'o1', state: 'taken' }]);
    all.answered(BOARD, answer(1, [stop]));
    all.live(NOON + 14_000);
    all.settleOrders();
    expect(all.report(BOARD, NOON + 14_000)?.orders).toEqual([]);
  });
  test.each(['set 1 start 30', 'give 9 10', 'give 1', 'load', ''])('does not do %j, and says so', (text) => {
    const all = boards();
    all.live(NOON + 2000);
    all.report(BOARD, NOON + 2000);
    all.answered(BOARD, answer(0, [{ id: 'o1', text, liveS: 60 }]));
    expect(all.report(BOARD, NOON + 4000)?.orders).toMatchObject([{ id: 'o1', state: 'refused' }]);
  });
  test('gives the water that it was told to give, or says why not', () => {
    const all = boards();
    all.live(NOON + 2000);
    all.report(BOARD, NOON + 2000);
    all.answered(BOARD, answer(0, [{ id: 'o1', text: 'give 1 50', liveS: 60 }]));
    all.live(NOON + 60_000);
    all.settleOrders();
    const report = all.report(BOARD, NOON + 60_000);
    const [order] = report?.orders ?? [];
    const told = (report?.said ?? []).map(({ text }) => text.split(' ').slice(1, 3).join(' '));
    expect(order?.state === 'taken' ? told.includes('started 1') : told.includes('refused 1')).toBe(true);
  });
});

test('an answer in these tests is one', () => {
  expect(answerSchema.safeParse(answer(1, [{ id: 'o1', text: 'stop 1', liveS: 5 }])).success).toBe(true);
});

test('whatever a stand-in says of a line is read back as it was meant', () => {
  for (const reason of REASONS) {
    for (const told of [
      { kind: 'started', reason, tenths: 315 },
      { kind: 'started', reason, tenths: null },
      { kind: 'stopped', reason, ranS: 9, volumeMl: 81 },
      { kind: 'held', reason },
      { kind: 'refused', reason },
      { kind: 'locked', reason },
    ] as const)
      expect(readTalk(saidOfLine(told, 2, 9))).toMatchObject({ kind: 'event', line: 2, told });
    const standing = {
      isOn: false,
      reason,
      runningSinceMs: null,
      plannedS: null,
      mayStartAtMs: null,
      givenMl: 120,
      pulses: 0,
      isLocked: true,
      skippedUntilMs: 90_500,
      noRise: 0,
    };
    expect(readTalk(standingOfLine(standing, 1))).toMatchObject({
      kind: 'line',
      line: 1,
      runs: false,
      reason,
      todayMl: 120,
      locked: true,
    });
    expect(skipOfLine(standing, 1, 500).map((one) => readTalk(one))).toEqual([
      { kind: 'skip', line: 1, leftS: 90 },
    ]);
  }
});
