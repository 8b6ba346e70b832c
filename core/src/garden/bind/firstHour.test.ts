import { expect, test } from 'vitest';
import { firstLine, onePlot } from '../edits/gardenForTests.ts';
import { firstSteps, mayArm } from './firstHour.ts';

const line = firstLine(onePlot({ pump: { flowMlPerS: 10 } }));
const AT = '2026-05-01T10:00:00Z';
const trial = (id: string, runS: number, volumeMl: number) => ({
  id,
  runS,
  volumeMl,
  used: true,
  takenAt: AT,
  simulated: false,
  rig: line.rig,
});
const trials = [trial('a', 5, 50), trial('b', 10, 101), trial('c', 20, 199)];
const ids = (of: typeof line) => firstSteps(of).map((one) => `${one.id}${one.isDone ? ' done' : ''}`);

test('a pump by a probe: a jug, a probe that is out, a run that was watched; with a tank, one that is low', () => {
  expect(ids(line)).toEqual(['jug', 'probeOutAt', 'watchedAt']);
  expect(ids({ ...line, tankId: 'tank' })).toEqual(['jug', 'probeOutAt', 'tankLowAt', 'watchedAt']);
  expect(ids({ ...line, program: { kind: 'timer', slots: [{ minute: 1, days: 127 }], doseMl: 50 } })).toEqual(
    ['jug', 'watchedAt'],
  );
});

test('it may water by itself once all of it was seen, or for a reason', () => {
  const seen = { ...line, trials, firstHour: { ...line.firstHour, probeOutAt: AT, watchedAt: AT } };
  expect(mayArm(seen)).toBe(true);
  expect(mayArm({ ...seen, tankId: 'tank' })).toBe(false);
  expect(mayArm({ ...seen, trials: [] })).toBe(false);
  expect(mayArm(line)).toBe(false);
  expect(mayArm({ ...line, firstHour: { ...line.firstHour, overruled: ' ' } })).toBe(false);
  expect(
    mayArm({ ...line, firstHour: { ...line.firstHour, overruled: 'a valve of the mains, tried for years' } }),
  ).toBe(true);
});
