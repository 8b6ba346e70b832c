import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { countsAtPercent, readCurve, type Curve } from '@plain-trowel/core/calibration/curve';
import type { LimitName, Limits } from '@plain-trowel/core/control/limits';
import { formatCounts, formatPercent } from '@plain-trowel/core/quantity/format';
import type { RulerScale } from './rulerScale.ts';
import { stepOfKey } from './stepOfKey.ts';

/** A limit as a flag on its pole. It can be dragged, and moved with the arrow keys: a tenth of a percent, or a whole one with Shift. */
export function LimitFlag({
  which,
  fit,
  limits,
  scale,
  y,
  barY,
  barEnd,
  onMove,
  onMoved,
}: {
  which: LimitName;
  fit: Curve;
  limits: Limits;
  scale: RulerScale;
  y: number;
  barY: number;
  barEnd: number;
  onMove: ((which: LimitName, tenths: number) => void) | undefined;
  onMoved: (() => void) | undefined;
}) {
  const tenths = which === 'start' ? limits.startTenths : limits.stopTenths;
  const counts = countsAtPercent(fit, tenths / 10);
  const x = scale.x(counts);
  const grip = useRef<number | null>(null);
  // The start flag flies to the dry side, the stop flag to the wet side, so that they never cover each other.
  const side = which === 'start' ? -1 : 1;

  const drag = (event: PointerEvent<SVGGElement>) => {
    if (grip.current === null || !onMove) return;
    const box = event.currentTarget.ownerSVGElement?.getBoundingClientRect();
    if (!box) return;
    const to = scale.countsAt(event.clientX - box.left - grip.current);
    onMove(which, Math.round(readCurve(fit, to).percent * 10));
  };
  const press = (event: KeyboardEvent<SVGGElement>) => {
    const step = stepOfKey(event);
    const to =
      event.key === 'Home'
        ? Math.round(10 * fit.dryPercent)
        : event.key === 'End'
          ? Math.round(10 * fit.wetPercent)
          : step === null
            ? null
            : tenths + step;
    if (to === null || !onMove) return;
    event.preventDefault();
    onMove(which, to);
  };
  const handlers = onMove && {
    role: 'slider',
    tabIndex: 0,
    'aria-label': `${which === 'start' ? 'Start' : 'Stop'} limit`,
    'aria-valuemin': 0,
    'aria-valuemax': 100,
    'aria-valuenow': tenths / 10,
    'aria-valuetext':
      fit.percentKind === 'counts'
        ? formatPercent(tenths / 10, fit)
        : `${formatPercent(tenths / 10, fit)}, ${formatCounts(Math.round(counts))} raw counts`,
    onKeyDown: press,
    onKeyUp: onMoved,
    onBlur: onMoved,
    onPointerDown: (event: PointerEvent<SVGGElement>) => {
      const box = event.currentTarget.ownerSVGElement?.getBoundingClientRect();
      grip.current = event.clientX - (box?.left ?? 0) - x;
      event.currentTarget.setPointerCapture(event.pointerId);
    },
    onPointerMove: drag,
    onPointerUp: () => {
      grip.current = null;
      onMoved?.();
    },
    onPointerCancel: () => {
      grip.current = null;
      onMoved?.();
    },
  };
  return (
    <g {...handlers} className={onMove ? 'cursor-ew-resize touch-none' : undefined}>
      {onMove && (
        <rect
          x={Math.min(x, x + side * 54) - 10}
          y={y - 12}
          width={74}
          height={barEnd - y + 12}
          fill="transparent"
        />
      )}
      <line x1={x} x2={x} y1={y - 6} y2={barEnd} strokeWidth={2} className="stroke-steel" />
      <path
        d={`M${x} ${y - 6}h${side * 44}l${-side * 7} 9l${side * 7} 9h${-side * 44}z`}
        className="fill-steel"
      />
      <text
        x={x + side * 19}
        y={y + 7.5}
        textAnchor="middle"
        className="pointer-events-none fill-paper text-[12.5px] font-semibold"
      >
        {which}
      </text>
      <path d={`M${x - 4} ${barY}h8l-4 6z`} className="fill-steel" />
    </g>
  );
}
