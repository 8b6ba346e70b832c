/** Looks through the whole store, so that damage is known before anything rests on it. */
import { fromRecord } from './checked.ts';
import type { Store } from './store.ts';

export type Inspection = {
  readonly gardens: number;
  readonly entries: number;
  /** Records whose sum is wrong. */
  readonly damaged: number;
  /** Numbers between the oldest and the newest entry at which there is none, beside those known to be missing. */
  readonly missing: number;
};

/** True of a store from which nothing is missing. */
export const isSound = ({ damaged, missing }: Inspection): boolean => damaged === 0 && missing === 0;

/** @throws what the store throws; a damaged one may also end the process, so this is done in one of its own */
export function inspect({ log, gardens }: Store): Inspection {
  let [entries, damaged, missing, count] = [0, 0, 0, 0];
  for (const { key: gardenId, value: garden } of gardens.getRange({})) {
    count += 1;
    let expected: number | null = null;
    let gone = 0;
    for (const { key, value } of log.getRange({
      start: [gardenId, 0],
      end: [gardenId, Number.MAX_SAFE_INTEGER],
    })) {
      const n = key[1];
      gone += n - (expected ?? n);
      expected = n + 1;
      entries += 1;
      if (fromRecord(value)?.gardenId !== gardenId) damaged += 1;
    }
    if (expected !== null) gone += garden.next - expected;
    missing += Math.max(0, gone - garden.gaps);
  }
  return { gardens: count, entries, damaged, missing };
}
