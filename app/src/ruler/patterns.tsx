/** Band patterns, so that no band rests on its colour alone: dots, slanted hatch, plain, waves, dense waves. Drawn once in the page. */
import type { BandName } from '@plain-trowel/core/quantity/bands';

const FILLS: Readonly<Record<BandName, string>> = {
  dry: 'url(#band-dry)',
  low: 'url(#band-low)',
  right: 'var(--leaf-wash)',
  wet: 'url(#band-wet)',
  flooded: 'url(#band-flooded)',
};

export const bandFill = (band: BandName): string => FILLS[band];

export function BandPatterns() {
  return (
    <svg aria-hidden width="0" height="0" className="absolute">
      <defs>
        <pattern id="band-dry" width="7" height="7" patternUnits="userSpaceOnUse">
          <circle cx="2" cy="2" r="1.1" style={{ fill: 'var(--chaff)' }} />
        </pattern>
        <pattern
          id="band-low"
          width="6"
          height="6"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(35)"
        >
          <rect width="1.6" height="6" style={{ fill: 'var(--husk)' }} />
        </pattern>
        <pattern
          id="beyond"
          width="5"
          height="5"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(-45)"
        >
          <rect width="5" height="5" style={{ fill: 'var(--paper)' }} fillOpacity="0.75" />
          <rect width="1" height="5" style={{ fill: 'var(--ink)' }} fillOpacity="0.45" />
        </pattern>
        <pattern id="band-wet" width="14" height="7" patternUnits="userSpaceOnUse">
          <path d="M0 4q3.5-4 7 0t7 0" fill="none" strokeWidth="1.3" style={{ stroke: 'var(--rill)' }} />
        </pattern>
        <pattern id="band-flooded" width="9" height="5" patternUnits="userSpaceOnUse">
          <path d="M0 3q2.25-3 4.5 0t4.5 0" fill="none" strokeWidth="1.4" style={{ stroke: 'var(--deep)' }} />
        </pattern>
      </defs>
    </svg>
  );
}
