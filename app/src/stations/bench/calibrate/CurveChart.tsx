import { useId } from 'react';
import { scaleLinear } from 'd3-scale';
import { readCurve } from '@plain-trowel/core/calibration/curve';
import type { Outcome } from '@plain-trowel/core/calibration/run';
import { bandOf, type Calibrated } from '@plain-trowel/core/calibration/uncertainty';
import { formatCounts, formatNumber } from '@plain-trowel/core/quantity/format';
import { percentUnit } from '@plain-trowel/core/quantity/percentKind';
import { Foot, LinesAcross } from '../../../charts/Axes.tsx';
import { useElementWidth } from '../../../ui/useElementWidth.ts';

const TOP = 26;
const HEIGHT = 190;
const LEFT = 46;
const RIGHT = 14;
/** The strip of residuals under the chart. */
const GAP = 40;
const STRIP = 56;
const BAND_POINTS = 61;
const MOST_BEYOND = 0.3;

type Mark = { readonly counts: number; readonly percent: number };

/**
 * Raw counts against percent: the curve with its ± as a band, the points on it, the reading now; under it what each point is off the curve by. Dry lies
 * left, as on the ruler. An earlier version may be drawn behind.
 */
export function CurveChart({
  calibrated,
  outcome,
  now,
  rawUnit = 'raw counts',
  before = null,
}: {
  calibrated: Calibrated;
  outcome: Outcome;
  now: number | null;
  /** How the probe's numbers are called. */
  rawUnit?: string;
  before?: Calibrated | null;
}) {
  const [ref, width] = useElementWidth<HTMLDivElement>(640);
  const clip = useId();
  const { curve } = calibrated;
  const band = bandOf(calibrated, BAND_POINTS);
  const unit = percentUnit(curve.percentKind);
  const points: Mark[] = outcome.fitPoints.map(({ counts, percent }) => ({ counts, percent }));
  // A band wider than the scale itself is cut: that it leaves the picture says enough.
  const room = MOST_BEYOND * (curve.wetPercent - curve.dryPercent);
  const lowest = Math.min(0, ...band.map((one) => one.percent - one.plusMinus));
  const highest = Math.max(
    curve.wetPercent * 1.05,
    ...band.map((one) => one.percent + one.plusMinus),
    ...points.map((one) => one.percent),
  );
  const low = Math.max(lowest, curve.dryPercent - room);
  const high = Math.min(highest, curve.wetPercent + room);
  const x = scaleLinear([curve.dryCounts, curve.wetCounts], [LEFT + 8, width - RIGHT - 8]);
  const y = scaleLinear([low, high], [TOP + HEIGHT, TOP]);
  const line = (of: readonly Mark[]) =>
    of
      .map((one, at) => `${at === 0 ? 'M' : 'L'}${x(one.counts).toFixed(1)} ${y(one.percent).toFixed(1)}`)
      .join('');
  const edge = [
    ...band.map((one) => ({ counts: one.counts, percent: one.percent + one.plusMinus })),
    ...[...band].reverse().map((one) => ({ counts: one.counts, percent: one.percent - one.plusMinus })),
  ];
  const earlier = before
    ? Array.from({ length: BAND_POINTS }, (_, at) => {
        const counts = curve.dryCounts + (at / (BAND_POINTS - 1)) * (curve.wetCounts - curve.dryCounts);
        return { counts, percent: readCurve(before.curve, counts).percent };
      })
    : null;
  const residuals = points.map((one) => ({
    counts: one.counts,
    off: one.percent - readCurve(curve, one.counts).percent,
  }));
  const widest = Math.max(0.5, ...residuals.map((one) => Math.abs(one.off)));
  // Through every point there is nothing that one could be off by.
  const hasStrip = points.length > 2 && !('knots' in curve.shape);
  const stripTop = TOP + HEIGHT + GAP;
  const off = scaleLinear([-widest, widest], [stripTop + STRIP, stripTop]);
  return (
    <div ref={ref} className="mt-2 w-full">
      <svg
        width={width}
        height={hasStrip ? stripTop + STRIP + 12 : stripTop}
        role="img"
        aria-label={describe(calibrated, points, widest)}
        className="block text-[12.5px]"
      >
        <text x={LEFT} y={14} className="fill-soft">
          {unit}
        </text>
        <LinesAcross scale={y} ticks={5} left={LEFT} right={width - RIGHT} />
        <clipPath id={clip}>
          <rect x={LEFT} y={TOP} width={width - LEFT - RIGHT} height={HEIGHT} />
        </clipPath>
        <path d={`${line(edge)}Z`} className="fill-steel" opacity={0.18} clipPath={`url(#${clip})`} />
        {earlier && (
          <path d={line(earlier)} fill="none" className="stroke-husk" strokeWidth={2} strokeDasharray="7 4" />
        )}
        <path d={line(band)} fill="none" className="stroke-steel" strokeWidth={2} />
        {points.map((one, at) => (
          <rect
            key={at}
            x={x(one.counts) - 4.5}
            y={y(one.percent) - 4.5}
            width={9}
            height={9}
            className="fill-label stroke-ink"
            strokeWidth={1.5}
          />
        ))}
        {now !== null && (
          <NowMark
            x={Math.min(Math.max(x(now), LEFT), width - RIGHT)}
            y={y(readCurve(curve, now).percent)}
            isRight={x(now) > width / 2}
          />
        )}
        <Foot
          scale={x}
          ticks={Math.max(3, Math.round(width / 120))}
          left={LEFT}
          right={width - RIGHT}
          text={formatCounts}
          y={TOP + HEIGHT}
        />
        <text x={width - RIGHT} y={stripTop - 6} textAnchor="end" className="fill-soft">
          {rawUnit}, dry left
        </text>
        {hasStrip && (
          <>
            <text x={LEFT} y={stripTop - 6} className="fill-soft">
              point less curve, ± {formatNumber(widest, 1)} %
            </text>
            <line x1={LEFT} x2={width - RIGHT} y1={off(0)} y2={off(0)} className="stroke-ink" />
          </>
        )}
        {(hasStrip ? residuals : []).map((one, at) => (
          <g key={at}>
            <line
              x1={x(one.counts)}
              x2={x(one.counts)}
              y1={off(0)}
              y2={off(one.off)}
              className="stroke-handle"
              strokeWidth={3}
            />
            <circle cx={x(one.counts)} cy={off(one.off)} r={3.5} className="fill-handle" />
          </g>
        ))}
      </svg>
    </div>
  );
}

const NowMark = ({ x, y, isRight }: { x: number; y: number; isRight: boolean }) => (
  <g className="text-handle" aria-hidden>
    <line x1={x} x2={x} y1={TOP} y2={TOP + HEIGHT} stroke="currentColor" strokeDasharray="2 3" />
    <circle cx={x} cy={y} r={4.5} fill="currentColor" />
    <text
      x={isRight ? x - 7 : x + 7}
      y={TOP + 11}
      textAnchor={isRight ? 'end' : 'start'}
      fill="currentColor"
      className="font-semibold"
    >
      now
    </text>
  </g>
);

function describe({ curve }: Calibrated, points: readonly Mark[], widest: number): string {
  const unit = percentUnit(curve.percentKind);
  return `Raw counts against ${unit}: from ${formatCounts(Math.round(curve.dryCounts))} counts at ${formatNumber(curve.dryPercent, 1)} to ${formatCounts(Math.round(curve.wetCounts))} counts at ${formatNumber(curve.wetPercent, 1)} ${unit}, ${points.length} points, none further off than ${formatNumber(widest, 1)} %. The points stand in the table.`;
}
