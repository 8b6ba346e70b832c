import { countsAtPercent } from '@plain-trowel/core/calibration/curve';
import { isUnknown } from '@plain-trowel/core/control/plotState';
import { fullScaleCounts } from '@plain-trowel/core/electrics/converter';
import { bandsOf } from '@plain-trowel/core/quantity/bands';
import { formatPercent } from '@plain-trowel/core/quantity/format';
import { isShownRaw, percentUnit } from '@plain-trowel/core/quantity/percentKind';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { PlotView } from '@plain-trowel/core/live/plotView';
import { useElementWidth } from '../ui/useElementWidth.ts';
import { bandPlace } from './bandPlace.ts';
import { bandFill } from './patterns.tsx';
import { rulerScale, type RulerScale } from './rulerScale.ts';

const EDGE = 8;
const BAR_Y = 15;
const BAR = 18;
const TICKS_Y = BAR_Y + BAR;
const HEIGHT = TICKS_Y + 20;
const TENTHS = [0, 20, 40, 60, 80, 100];

/** The ruler at its smallest: bands, both limits as flags, the present reading, and its percent below. A reading that is not to be trusted has no place on it. */
export function ThinRuler({ parts, view }: { parts: PlotParts; view: PlotView }) {
  const { fit, plot, board } = parts;
  const [ref, width] = useElementWidth<HTMLDivElement>(520);
  const scale = rulerScale(fit, fullScaleCounts(board?.adcBits ?? 12), EDGE, width - 2 * EDGE);
  const right = width - EDGE;
  const isKnown = !isUnknown(view.state);
  const at =
    isKnown && view.span && fit ? scale.x(view.rawCounts ?? countsAtPercent(fit, view.span.percent)) : null;
  return (
    <div ref={ref} className="w-full">
      <svg
        width={width}
        height={HEIGHT}
        role="img"
        aria-label={describe(parts, view)}
        className="block overflow-visible"
      >
        <rect x={EDGE} y={BAR_Y} width={right - EDGE} height={BAR} className="fill-label" />
        {fit && <Bands parts={parts} scale={scale} right={right} />}
        <rect x={EDGE} y={BAR_Y} width={right - EDGE} height={BAR} fill="none" className="stroke-ink" />
        {fit && !isShownRaw(fit.percentKind) && <Percents parts={parts} scale={scale} right={right} />}
        {fit &&
          parts.line &&
          (['startTenths', 'stopTenths'] as const).map((which) => (
            <Flag
              key={which}
              x={scale.x(countsAtPercent(fit, plot.limits[which] / 10))}
              side={which === 'startTenths' ? -1 : 1}
            />
          ))}
        {at === null ? (
          <NoReading
            width={width}
            words={view.state === 'not-calibrated' ? 'not calibrated' : 'no reading to trust'}
          />
        ) : (
          <Needle x={Math.min(Math.max(at, EDGE), right)} />
        )}
      </svg>
    </div>
  );
}

function Bands({
  parts: { fit, plot },
  scale,
  right,
}: {
  parts: PlotParts;
  scale: RulerScale;
  right: number;
}) {
  if (!fit) return null;
  return bandsOf(plot.bandEdges, plot.words).map((band) => {
    const place = bandPlace(band, fit, scale, EDGE, right);
    return (
      place && (
        <rect
          key={band.name}
          x={place.x1}
          y={BAR_Y}
          width={Math.max(0, place.x2 - place.x1)}
          height={BAR}
          fill={bandFill(band.name)}
        />
      )
    );
  });
}

/** Percent along the lower edge, with its kind at the end. */
function Percents({ parts: { fit }, scale, right }: { parts: PlotParts; scale: RulerScale; right: number }) {
  if (!fit) return null;
  const words = percentUnit(fit.percentKind);
  const room = right - 7.2 * words.length - 20;
  return (
    <g className="text-[11.5px]">
      {TENTHS.filter((percent) => percent >= fit.dryPercent && percent <= fit.wetPercent).map((percent) => {
        const x = scale.x(countsAtPercent(fit, percent));
        return (
          <g key={percent}>
            <line x1={x} x2={x} y1={TICKS_Y} y2={TICKS_Y + 4} className="stroke-ink" />
            {x < room && (
              <text x={x} y={HEIGHT - 3} textAnchor="middle" className="fill-soft font-mono">
                {percent}
              </text>
            )}
          </g>
        );
      })}
      <text x={right} y={HEIGHT - 3} textAnchor="end" className="fill-soft">
        {words}
      </text>
    </g>
  );
}

const Flag = ({ x, side }: { x: number; side: 1 | -1 }) => (
  <>
    <line x1={x} x2={x} y1={2} y2={TICKS_Y} strokeWidth={1.8} className="stroke-steel" />
    <path d={`M${x} 2h${side * 11}l${-side * 3} 4l${side * 3} 4h${-side * 11}z`} className="fill-steel" />
  </>
);

const Needle = ({ x }: { x: number }) => (
  <>
    <line x1={x} x2={x} y1={6} y2={TICKS_Y + 3} strokeWidth={2.6} className="stroke-handle" />
    <path d={`M${x - 6} 0h12v7l-6 6-6-6z`} className="fill-handle" />
  </>
);

const NoReading = ({ width, words }: { width: number; words: string }) => (
  <>
    <rect x={width / 2 - 78} y={BAR_Y + 1.5} width={156} height={BAR - 3} className="fill-label" />
    <text
      x={width / 2}
      y={BAR_Y + 13.5}
      textAnchor="middle"
      className="fill-handle text-[13px] font-semibold"
    >
      {words}
    </text>
  </>
);

function describe({ plot, fit }: PlotParts, { state, span, scale }: PlotView): string {
  if (isUnknown(state) || !span || !scale || !fit) return `${plot.name}: no reading to trust`;
  return `${plot.name}: ${formatPercent(span.percent, scale)}, limits ${formatPercent(plot.limits.startTenths / 10, fit)} and ${formatPercent(plot.limits.stopTenths / 10, fit)}`;
}
