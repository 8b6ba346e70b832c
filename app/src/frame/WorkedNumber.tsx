import { clsx } from 'clsx';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import type { Worked } from '@plain-trowel/core/quantity/worked';
import { putOnSlip, useSlip, useWorked } from './slip.ts';

/** A computed number. Clicked or pressed, it lays its working on the slip. */
export function WorkedNumber({
  id,
  worked,
  lead = false,
  prefix = '',
  shown = `${prefix}${formatNumber(worked.value, worked.decimals)} ${worked.unit}`,
  className,
}: {
  id: string;
  worked: Worked;
  lead?: boolean;
  prefix?: string;
  /** Other words for the same value, such as minutes and seconds. */
  shown?: string;
  className?: string;
}) {
  useWorked(id, worked, lead);
  const { focusedId } = useSlip();
  return (
    <button
      type="button"
      onClick={() => putOnSlip(id, worked)}
      aria-label={`${worked.title}: ${shown}. Show the working.`}
      className={clsx(
        'num rounded-[2px] underline decoration-dotted underline-offset-4',
        focusedId === id ? 'decoration-handle decoration-2' : 'decoration-soft',
        className,
      )}
    >
      {shown}
    </button>
  );
}
