import type { ColourTag } from '@plain-trowel/core/wiring/netlist';

/** A small flag in the colour of a tag; the word stands beside it wherever it decides something. */
export const ColourFlag = ({ colour }: { colour: ColourTag }) => (
  <span
    aria-hidden
    className="inline-block h-[11px] w-[9px] shrink-0 border border-ink"
    style={{ background: colour === 'none' ? 'transparent' : `var(--tag-${colour})` }}
  />
);
