/** Curves that tests start from. */
import { makeCurve, type Curve, type CurveShape } from './curve.ts';

/** A straight line: `dry` counts read 0 % span, `wet` counts 100 %. */
export function lineBetween(dry: number, wet: number, noiseCounts = 2): Curve {
  const low = Math.min(dry, wet);
  const atLow = dry < wet ? 0 : 100;
  return curveFrom(
    {
      kind: 'line',
      origin: low,
      unit: Math.abs(wet - dry),
      weights: [atLow, 100 - 2 * atLow],
      temperature: null,
    },
    [dry, wet],
    noiseCounts,
  );
}

export function curveFrom(shape: CurveShape, range: readonly [number, number], noiseCounts = 2): Curve {
  const made = makeCurve(shape, 'span', range, noiseCounts);
  if (!made.ok) throw new Error(made.issue.kind);
  return made.value;
}
