import { expect, test } from 'vitest';
import { remembered, rememberedNumbers } from './remembered.ts';

test('each thing is worked out once, also where nothing comes of it', () => {
  const asked: string[] = [];
  const of = remembered((thing: { readonly name: string }) => {
    asked.push(thing.name);
    return thing.name === 'empty' ? undefined : thing.name.length;
  });
  const [pot, empty] = [{ name: 'pot' }, { name: 'empty' }];
  expect([of(pot), of(empty), of(pot), of(empty)]).toEqual([3, undefined, 3, undefined]);
  expect(asked).toEqual(['pot', 'empty']);
});

test('another thing that says the same is another thing', () => {
  let times = 0;
  const of = remembered<object, number>(() => (times += 1));
  expect([of({}), of({})]).toEqual([1, 2]);
});

test('a function of a number is asked once for each, and anew when too many were', () => {
  const asked: number[] = [];
  const twice = rememberedNumbers((number) => {
    asked.push(number);
    return number * 2;
  }, 2);
  expect([1, 2, 1, 2].map(twice)).toEqual([2, 4, 2, 4]);
  expect(asked).toEqual([1, 2]);
  expect([3, 1].map(twice)).toEqual([6, 2]);
  expect(asked).toEqual([1, 2, 3, 1]);
});
