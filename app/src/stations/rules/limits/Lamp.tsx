import { clsx } from 'clsx';
import type { LampColour, SignalRule } from '@plain-trowel/core/control/signals';

const FILLS: Readonly<Record<LampColour, string>> = {
  off: 'fill-label stroke-ink',
  red: 'fill-handle stroke-handle',
  amber: 'fill-chaff stroke-ink',
  green: 'fill-leaf stroke-leaf',
  blue: 'fill-rill stroke-rill',
  white: 'fill-paper stroke-ink',
};

/** A small lamp as drawn: lit with rays, or dark. What it says stands beside it in words. */
export function Lamp({ colour, className }: { colour: LampColour; className?: string }) {
  return (
    <svg
      width="16"
      height="16"
      viewBox="0 0 16 16"
      aria-hidden
      className={clsx('inline-block shrink-0', className)}
    >
      {colour !== 'off' && <path d="M8 0v3M8 13v3M0 8h3M13 8h3" strokeWidth="1.5" className="stroke-ink" />}
      <rect x="4.5" y="4.5" width="7" height="7" strokeWidth="1.25" className={FILLS[colour]} />
    </svg>
  );
}

/** "red, slow blink" */
export const lampWords = ({ lamp, rhythm }: Pick<SignalRule, 'lamp' | 'rhythm'>): string =>
  lamp === 'off' ? 'off' : rhythm === 'steady' ? lamp : `${lamp}, ${rhythm}`;
