import { expect, test } from 'vitest';
import { orderStateText, orderText } from './orderText.ts';

const name = (number: number) => (number === 2 ? 'the chilli pump' : null);

test.each([
  ['give 2 120', '120 ml from the chilli pump'],
  ['stop 2', 'stop the chilli pump'],
  ['unlock 2', 'unlock the chilli pump'],
  ['give 3 50', '50 ml from line 3'],
  ['skip 2 86400', 'skip the chilli pump for 1 d'],
  ['skip 2 0', 'the chilli pump waters by itself again'],
  ['set 1 start 35.5', '“set 1 start 35.5”'],
])('%s is told as “%s”', (text, said) => {
  expect(orderText(text, name)).toBe(said);
});

test('an order that nobody fetched was not given, and is not called done', () => {
  expect(orderStateText({ state: 'expired' })).toBe('not given: the board did not fetch it in time');
  expect(orderStateText({ state: 'refused', why: 'tank low' })).toBe('refused: tank low');
  expect(orderStateText({ state: 'taken' })).toBe('taken by the board');
});
