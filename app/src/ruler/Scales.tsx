import { countsAtPercent, type Curve } from '@plain-trowel/core/calibration/curve';
import { formatCounts } from '@plain-trowel/core/quantity/format';
import { percentUnit } from '@plain-trowel/core/quantity/percentKind';
import { LEFT, type Levels } from './levels.ts';
import type { RulerScale } from './rulerScale.ts';

/** Upper edge: percent, with its kind beside it. */
export function PercentScale({
  fit,
  scale,
  right,
  levels,
}: {
  fit: Curve | null;
  scale: RulerScale;
  right: number;
  levels: Levels;
}) {
  if (!fit) return null;
  const range = fit.wetPercent - fit.dryPercent;
  // A number every 5, 10, 20 or more percent, as they have room; a mark at each half and tenth of that.
  const every = [5, 10, 20, 50, 100].find((step) => ((right - LEFT) * step) / range > 44) ?? 200;
  const mark = every / 5;
  const first = Math.ceil(fit.dryPercent / mark - 1e-9);
  const percents = Array.from(
    { length: Math.max(0, Math.floor(fit.wetPercent / mark + 1e-9) - first + 1) },
    (_, at) => (first + at) * mark,
  );
  const wordsRoom = 7.5 * percentUnit(fit.percentKind).length + (fit.wetPercent === 100 ? 36 : 14);
  return (
    <>
      {percents.map((percent) => {
        const x = scale.x(countsAtPercent(fit, percent));
        const length = percent % every === 0 ? 12 : 5;
        return (
          <g key={percent}>
            <line x1={x} x2={x} y1={levels.barY} y2={levels.barY - length} className="stroke-ink" />
            {percent % every === 0 && x < right - wordsRoom && (
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
        {fit.wetPercent === 100 && <tspan className="fill-ink font-mono">100 </tspan>}
        {percentUnit(fit.percentKind)}
      </text>
    </>
  );
}

/** Lower edge: the numbers as the board sees them, raw counts mostly; they may fall to the right. */
export function RawScale({
  scale,
  right,
  levels,
  unit,
}: {
  scale: RulerScale;
  right: number;
  levels: Levels;
  unit: string;
}) {
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
        {unit}
      </text>
    </>
  );
}
