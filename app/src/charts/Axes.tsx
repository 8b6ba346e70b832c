import type { ScaleLinear } from 'd3-scale';
import { formatNumber } from '@plain-trowel/core/quantity/format';

/** An axis of a plain chart: its scale in px, about how many numbers it bears, and how they are written. */
type Axis = {
  readonly scale: ScaleLinear<number, number>;
  readonly ticks: number;
  readonly left: number;
  readonly right: number;
  readonly text?: (value: number) => string;
};

/** Lines across a plain chart, with their numbers at the left. */
export const LinesAcross = ({ scale, ticks, left, right, text = formatNumber }: Axis) =>
  scale.ticks(ticks).map((value) => (
    <g key={value}>
      <line x1={left} x2={right} y1={scale(value)} y2={scale(value)} className="stroke-rule" />
      <text x={left - 6} y={scale(value) + 4} textAnchor="end" className="fill-ink font-mono">
        {text(value)}
      </text>
    </g>
  ));

/** The foot of a plain chart at `y` px: its line, and the numbers below it. */
export const Foot = ({
  scale,
  ticks,
  left,
  right,
  text = formatNumber,
  y,
}: Axis & { readonly y: number }) => (
  <>
    <line x1={left} x2={right} y1={y} y2={y} className="stroke-ink" />
    {scale.ticks(ticks).map((value) => (
      <text key={value} x={scale(value)} y={y + 17} textAnchor="middle" className="fill-ink font-mono">
        {text(value)}
      </text>
    ))}
  </>
);
