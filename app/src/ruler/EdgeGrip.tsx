import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { BAND_NAMES, type BandEdges } from '@plain-trowel/core/quantity/bands';
import { countsAtPercent, readCurve, type Curve } from '@plain-trowel/core/calibration/curve';
import { formatPercent } from '@plain-trowel/core/quantity/format';
import { BAR_HEIGHT } from './levels.ts';
import type { RulerScale } from './rulerScale.ts';
import { stepOfKey } from './stepOfKey.ts';

/** Where two words of a plot meet, as a grip on the lower half of the bar. It can be dragged, and moved with the arrow keys. */
export function EdgeGrip({
  at,
  edges,
  fit,
  scale,
  barY,
  onMove,
  onMoved,
}: {
  at: number;
  edges: BandEdges;
  fit: Curve;
  scale: RulerScale;
  barY: number;
  onMove: (at: number, tenths: number) => void;
  onMoved: (() => void) | undefined;
}) {
  const tenths = edges[at] ?? 0;
  const x = scale.x(countsAtPercent(fit, tenths / 10));
  const grip = useRef<number | null>(null);
  const [before, after] = [BAND_NAMES[at] ?? '', BAND_NAMES[at + 1] ?? ''];
  const release = () => {
    grip.current = null;
    onMoved?.();
  };
  const drag = (event: PointerEvent<SVGGElement>) => {
    const box = event.currentTarget.ownerSVGElement?.getBoundingClientRect();
    if (grip.current === null || !box) return;
    onMove(at, readCurve(fit, scale.countsAt(event.clientX - box.left - grip.current)).percent * 10);
  };
  const press = (event: KeyboardEvent<SVGGElement>) => {
    const step = stepOfKey(event);
    if (step === null) return;
    event.preventDefault();
    onMove(at, tenths + step);
  };
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={`Where ${before} becomes ${after}`}
      aria-valuemin={0}
      aria-valuemax={100}
      aria-valuenow={tenths / 10}
      aria-valuetext={formatPercent(tenths / 10, fit)}
      className="cursor-ew-resize touch-none"
      onKeyDown={press}
      onKeyUp={onMoved}
      onBlur={onMoved}
      onPointerDown={(event) => {
        const box = event.currentTarget.ownerSVGElement?.getBoundingClientRect();
        grip.current = event.clientX - (box?.left ?? 0) - x;
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={drag}
      onPointerUp={release}
      onPointerCancel={release}
    >
      <rect
        x={x - 14}
        y={barY + BAR_HEIGHT / 2 - 4}
        width={28}
        height={BAR_HEIGHT / 2 + 8}
        fill="transparent"
      />
      <line x1={x} x2={x} y1={barY} y2={barY + BAR_HEIGHT} strokeWidth={1.5} className="stroke-ink" />
      <rect
        x={x - 4.5}
        y={barY + BAR_HEIGHT - 21}
        width={9}
        height={21}
        strokeWidth={1.5}
        className="fill-paper stroke-ink"
      />
    </g>
  );
}
