import { expect, test } from 'vitest';
import { planBoard } from './boardPlan.ts';
import type { BoardPlan } from './plan.ts';
import { changedFields, changedLines } from './changes.ts';
import { oneStickOnePump } from './gardenForTests.ts';
import { cppSketch } from './cpp.ts';
import { pythonSettings } from './python.ts';

const { garden, boardId } = oneStickOnePump();
const planned = planBoard(garden, boardId);
if (!planned.ok) throw new Error('not planned');
const { plan } = planned;
const withGuards = (guards: object): BoardPlan => ({
  ...plan,
  engine: {
    ...plan.engine,
    lines: plan.engine.lines.map((line) => ({ ...line, guards: { ...line.guards, ...guards } })),
  },
});
const before = pythonSettings(plan, '2026-05-01');

test('another day, other words in comments: nothing has changed', () => {
  expect(changedLines(before, pythonSettings({ ...plan, garden: 'Another' }, '2026-06-01'))).toBeNull();
});

test('a guard that is changed is one setting, before and after', () => {
  const lines = changedLines(
    before,
    pythonSettings(withGuards({ maxRunS: 61, noRiseTimes: 9 }), '2026-06-01'),
  );
  expect(changedFields(lines ?? [])).toEqual([
    { name: 'max_run_s', before: '20', after: '61' },
    { name: 'no_rise_times', before: '3', after: '9' },
  ]);
  expect(lines?.filter((line) => line.kind === 'same').length).toBeGreaterThan(2);
});

test('another pin is told by the lines that went and came', () => {
  const moved = {
    ...plan,
    lines: plan.lines.map((one) => ({ ...one, output: { ...one.output, activeLow: true } })),
  };
  const lines = changedLines(before, pythonSettings(moved, '2026-05-01')) ?? [];
  expect(
    lines.filter((line) => line.kind !== 'same').map(({ kind, text }) => `${kind} ${text.trim()}`),
  ).toEqual(['gone (5, False, "Roof pump"),', 'new (5, True, "Roof pump"),']);
});

test('a field is told by its name and value, with or without a comma, and nothing else is one', () => {
  const change = (text: string) => ({ kind: 'gone', text }) as const;
  const now = (text: string) => ({ kind: 'new', text }) as const;
  expect(changedFields([change('ADC_BITS = 10'), now('ADC_BITS = 12')])).toEqual([
    { name: 'ADC_BITS', before: '10', after: '12' },
  ]);
  expect(changedFields([change('    table=((1, 2),),'), now('    table=((1, 3),),')])).toEqual([
    { name: 'table', before: '((1, 2),)', after: '((1, 3),)' },
  ]);
  expect(changedFields([change('    program=Fields('), now('    program=Fields(')])).toEqual([]);
  expect(changedFields([change('    Mixed=1,'), now('    Mixed=2,')])).toEqual([]);
});

test('in C++ a guard that is changed is told by the same name, from what stands behind its value', () => {
  const lines = changedLines(
    cppSketch(plan, '2026-05-01'),
    cppSketch(withGuards({ maxRunS: 61, noRiseTimes: 9 }), '2026-06-01'),
  );
  expect(changedFields(lines ?? [])).toEqual([
    { name: 'max_run_s', before: '20', after: '61' },
    { name: 'no_rise_times', before: '3', after: '9' },
  ]);
  expect(
    changedLines(cppSketch(plan, '2026-05-01'), cppSketch({ ...plan, garden: 'Another' }, '2026-06-01')),
  ).toBeNull();
});
