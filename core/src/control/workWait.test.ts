import { expect, test } from 'vitest';
import { workWait } from './workWait.ts';

test('340 of 900 seconds passed: 560 to wait; past the interval: none', () => {
  expect(workWait(900, 340).value).toBe(560);
  expect(workWait(900, 1000).value).toBe(0);
});
