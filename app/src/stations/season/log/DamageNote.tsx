import { isoOf } from '@plain-trowel/core/quantity/moment';
import { formatNumber } from '@plain-trowel/core/quantity/format';

/** What of the record shown cannot be read: it is left where it is, and everything else is shown. */
export function DamageNote({ days, events }: { days: readonly number[]; events: number }) {
  if (days.length === 0 && events === 0) return null;
  const parts = [
    days.length > 0
      ? `The readings of ${days.map((day) => isoOf(day).slice(0, 10)).join(', ')} (UTC) cannot be read: the browser's record of ${days.length === 1 ? 'that day is' : 'those days is'} damaged.`
      : '',
    events > 0
      ? `${formatNumber(events)} ${events === 1 ? 'event' : 'events'} of this stretch cannot be read.`
      : '',
  ].filter((part) => part !== '');
  return (
    <p role="alert" className="my-2 max-w-[68ch] border-l-[3px] border-handle pl-3 text-[14.5px]">
      {parts.join(' ')} Nothing is written over them; the rest is shown.
    </p>
  );
}
