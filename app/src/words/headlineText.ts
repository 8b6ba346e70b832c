import { isAtEnd } from '@plain-trowel/core/handsFree/atRest';
import { formatCounts, formatDuration, formatNumber } from '@plain-trowel/core/quantity/format';
import type { StreamFault } from '@plain-trowel/core/faults/streamFaults';
import type { Silence } from '@plain-trowel/core/live/silence';
import { hasStopped, type Settling } from '@plain-trowel/core/settling/settlingWatch';
import { PROOF_S } from '@plain-trowel/core/settling/rest';

/** Faults after which the number means nothing. */
export const SPOILS: ReadonlySet<StreamFault['kind']> = new Set([
  'clipped',
  'stuck',
  'jumping',
  'beyond-wet',
]);

export type Headline = {
  /** use: it may be taken · wait: not yet · no: not at all. */
  readonly tone: 'use' | 'wait' | 'no';
  readonly says: string;
  readonly more: string;
  /** Share of the way that is behind it, 0..1; null where nobody can say how long it takes. */
  readonly doneFrac: number | null;
};

/** A stream that has stopped: what it said last, and for how long it has said nothing. */
export const silenceText = ({ rawCounts, ageS }: Silence): string =>
  `No line for ${formatDuration(Math.round(ageS))}. The last was ${formatCounts(Math.round(rawCounts))}.`;

/** The one line about a number at the bench, before any figure: whether it may be used, and if not, when. */
export function headlineOf(
  silence: Silence | null,
  settling: Settling | null,
  faults: readonly StreamFault[],
): Headline | null {
  if (silence)
    return {
      tone: 'no',
      says: silenceText(silence),
      more: 'Nothing is said of it until the next line comes.',
      doneFrac: null,
    };
  if (faults.some(({ kind }) => kind === 'open' || kind === 'short'))
    return {
      tone: 'no',
      says: 'Do not use it.',
      more: 'The reading stands at an end of its scale.',
      doneFrac: null,
    };
  // A probe that is stuck is as calm as can be: what is wrong with a stream comes before how still it is.
  if (faults.some(({ kind }) => SPOILS.has(kind)))
    return {
      tone: 'no',
      says: 'Do not use it.',
      more: 'Something is wrong with its stream.',
      doneFrac: null,
    };
  if (faults.length > 0 && hasStopped(settling?.verdict))
    return {
      tone: 'wait',
      says: 'It rests, but look first.',
      more: 'Its stream is not sound.',
      doneFrac: null,
    };
  if (!settling) return null;
  switch (settling.verdict) {
    case 'watching':
      return {
        tone: 'wait',
        says: 'Watching.',
        more: 'A word on it after a few more readings.',
        doneFrac: null,
      };
    case 'settling':
      return movingHeadline(settling);
    case 'steady':
      return {
        tone: 'use',
        says: 'Steady: use it.',
        more: `Watched at rest for ${formatDuration(PROOF_S)} or more.`,
        doneFrac: null,
      };
    case 'stopped':
      return {
        tone: 'use',
        says: 'Stopped moving: good for air and water.',
        more: `In soil a slow creep is not ruled out: that takes ${formatDuration(PROOF_S)} of rest.`,
        doneFrac: null,
      };
    case 'drifting':
      return {
        tone: 'no',
        says: 'It drifts: do not use it.',
        more: `It goes on by ${formatNumber(settling.driftCountsPerMin, 1)} counts a minute with no end in sight: soil that dries, a probe that warms, a poor contact.`,
        doneFrac: null,
      };
    case 'disturbed':
      return {
        tone: 'wait',
        says: 'Just disturbed.',
        more: 'Leave it alone for a few readings.',
        doneFrac: null,
      };
  }
}

/** Where it is heading stands below, with its working. */
function movingHeadline({ end, left, watchedS }: Settling): Headline {
  if (!left || !Number.isFinite(left.likelyS))
    return {
      tone: 'wait',
      says: 'Not steady yet.',
      more: end ? 'Leave it alone.' : 'Too early to say where it ends. Leave it alone.',
      doneFrac: null,
    };
  if (left.likelyS === 0)
    return {
      tone: 'wait',
      says: 'Not steady yet.',
      more: 'It looks calm. A few readings more.',
      doneFrac: null,
    };
  return {
    tone: 'wait',
    says: `Not steady yet, about ${formatDuration(Math.max(1, Math.round(left.likelyS)))}.`,
    more: 'A value taken now is wrong.',
    doneFrac: watchedS / (watchedS + left.likelyS),
  };
}

/**
 * What the button of a capture says: how far off the value may be when it is taken before it has stopped moving.
 * @param counts what would be captured; null while there is too little
 */
export function offerText(
  settling: Settling | null,
  counts: number | null,
  again: boolean,
  isSound: boolean,
): string {
  if (!isSound) return 'Capture in spite of the fault';
  const { end = null } = settling ?? {};
  if (
    settling &&
    hasStopped(settling.verdict) &&
    (counts === null || isAtEnd(counts, end, settling.toleranceCounts))
  )
    return again ? 'Capture again' : 'Capture';
  if (!end || counts === null) return 'Capture early, error not known';
  const offCounts = Math.max(Math.abs(counts - end.low), Math.abs(end.high - counts));
  return `Capture early, ± ${formatNumber(offCounts)}`;
}
