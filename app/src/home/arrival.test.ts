import { expect, test } from 'vitest';
import { arrivalPath, readArrival } from './arrival.ts';

const arrival = { gardenId: 'marigold-hare', token: '0123456789abcdef0123456789abcdef01234567' };

test('what a phone reads is what was shown', () => {
  const path = arrivalPath(arrival);
  expect(readArrival(path.slice(path.indexOf('#')))).toEqual(arrival);
});

test.each(['', '#', '#hare', '#hare.12', `#ha/re.${arrival.token}`, `#hare.${arrival.token}x`])(
  '%s is no such address',
  (hash) => {
    expect(readArrival(hash)).toBeNull();
  },
);
