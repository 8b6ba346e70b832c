/** A slice of what `npm run bench` prints: what is sound is never accused, what is spoilt is found, and the planner does no harm. */
import { expect, test } from 'vitest';
import { randomGardens } from './randomGardens.ts';
import { sabotage } from './run.ts';

const [SEEDS, GARDENS] = process.env.TROWEL_LONG ? [300, 2000] : [10, 25];
const LONG_MS = process.env.TROWEL_LONG ? 1_800_000 : 60_000;

test(
  `of ${SEEDS} sound wirings none is accused, and of what is spoilt in them all but a fiftieth is found, with the right part`,
  () => {
    const { accused, scores } = sabotage(SEEDS);
    expect(accused).toEqual([]);
    const sum = (of: (score: { tried: number; found: number; named: number }) => number) =>
      [...scores.values()].reduce((all, one) => all + of(one), 0);
    const tried = sum((one) => one.tried);
    expect(tried).toBeGreaterThan(200);
    expect(sum((one) => one.found)).toBeGreaterThanOrEqual(0.98 * tried);
    expect(sum((one) => one.named)).toBeGreaterThanOrEqual(0.95 * tried);
  },
  LONG_MS,
);

test(
  `after each "Wire what is open" in ${GARDENS} random gardens there is no fault, or nothing changed and the reason is told`,
  () => {
    const { broken, wired, kept } = randomGardens(GARDENS);
    expect(broken).toEqual([]);
    expect(Math.min(wired, kept)).toBeGreaterThan(5);
  },
  LONG_MS,
);
