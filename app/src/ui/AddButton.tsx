import type { ComponentProps } from 'react';
import { formatNumber } from '@plain-trowel/core/quantity/format';
import { Button } from './Button.tsx';

/** A button that adds to a list; where the list is full it says so and adds nothing. */
export function AddButton({
  count,
  most,
  what,
  disabled,
  ...rest
}: ComponentProps<typeof Button> & {
  /** How many there are, and how many there may be. */
  count: number;
  most: number;
  /** What the list holds, in the plural: "outlets". */
  what: string;
}) {
  const isFull = count >= most;
  return (
    <span className="inline-flex flex-wrap items-center gap-x-3">
      <Button {...rest} disabled={isFull || disabled} />
      {isFull && (
        <span className="text-[13px] text-soft">
          {formatNumber(most)} {what} are the most that can be kept. Remove one first.
        </span>
      )}
    </span>
  );
}
