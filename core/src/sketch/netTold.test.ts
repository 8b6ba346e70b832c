import { expect, test } from 'vitest';
import { consoleHex, readGatewayAddress } from './netTold.ts';

test.each([
  ['192.168.1.5:4860', '192.168.1.5:4860'],
  [' 192.168.1.5 ', '192.168.1.5:4860'],
  ['http://10.0.0.9:80/', '10.0.0.9:80'],
  ['192.168.1.5:0', null],
  ['192.168.1.5:70000', null],
  ['192.168.1.256', null],
  ['gateway.example:4860', null],
  ['https://10.0.0.9', null],
  ['10.0.0.9/x', null],
  ['', null],
])('%j is %j to a board', (typed, address) => expect(readGatewayAddress(typed)).toBe(address));

// U+00E9 is c3 a9 in UTF-8, U+1F41B f0 9f 90 9b.
test('any letters can be told', () => expect(consoleHex('a é🐛')).toBe('6120c3a9f09f909b'));

test('without a port it is the usual one of the way that the board reports', () =>
  expect(readGatewayAddress('10.0.0.9', 'mqtt')).toBe('10.0.0.9:4861'));
