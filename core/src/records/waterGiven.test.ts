import { expect, test } from 'vitest';
import type { GardenEvent } from './event.ts';
import { waterGiven } from './waterGiven.ts';

const common = { atMs: 0, plotId: 'p', simulated: false };
const run = (volumeMl: number): GardenEvent => ({
  ...common,
  kind: 'pump-stopped',
  reason: 'max-run',
  ranS: 15,
  volumeMl,
});

test('runs and pours add up; starts and notes do not', () => {
  const events: GardenEvent[] = [
    run(135),
    run(90),
    { ...common, kind: 'poured', volumeMl: 50 },
    { ...common, kind: 'pump-started', reason: 'below-start', tenths: 300 },
    { ...common, kind: 'note', text: 'rain' },
  ];
  expect(waterGiven(events)?.value).toBe(275);
  expect(waterGiven(events)?.steps[0]?.inputs.runs?.value).toBe(2);
});

test('no water, no number', () => {
  expect(waterGiven([{ ...common, kind: 'note', text: 'rain' }])).toBeNull();
});
