import { extentOf } from '@plain-trowel/core/quantity/extent';
import type { TracePoint } from '@plain-trowel/core/records/trace';

/** A line through a trace, gaps left open, scaled to its own lowest and highest point with a little room. */
export function sparkPath(
  points: readonly TracePoint[],
  box: { fromMs: number; toMs: number; width: number; height: number },
): string {
  const extent = extentOf(points.flatMap((point) => (point.y === null ? [] : [point.y])));
  if (!extent) return '';
  const { low, high } = extent;
  // A line that hardly moves is drawn as one that hardly moves.
  const room = Math.max(high - low, Math.abs(high) * 0.01, 1e-9) * 1.2;
  const middle = (low + high) / 2;
  const x = (ms: number) => ((ms - box.fromMs) / (box.toMs - box.fromMs)) * box.width;
  const y = (value: number) => box.height / 2 - ((value - middle) / room) * (box.height - 6);
  let down = false;
  return points
    .map((point) => {
      if (point.y === null) {
        down = false;
        return '';
      }
      const move = down ? 'L' : 'M';
      down = true;
      return `${move}${x(point.x).toFixed(1)} ${y(point.y).toFixed(1)}`;
    })
    .join('');
}
