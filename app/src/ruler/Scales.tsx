import { countsAtPercent, type TwoPoint } from '@plain-trowel/core/calibration/twoPoint';
import { formatCounts } from '@plain-trowel/core/quantity/format';
import { LEFT, type Levels } from './levels.ts';
import type { RulerScale } from './rulerScale.ts';

/** Upper edge: percent, with its kind beside it. */
export function PercentScale({
  fit,
  scale,
  right,
  levels,
}: {
  fit: TwoPoint | null;
  scale: RulerScale;
  right: number;
  levels: Levels;
}) {
  if (!fit) return null;
  const percents = Array.from({ length: 51 }, (_, at) => at * 2);
  // A number every 10 %, or every 20 % where 10 would run into each other.
  const every = scale.x(countsAtPercent(fit, 10)) - scale.x(countsAtPercent(fit, 0)) > 34 ? 10 : 20;
  return (
    <>
      {percents.map((percent) => {
        const x = scale.x(countsAtPercent(fit, percent));
        const length = percent % every === 0 ? 12 : percent % 10 === 0 ? 9 : 5;
        return (
          <g key={percent}>
            <line x1={x} x2={x} y1={levels.barY} y2={levels.barY - length} className="stroke-ink" />
            {percent % every === 0 && percent < 100 && (
              <text
                x={x}
                y={levels.percentY}
                textAnchor="middle"
                className="fill-ink font-mono text-[12.5px]"
              >
                {percent}
              </text>
            )}
          </g>
        );
      })}
      <text x={right} y={levels.percentY} textAnchor="end" className="fill-soft text-[12.5px]">
        <tspan className="fill-ink font-mono">100</tspan> % span
      </text>
    </>
  );
}

/** Lower edge: raw counts as the board sees them; they may fall to the right. */
export function RawScale({ scale, right, levels }: { scale: RulerScale; right: number; levels: Levels }) {
  return (
    <>
      {scale.ticks.map((tick) => {
        const x = scale.x(tick.counts);
        const length = tick.level === 'major' ? 12 : tick.level === 'middle' ? 9 : 5;
        // The last number would run into the words at the right end.
        const numbered = tick.level === 'major' && x < right - 92;
        return (
          <g key={tick.counts}>
            <line x1={x} x2={x} y1={levels.barEnd} y2={levels.barEnd + length} className="stroke-ink" />
            {numbered && (
              <text
                x={Math.max(x, LEFT + 8)}
                y={levels.barEnd + 26}
                textAnchor="middle"
                className="fill-ink font-mono text-[12.5px]"
              >
                {formatCounts(tick.counts)}
              </text>
            )}
          </g>
        );
      })}
      <text x={right} y={levels.barEnd + 26} textAnchor="end" className="fill-soft text-[12.5px]">
        raw counts
      </text>
    </>
  );
}
