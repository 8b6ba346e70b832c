import { formatNumber } from '@plain-trowel/core/quantity/format';

const said = (one: string, more: string) => (count: number) =>
  `${formatNumber(count)} ${count === 1 ? one : more}`;
const daysText = said('day', 'days');

const TEXTS = {
  readings: said('reading', 'readings'),
  /** Of a day only some may be meant. */
  days: (count: number) => `readings of ${daysText(count)}`,
  events: said('event', 'events'),
  photos: said('photo', 'photos'),
} as const;

type Counts = Partial<Record<keyof typeof TEXTS, number>>;

const KINDS = Object.keys(TEXTS) as (keyof typeof TEXTS)[];

/** "3 readings, 1 event and 2 photos"; what there is none of is not named. Empty where there is nothing. */
export function countedText(counts: Counts): string {
  const parts = KINDS.flatMap((kind) => {
    const count = counts[kind] ?? 0;
    return count === 0 ? [] : [TEXTS[kind](count)];
  });
  const last = parts.pop() ?? '';
  return parts.length === 0 ? last : `${parts.join(', ')} and ${last}`;
}

/** Whether it is a single thing: "1 reading waits", "2 readings wait". */
export const isOne = ({ readings = 0, days = 0, events = 0, photos = 0 }: Counts): boolean =>
  days === 0 && readings + events + photos === 1;
