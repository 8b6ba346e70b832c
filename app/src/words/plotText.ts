import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { depthText } from './unitText.ts';

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
