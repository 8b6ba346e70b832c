import type { KeyboardEvent } from 'react';
import { formatCounts } from '@plain-trowel/core/quantity/format';
import { BAR_HEIGHT, LEFT, NOW_Y, type Levels } from './levels.ts';
import type { RulerScale } from './rulerScale.ts';

export type RulerPeg = {
  readonly id: string;
  readonly counts: number;
  readonly label: string;
  readonly isOut: boolean;
};
export type RulerNow = {
  readonly counts: number;
  readonly noiseCounts: number;
  /** What it means, in words; null while nothing gives it a meaning, or it stands for itself. */
  readonly means: string | null;
  /** Where a settling reading is foreseen to end, and the interval that holds its end nine times in ten, counts. */
  readonly end: { readonly counts: number; readonly low: number; readonly high: number } | null;
};

const TRAIL_MARKS = 7;
/** Nearer than this, px, a trail would only be a smear beside the plumb line. */
const SHORTEST_TRAIL = 10;

/** Pegs nearer than this, px, have no room for their names side by side. */
const NAME_ROOM = 110;

/** The name of a peg would run into the one before. */
export function isCrowded(pegs: readonly RulerPeg[], scale: RulerScale, at: number): boolean {
  const [before, peg] = [pegs[at - 1], pegs[at]];
  return (
    before !== undefined &&
    peg !== undefined &&
    Math.abs(scale.x(before.counts) - scale.x(peg.counts)) < NAME_ROOM
  );
}

/** The references as pegs under the bar. A name that would run into the one before it hangs a line lower. */
export function Pegs({
  pegs,
  scale,
  width,
  levels,
  onInspect,
}: {
  pegs: readonly RulerPeg[];
  scale: RulerScale;
  width: number;
  levels: Levels;
  /** Given, a peg can be pressed to see what it rests on. */
  onInspect: ((id: string) => void) | undefined;
}) {
  const y = levels.barEnd + 32;
  return (
    <>
      {pegs.map((peg, at) => {
        const x = scale.x(peg.counts);
        const crowded = isCrowded(pegs, scale, at);
        const half = peg.label.length * 3.4;
        return (
          <g
            key={peg.id}
            {...(onInspect
              ? {
                  role: 'button',
                  tabIndex: 0,
                  'aria-label': `Reference ${peg.label}, ${formatCounts(Math.round(peg.counts))} counts. Show the working.`,
                  className: 'cursor-pointer',
                  onClick: () => onInspect(peg.id),
                  onKeyDown: (event: KeyboardEvent) => {
                    if (event.key === 'Enter' || event.key === ' ') {
                      event.preventDefault();
                      onInspect(peg.id);
                    }
                  },
                }
              : {})}
          >
            {onInspect && <rect x={x - 24} y={levels.barEnd + 4} width={48} height={54} fill="transparent" />}
            <line
              x1={x}
              x2={x}
              y1={levels.barY}
              y2={levels.barEnd}
              strokeWidth={1.5}
              className="stroke-steel"
            />
            <path
              d={`M${x - 6} ${y + 9}h12l-6-9z`}
              className={peg.isOut ? 'fill-paper stroke-steel' : 'fill-steel'}
            />
            <text
              x={Math.min(Math.max(x, half), width - half)}
              y={y + (crowded ? 36 : 22)}
              textAnchor="middle"
              className="fill-steel text-[12.5px]"
            >
              {peg.label}
            </text>
          </g>
        );
      })}
    </>
  );
}

/** The reading: a plumb line with its noise as a width; off the ruler, an arrow at the end says so. */
export function Plumb({
  now,
  scale,
  right,
  levels,
}: {
  now: RulerNow;
  scale: RulerScale;
  right: number;
  levels: Levels;
}) {
  const at = scale.x(now.counts);
  const x = Math.min(Math.max(at, LEFT), right);
  const isOff = at < LEFT - 0.5 || at > right + 0.5;
  const half = Math.abs(scale.x(now.counts + now.noiseCounts) - at);
  const wordsLeft = x > (LEFT + right) / 2;
  const words = `now ${formatCounts(now.counts)}${now.means === null ? ' counts' : ` = ${now.means}`}`;
  const bob = isOff
    ? at < LEFT
      ? `M${x + 14} ${NOW_Y - 8}v18l-14-9z`
      : `M${x - 14} ${NOW_Y - 8}v18l14-9z`
    : `M${x - 7} ${NOW_Y - 9}h14v9l-7 8-7-8z`;
  return (
    <g aria-hidden className="text-handle">
      {!isOff && (
        <rect
          x={x - half}
          y={levels.barY}
          width={2 * half}
          height={BAR_HEIGHT}
          fill="currentColor"
          opacity={0.25}
        />
      )}
      {now.end && !isOff && <Trail end={now.end} from={x} scale={scale} right={right} levels={levels} />}
      <line x1={x} x2={x} y1={NOW_Y + 8} y2={levels.barEnd} stroke="currentColor" strokeWidth={2.5} />
      <path d={bob} fill="currentColor" />
      <text
        x={wordsLeft ? x - 16 : x + 16}
        y={NOW_Y + 1}
        textAnchor={wordsLeft ? 'end' : 'start'}
        fill="currentColor"
        className="font-mono text-[13px] font-semibold"
      >
        {isOff ? `${words}, off the ruler` : words}
      </text>
    </g>
  );
}

/** The way a settling reading has still to go: marks that fade towards the end foreseen, an open bob there, and the width of its interval. */
function Trail({
  end,
  from,
  scale,
  right,
  levels,
}: {
  end: NonNullable<RulerNow['end']>;
  from: number;
  scale: RulerScale;
  right: number;
  levels: Levels;
}) {
  const held = (counts: number) => Math.min(Math.max(scale.x(counts), LEFT), right);
  const to = held(end.counts);
  if (Math.abs(to - from) < SHORTEST_TRAIL) return null;
  const [low, high] = [held(end.low), held(end.high)].sort((a, b) => a - b) as [number, number];
  const middle = levels.barY + BAR_HEIGHT / 2;
  return (
    <>
      {Array.from({ length: TRAIL_MARKS }, (_, at) => {
        const along = (at + 1) / (TRAIL_MARKS + 1);
        const x = from + (to - from) * along;
        return (
          <line
            key={at}
            x1={x}
            x2={x}
            y1={middle - 20 * (1 - along) - 3}
            y2={middle + 20 * (1 - along) + 3}
            stroke="currentColor"
            strokeWidth={2}
            opacity={0.85 - 0.65 * along}
          />
        );
      })}
      <path
        d={`M${to - 6} ${levels.barY - 3}h12v7l-6 7-6-7z`}
        className="fill-paper"
        stroke="currentColor"
        strokeWidth={1.5}
      />
      <path
        d={`M${low} ${levels.barEnd - 8}v5h${high - low}v-5`}
        fill="none"
        stroke="currentColor"
        strokeWidth={1.5}
      />
    </>
  );
}
