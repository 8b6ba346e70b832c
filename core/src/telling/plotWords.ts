/** How a plot stands, in a few words: on its label, and in what is sent about it. */
import { isUnknown, type PlotState, type Unknown } from '../control/plotState.ts';
import { bandWord, type WordSchool } from '../quantity/bands.ts';
import { formatCounts, formatPercent } from '../quantity/format.ts';
import type { PlotView } from '../live/plotView.ts';

/** Why nothing is known of a plot. */
export function unknownWhy(why: Unknown): string {
  switch (why) {
    case 'no-probe':
      return 'no probe';
    case 'no-reading':
      return 'no reading yet';
    case 'stale':
      return 'silent';
    case 'implausible':
      return 'probe fault';
    case 'out-of-soil':
      return 'out of the soil?';
    case 'not-calibrated':
      return 'not calibrated';
    case 'void':
      return 'calibration void';
  }
}

/** How a plot stands: the word of its band, or "unknown" and why. */
export const stateWord = (state: PlotState, words: WordSchool = 'five'): string =>
  isUnknown(state) ? `unknown: ${unknownWhy(state)}` : bandWord(state, words);

/** The line on a plot's label: "right, 47.2 % span". */
export function labelLine(view: PlotView): string {
  const word = stateWord(view.state, view.words);
  // Of a comparator the word says it all.
  if (isUnknown(view.state) || !view.span || !view.scale || view.scale.percentKind === 'switch') return word;
  // Where raw counts decide alone the reading itself is the number, beyond the scale too.
  const isRaw = view.scale.percentKind === 'counts' && view.rawCounts !== null;
  return `${word}, ${isRaw ? `${formatCounts(Math.round(view.rawCounts))} counts` : formatPercent(view.span.percent, view.scale)}`;
}
