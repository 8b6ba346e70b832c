import { expect, test } from 'vitest';
import { planBoard } from './boardPlan.ts';
import type { BoardPlan } from './plan.ts';
import { oneStickOnePump } from './gardenForTests.ts';
import { keptPlaces, recordsADay, wearYears } from './wear.ts';

const planOf = (): BoardPlan => {
  const { garden, boardId } = oneStickOnePump();
  const planned = planBoard(garden, boardId);
  if (!planned.ok) throw new Error('not planned');
  return planned.plan;
};

test('by hand: one line on a kilobyte has 30 places of 34 bytes; three lines have ten, which are too few', () => {
  const plan = planOf();
  expect(keptPlaces(plan, 'C++')).toBe(30);
  const [line] = plan.lines;
  if (!line) throw new Error('no line');
  expect(keptPlaces({ ...plan, lines: [line, line] }, 'C++')).toBe(16);
  expect(keptPlaces({ ...plan, lines: [line, line, line] }, 'C++')).toBe(0);
});

test('a board of another kind keeps nothing in C++, and sixteen files in MicroPython', () => {
  const large = { ...planOf(), traits: '3.3 V Wi-Fi board' };
  expect(keptPlaces(large, 'C++')).toBe(0);
  expect(keptPlaces(large, 'MicroPython')).toBe(16);
});

test('by hand: 600 ml a day by 90 ml are 7 runs, so 24 + 28 records, and 100 000 writes of 30 places last 158 years', () => {
  const plan = planOf();
  const lines = plan.engine.lines.map((one) => ({ ...one, guards: { ...one.guards, dailyMaxMl: 600 } }));
  const by600 = { ...plan, engine: { ...plan.engine, lines } };
  expect(recordsADay(by600)).toBe(52);
  expect(wearYears(by600, 30)).toBe(158);
});
