import { expect, test } from 'vitest';
import { firstChannel, onePlot } from '../edits/gardenForTests.ts';
import { readingsOfLog } from './logReadings.ts';

const garden = onePlot();
const { id, boardId } = firstChannel(garden);
const T0 = Date.UTC(2026, 4, 1, 9);
const line = (afterS: number, text: string, board = boardId) => ({
  boardId: board,
  text,
  atMs: T0 + afterS * 1000,
});
const rows = (lines: Parameters<typeof readingsOfLog>[1]) =>
  [...readingsOfLog(garden, lines, 2)].map(([channel, list]) => [
    channel,
    ...list.map((one) => [(one.timeMs - T0) / 1000, one.raw, one.flags]),
  ]);

test('one reading per channel and log interval is kept, the first at once', () => {
  const lines = [line(0, 'm1=1'), line(4, 'm1=2'), line(10, 'm1=3'), line(19, 'm1=4'), line(20, 'm1=5')];
  expect(rows(lines)).toEqual([[id, [0, 1, 2], [10, 3, 2], [20, 5, 2]]]);
});

test('other boards, other names, chatter and impossible times or values are left out', () => {
  const lines = [
    line(0, 'm1=1', 'elsewhere'),
    line(0, 'x9=1'),
    line(0, 'ready'),
    line(0, 'm1=1e12'),
    { boardId, text: 'm1=7', atMs: 5 },
  ];
  expect(rows(lines)).toEqual([]);
});

test('a header names the columns of the lines behind it', () => {
  expect(rows([line(0, 'm1;x9'), line(1, '5;6')])).toEqual([[id, [1, 5, 2]]]);
});

test('a clock that was set back goes on from there', () => {
  expect(rows([line(60, 'm1=1'), line(5, 'm1=2')])).toEqual([[id, [60, 1, 2], [5, 2, 2]]]);
});
