/** Made-up layouts: nearly all are read right at once, what is in doubt is asked, and none is read wrong without a word. */
import { expect, test } from 'vitest';
import { judgeLayout } from './layoutsForTests.ts';

test('of 300 made-up layouts 95 in 100 are right at once, and none is wrong in silence', () => {
  const judged = Array.from({ length: 300 }, (_, at) => ({ seed: at + 1, ...judgeLayout(at + 1) }));
  const worst = judged
    .filter(({ verdict }) => verdict !== 'right')
    .map(({ seed, why, about }) => `${seed} ${why}: ${about}`);
  expect(
    judged.filter(({ verdict }) => verdict === 'wrong'),
    worst.join('\n'),
  ).toEqual([]);
  expect(judged.filter(({ verdict }) => verdict === 'right').length, worst.join('\n')).toBeGreaterThanOrEqual(
    285,
  );
});
