import { formatCounts, formatPercent } from '@plain-trowel/core/quantity/format';
import { BAR_HEIGHT, LEFT, NOW_Y, type Levels } from './levels.ts';
import type { RulerScale } from './rulerScale.ts';

export type RulerPeg = { readonly counts: number; readonly label: string };
export type RulerNow = {
  readonly counts: number;
  readonly noiseCounts: number;
  readonly percent: number | null;
};

/** The references as pegs under the bar. A name that would run into the one before it hangs a line lower. */
export function Pegs({
  pegs,
  scale,
  width,
  levels,
}: {
  pegs: readonly RulerPeg[];
  scale: RulerScale;
  width: number;
  levels: Levels;
}) {
  const y = levels.barEnd + 32;
  return (
    <>
      {pegs.map((peg, at) => {
        const x = scale.x(peg.counts);
        const before = pegs[at - 1];
        const crowded = before !== undefined && Math.abs(scale.x(before.counts) - x) < 110;
        const half = peg.label.length * 3.4;
        return (
          <g key={`${at} ${peg.label}`}>
            <line
              x1={x}
              x2={x}
              y1={levels.barY}
              y2={levels.barEnd}
              strokeWidth={1.5}
              className="stroke-steel"
            />
            <path d={`M${x - 6} ${y + 9}h12l-6-9z`} className="fill-steel" />
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
  const words = `now ${formatCounts(now.counts)}${now.percent === null ? ' counts' : ` = ${formatPercent(now.percent, 'span')}`}`;
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
