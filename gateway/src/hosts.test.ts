import { expect, test } from 'vitest';
import { isLoopback, ownNames } from './hosts.ts';

test.each([
  ['127.0.0.1', true],
  ['127.0.0.53', true],
  ['localhost', true],
  ['::1', true],
  ['0.0.0.0', false],
  ['192.168.1.5', false],
  ['12.7.0.1', false],
])('%s is %j an address that only this machine reaches', (host, is) => expect(isLoopback(host)).toBe(is));

test('on this machine alone it answers to this machine’s names, and to one that it was given', () => {
  expect([...ownNames('127.0.0.1', null)].sort()).toEqual(['127.0.0.1', '[::1]', 'localhost']);
  expect(ownNames('127.0.0.1', 'garden.example').has('garden.example')).toBe(true);
});

test('in a network it answers to its addresses too, never to any name at all', () => {
  const names = ownNames('0.0.0.0', null);
  expect(names.has('127.0.0.1')).toBe(true);
  expect(names.has('garden.example')).toBe(false);
  expect(names.size).toBeGreaterThan(4);
});
