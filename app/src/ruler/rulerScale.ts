import { scaleLinear } from 'd3-scale';
import type { Curve } from '@plain-trowel/core/calibration/curve';

/** How raw counts lie along the ruler: dry at the left, wet at the right, whichever way the numbers run. */
export type RulerScale = {
  /** Raw counts at the left and the right end. */
  readonly leftCounts: number;
  readonly rightCounts: number;
  readonly x: (counts: number) => number;
  readonly countsAt: (x: number) => number;
  /** Raw counts that get a mark, and which of them a number. */
  readonly ticks: readonly { readonly counts: number; readonly level: 'major' | 'middle' | 'minor' }[];
};

/** Room beyond the references at either end, as a share of their distance: what lies beyond is clamped, and shown to be. */
const BEYOND = 0.07;

/**
 * @param fit the calibration; without one the ruler runs from 0 to full scale
 * @param width of the bar, px; @param left px of its left end
 */
export function rulerScale(
  fit: Curve | null,
  fullScaleCounts: number,
  left: number,
  width: number,
): RulerScale {
  const beyond = fit ? BEYOND * (fit.wetCounts - fit.dryCounts) : 0;
  const leftCounts = fit ? fit.dryCounts - beyond : 0;
  const rightCounts = fit ? fit.wetCounts + beyond : fullScaleCounts;
  const scale = scaleLinear([leftCounts, rightCounts], [left, left + width]);
  // About one number every 110 px, five marks between two numbers.
  const majors = scale.ticks(Math.max(2, Math.round(width / 110)));
  const step = Math.abs((majors[1] ?? 1) - (majors[0] ?? 0)) || 1;
  const [low, high] = [Math.min(leftCounts, rightCounts), Math.max(leftCounts, rightCounts)];
  const minor = step / 10;
  const first = Math.ceil(low / minor);
  const ticks = Array.from({ length: Math.max(0, Math.floor(high / minor) - first + 1) }, (_, at) => {
    const index = first + at;
    const level =
      index % 10 === 0 ? ('major' as const) : index % 5 === 0 ? ('middle' as const) : ('minor' as const);
    return { counts: index * minor, level };
  });
  return { leftCounts, rightCounts, x: (counts) => scale(counts), countsAt: (x) => scale.invert(x), ticks };
}
