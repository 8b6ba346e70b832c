import { formatNumber } from '@plain-trowel/core/quantity/format';

const NAMES = {
  readings: ['reading', 'readings'],
  days: ['day of readings', 'days of readings'],
  events: ['event', 'events'],
  photos: ['photo', 'photos'],
} as const;

type Counts = Partial<Record<keyof typeof NAMES, number>>;

const KINDS = Object.keys(NAMES) as (keyof typeof NAMES)[];

/** "3 readings, 1 event and 2 photos"; what there is none of is not named. Empty where there is nothing. */
export function countedText(counts: Counts): string {
  const parts = KINDS.flatMap((kind) => {
    const count = counts[kind] ?? 0;
    return count === 0 ? [] : [`${formatNumber(count)} ${NAMES[kind][count === 1 ? 0 : 1]}`];
  });
  const last = parts.pop() ?? '';
  return parts.length === 0 ? last : `${parts.join(', ')} and ${last}`;
}

/** Whether it is a single thing: "1 reading waits", "2 readings wait". */
export const isOne = (counts: Counts): boolean =>
  KINDS.reduce((sum, kind) => sum + (counts[kind] ?? 0), 0) === 1;
