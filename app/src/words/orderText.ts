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

/** A line for a board's console, as a person would say it: "give 2 120" is "120 ml from the chilli pump". */
export function orderText(text: string, lineName: (number: number) => string | null): string {
  const [, verb = '', line = '', rest = ''] = /^(give|stop|unlock|skip) (\d+)(?: (\d+))?$/.exec(text) ?? [];
  const name = lineName(Number(line)) ?? `line ${line}`;
  switch (verb) {
    case 'give':
      return `${formatVolume(Number(rest))} from ${name}`;
    case 'skip':
      return rest === '0'
        ? `${name} waters by itself again`
        : `skip ${name} for ${formatDuration(Number(rest))}`;
    case 'stop':
      return `stop ${name}`;
    case 'unlock':
      return `unlock ${name}`;
    default:
      return `“${text}”`;
  }
}

/** What has become of an order. */
export function orderStateText({
  state,
  why,
}: {
  readonly state: 'waiting' | 'taken' | 'refused' | 'done' | 'expired';
  readonly why?: string | undefined;
}): string {
  switch (state) {
    case 'waiting':
      return 'waits for the board to fetch it';
    case 'taken':
      return 'taken by the board';
    case 'done':
      return 'done';
    case 'refused':
      return `refused: ${why ?? 'the board does not say why'}`;
    case 'expired':
      return `not given: ${why ?? 'the board did not fetch it in time'}`;
  }
}
