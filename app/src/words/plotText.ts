import type { PlotState } from '@plain-trowel/core/control/plotState';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { formatCounts, formatPercent } from '@plain-trowel/core/quantity/format';
import type { PlotView } from '../links/plotView.ts';
import { depthText } from './unitText.ts';

/** One or two words for how a plot stands. */
export function stateWord(state: PlotState): string {
  switch (state) {
    case 'dry':
    case 'low':
    case 'right':
    case 'wet':
    case 'flooded':
      return state;
    case 'no-probe':
      return 'no probe';
    case 'no-reading':
      return 'no reading yet';
    case 'stale':
      return 'silent';
    case 'implausible':
      return 'probe fault';
    case 'not-calibrated':
      return 'not calibrated';
  }
}

/** The line on a plot's label: "right, 47.2 % span". */
export function labelLine(view: PlotView): string {
  const word = stateWord(view.state);
  const isBand = view.span !== null && view.state !== 'implausible' && view.state !== 'stale';
  // Of a comparator the word says it all.
  if (!isBand || !view.scale || view.scale.percentKind === 'switch') return word;
  // Where raw counts decide alone the reading itself is the number, beyond the scale too.
  const isRaw = view.scale.percentKind === 'counts' && view.rawCounts !== null;
  return `${word}, ${isRaw ? `${formatCounts(Math.round(view.rawCounts))} counts` : formatPercent(view.span.percent, view.scale)}`;
}

/** What is in a plot, in one sentence: kind, tag, depth, board. */
export function probeLine(parts: PlotParts): string {
  const { probe, board, channel } = parts;
  if (!probe) return 'No probe yet.';
  const tag = probe.colour === 'none' ? '' : `, ${probe.colour} tag`;
  const kind = probe.kind.charAt(0).toUpperCase() + probe.kind.slice(1);
  const where =
    board && channel
      ? ` ${board.name}${channel.pin ? `, ${channel.pin}` : ''}, ${board.adcBits}-bit at ${board.supplyV} V.`
      : '';
  return `${kind}${tag}, ${depthText(probe.depthCm)} deep.${where}`;
}
