/**
 * A cubic between knots that never overshoots them: where the knots rise it rises.
 * Source: Fritsch & Carlson 1980, Monotone Piecewise Cubic Interpolation; slopes by the weighted harmonic mean of Fritsch & Butland 1984.
 */
import { remembered } from '../quantity/remembered.ts';

export type Knot = { readonly counts: number; readonly percent: number };

const secant = (a: Knot, b: Knot) => (b.percent - a.percent) / (b.counts - a.counts);

/** Slope at each knot, percent per count. @param knots at least two, counts rising */
export const hermiteSlopes = remembered(slopesOf);

function slopesOf(knots: readonly Knot[]): readonly number[] {
  return knots.map((knot, at) => {
    const before = knots[at - 1];
    const after = knots[at + 1];
    if (!before || !after) return endSlope(knots, at === 0);
    const [left, right] = [secant(before, knot), secant(knot, after)];
    if (left * right <= 0) return 0;
    const [leftWidth, rightWidth] = [knot.counts - before.counts, after.counts - knot.counts];
    const [w1, w2] = [2 * rightWidth + leftWidth, rightWidth + 2 * leftWidth];
    return (w1 + w2) / (w1 / left + w2 / right);
  });
}

/** Three-point slope at an end, kept on the side and within three times the first secant, so that the curve stays monotone. */
function endSlope(knots: readonly Knot[], isFirst: boolean): number {
  const [a, b, c] = isFirst ? knots : [...knots].reverse();
  if (!a || !b) return 0;
  const first = secant(a, b);
  if (!c) return first;
  const second = secant(b, c);
  const [h1, h2] = [Math.abs(b.counts - a.counts), Math.abs(c.counts - b.counts)];
  const slope = ((2 * h1 + h2) * first - h1 * second) / (h1 + h2);
  if (slope * first <= 0) return 0;
  return first * second <= 0 && Math.abs(slope) > 3 * Math.abs(first) ? 3 * first : slope;
}

/** Value at a raw value; beyond the outer knots it goes on straight. @param slopes of `hermiteSlopes` */
export function hermiteAt(knots: readonly Knot[], slopes: readonly number[], counts: number): number {
  const first = knots[0];
  const last = knots.at(-1);
  if (!first || !last) return Number.NaN;
  if (counts <= first.counts) return first.percent + (slopes[0] ?? 0) * (counts - first.counts);
  if (counts >= last.counts) return last.percent + (slopes.at(-1) ?? 0) * (counts - last.counts);
  const right = knots.findIndex((knot) => knot.counts >= counts);
  const [a, b] = [knots[right - 1] ?? first, knots[right] ?? last];
  const width = b.counts - a.counts;
  const t = (counts - a.counts) / width;
  const [t2, t3] = [t * t, t * t * t];
  return (
    (2 * t3 - 3 * t2 + 1) * a.percent +
    (t3 - 2 * t2 + t) * width * (slopes[right - 1] ?? 0) +
    (3 * t2 - 2 * t3) * b.percent +
    (t3 - t2) * width * (slopes[right] ?? 0)
  );
}
