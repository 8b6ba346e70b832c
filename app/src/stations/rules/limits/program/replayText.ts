import type { Reason } from '@plain-trowel/core/control/contract/reasons';
import type { DayReplay, Stretch } from '@plain-trowel/core/garden/bind/replayDay';
import { formatDuration, formatVolume } from '@plain-trowel/core/quantity/format';
import { reasonText } from '../../../../words/reasonText.ts';

/** At rest because there is nothing to do, not because something holds it. */
const RESTS: ReadonlySet<Reason> = new Set<Reason>([
  'not-below-start',
  'not-due',
  'leader-rests',
  'alert-only',
  'dose-done',
  'above-stop',
  'max-run',
]);

/** Stretches in which the line would have run and something held it. */
export const holdsOf = (replay: DayReplay): readonly Stretch[] =>
  replay.stretches.filter((one) => !one.isOn && !RESTS.has(one.reason));

/** The day in a sentence or two. */
export function replaySentence(replay: DayReplay): string {
  if (replay.readings === 0)
    return 'There are no readings of yesterday for this probe, so nothing can be shown yet. Let the boards log for a day.';
  const ran =
    replay.runs === 0
      ? 'It would not have run.'
      : `It would have run ${replay.runs === 1 ? 'once' : `${replay.runs} times`} and given ${formatVolume(replay.volumeMl)}.`;
  const totals = new Map<Reason, number>();
  for (const one of holdsOf(replay))
    totals.set(one.reason, (totals.get(one.reason) ?? 0) + (one.toMs - one.fromMs) / 1000);
  const [worst] = [...totals].sort((a, b) => b[1] - a[1]);
  return worst && worst[1] >= 60
    ? `${ran} Longest held, for ${formatDuration(worst[1])}: ${reasonText(worst[0])}.`
    : ran;
}
