import { formatCounts, formatDuration, formatNumber } from '@plain-trowel/core/quantity/format';
import type { Settling, SettlingVerdict } from '@plain-trowel/core/settling/settlingWatch';

export const VERDICT_WORDS: Readonly<Record<SettlingVerdict, string>> = {
  watching: 'watching',
  settling: 'settling',
  stopped: 'stopped moving',
  steady: 'steady',
  drifting: 'drifting',
  disturbed: 'disturbed',
};

/** What the verdict means for the person at the bench, in one sentence. */
export function verdictText(settling: Settling): string {
  switch (settling.verdict) {
    case 'watching':
      return 'A word on it after a few more readings.';
    case 'settling':
      if (!settling.end) return 'Too early to say where it ends; leave it alone and watch.';
      return settling.left?.likelyS === 0
        ? 'It looks calm, and a slow drift is not ruled out yet.'
        : 'Still on its way; a value taken now is wrong.';
    case 'stopped':
      return 'Within 1 % of its span, as far as can be seen: good for air and water.';
    case 'steady':
      return 'It has been watched at rest: this value can be trusted.';
    case 'drifting':
      return `It goes on by ${formatNumber(settling.driftCountsPerMin, 1)} counts a minute with no end in sight: soil that dries, a probe that warms, a poor contact.`;
    case 'disturbed':
      return 'Something has just changed it. Leave it alone for a few readings.';
  }
}

/** "40 s, 2 min at most". */
export function waitText(left: NonNullable<Settling['left']>): string {
  if (left.likelyS === 0)
    return left.atMostS === 0
      ? 'none'
      : `perhaps none${Number.isFinite(left.atMostS) ? `, ${formatDuration(left.atMostS)} at most` : ''}`;
  const likely = Number.isFinite(left.likelyS)
    ? left.likelyS < 1
      ? 'under 1 s'
      : `about ${formatDuration(left.likelyS)}`
    : 'longer than can be said';
  return Number.isFinite(left.atMostS) && left.atMostS >= 1 && left.atMostS > left.likelyS * 1.2
    ? `${likely}, ${formatDuration(left.atMostS)} at most`
    : likely;
}

/** "1 498 to 1 530". */
export const intervalText = (end: NonNullable<Settling['end']>): string =>
  `${formatCounts(Math.round(end.low))} to ${formatCounts(Math.round(end.high))}`;
