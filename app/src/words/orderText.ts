import type { OrderOutlook } from '@plain-trowel/core/control/orderOutlook';
import { formatDuration, formatVolume } from '@plain-trowel/core/quantity/format';

/** What an order will bring, before it is given. */
export function outlookText({ comesMl, runS, cut }: OrderOutlook): string {
  if (cut === 'tank-low') return 'Nothing would come: the tank is below its minimum.';
  if (cut === 'tank-unknown') return 'Nothing would come: nobody knows how full the tank is.';
  if (cut === 'other-line-runs') return 'Nothing would come: another line of this board is running.';
  if (runS === 0) return 'Nothing would come: the day has had its maximum.';
  const comes = `${formatVolume(comesMl)} will come, in ${formatDuration(runS)}`;
  if (cut === null) return `${comes}.`;
  return cut === 'max-run'
    ? `${comes}: the maximum run ends it.`
    : `${comes}: no more is left of the day’s maximum.`;
}
