import { expect, test } from 'vitest';
import { runVolume } from './runVolume.ts';

test('15 s at 9 ml/s are 135 ml at most', () => {
  expect(runVolume({ maxRunS: 15, flowMlPerS: 9 })).toMatchObject({ value: 135, unit: 'ml' });
});
