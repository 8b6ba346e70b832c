import { describe, expect, test } from 'vitest';
import { readCircuit } from '../wiring/circuit.ts';
import { measuresOf } from '../wiring/measures.ts';
import { catalogueOf } from '../garden/edits/plan.ts';
import { planBoard } from './boardPlan.ts';
import { checklistOf, isSeen, type BoardShows, type CheckStep } from './checklist.ts';
import { oneStickOnePump } from './gardenForTests.ts';
import { withContacts, withLamps } from './playForTests.ts';
import { readTalk } from './talk.ts';

const { garden, boardId } = oneStickOnePump();
const planned = planBoard(garden, boardId);
if (!planned.ok) throw new Error('not planned');
const steps = checklistOf(garden, planned.plan, measuresOf(readCircuit(garden.wiring, catalogueOf(garden))));
const stepOf = (kind: CheckStep['kind']) => {
  const found = steps.find((one) => one.kind === kind);
  if (!found) throw new Error(kind);
  return found;
};
const channelId = planned.plan.inputs[0]?.channelId ?? '';
const shows = (of: {
  readonly raw?: number;
  readonly percent?: number | null;
  readonly said?: string;
}): BoardShows => ({
  raw: (id) => (id === channelId ? (of.raw ?? null) : null),
  percents: of.percent === undefined ? {} : { c2: of.percent },
  said: (of.said ?? '').split('\n').flatMap((line) => readTalk(line) ?? []),
});

test('in the order of the bench: the meter, the probe in air and in water, the pump, the limits, the guard', () => {
  const kinds = steps.map((one) => one.kind);
  expect(kinds.filter((one) => one === 'meter').length).toBeGreaterThan(2);
  expect(kinds.filter((one) => one !== 'meter')).toEqual([
    'air',
    'water',
    'output',
    'dry',
    'wet',
    'probe-out',
  ]);
});

describe('a step is seen', () => {
  // The stick was calibrated in air at 2900 and in water at 1100 counts; its limits are 40 and 60 %.
  test.each<[CheckStep['kind'], Parameters<typeof shows>[0], boolean]>([
    ['air', { raw: 2900 }, true],
    ['air', { raw: 2985 }, true],
    ['air', { raw: 2700 }, false],
    ['air', {}, false],
    ['water', { raw: 1100 }, true],
    ['water', { raw: 2900 }, false],
    ['output', { said: '# started 1 order 3 s\n# stopped 1 dose-done 3 s 27 ml' }, true],
    ['output', { said: '# started 1 order 3 s\n# stopped 1 stop-order 1 s 9 ml' }, false],
    ['output', { said: '# stopped 2 dose-done 3 s 27 ml' }, false],
    ['dry', { percent: 399 }, true],
    ['dry', { percent: 400 }, false],
    ['dry', { percent: null }, false],
    ['dry', {}, false],
    ['wet', { percent: 600 }, true],
    ['wet', { percent: 599 }, false],
    ['probe-out', { percent: null }, true],
    ['probe-out', { percent: 10 }, false],
    ['probe-out', {}, false],
    ['meter', { raw: 2900, percent: null }, false],
  ])('%s by %o: %s', (kind, of, is) => expect(isSeen(stepOf(kind), shows(of))).toBe(is));

  test('a low tank by the refusal of its own line', () => {
    const step = { id: 't', kind: 'tank-low', line: 1, name: 'Pump', tank: 'Barrel', lineId: 'l' } as const;
    expect(isSeen(step, shows({ said: '# refused 1 tank-low' }))).toBe(true);
    expect(isSeen(step, shows({ said: '# refused 1 daily-max' }))).toBe(false);
    expect(isSeen(step, shows({ said: '# refused 2 tank-low' }))).toBe(false);
  });
});

test('contacts and lamps have steps of their own; a contact is seen to switch, a lamp only by a person', () => {
  const all = checklistOf(garden, withLamps(withContacts(planned.plan)), []);
  const kinds = all.map((one) => one.kind).filter((one) => ['contact', 'lamp', 'buzzer'].includes(one));
  expect(kinds).toEqual(['contact', 'contact', 'lamp', 'lamp', 'buzzer']);
  const light = all.find((one) => one.kind === 'contact' && one.contact === 2);
  const lamp = all.find((one) => one.kind === 'lamp');
  if (!light || !lamp) throw new Error('no step');
  expect(isSeen(light, shows({ said: '# contact 2 on dark' }))).toBe(true);
  expect(isSeen(light, shows({ said: '# contact 1 on below-start' }))).toBe(false);
  expect(isSeen(lamp, shows({ said: '# taken' }))).toBe(false);
});

test('whatever else is read has a step, seen when anything comes; a display only by a person', () => {
  const [stick] = planned.plan.inputs;
  if (!stick) throw new Error('no input');
  const air = { ...stick, channelId: 'air', name: 'air', label: 'Air', reads: 'one-wire' } as const;
  const shown = withLamps(planned.plan);
  const all = checklistOf(garden, { ...shown, inputs: [stick, air] }, []);
  const reads = all.filter((one) => one.kind === 'reads');
  expect(reads).toEqual([{ id: 'reads air', kind: 'reads', channelId: 'air', label: 'Air', name: 'air' }]);
  const [step] = reads;
  if (!step) throw new Error('no step');
  expect(isSeen(step, { raw: () => 21.4, percents: {}, said: [] })).toBe(true);
  expect(isSeen(step, { raw: () => null, percents: {}, said: [] })).toBe(false);
});

test('a probe in a reference is seen as far as its span allows, and not where it has none', () => {
  const step = {
    id: 'a',
    kind: 'air',
    channelId: 'c',
    label: 'C',
    rawCounts: 2900,
    withinCounts: 90,
  } as const;
  const at = (raw: number | null) => ({ raw: () => raw, percents: {}, said: [] });
  expect(isSeen(step, at(2810))).toBe(true);
  expect(isSeen(step, at(2990))).toBe(true);
  expect(isSeen(step, at(2809))).toBe(false);
  expect(isSeen(step, at(null))).toBe(false);
  expect(isSeen({ ...step, rawCounts: null, withinCounts: 1e9 }, at(2900))).toBe(false);
});
