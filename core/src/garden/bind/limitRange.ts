/** Where the limits of a plot can lie: within what its calibration reads, and within the pores of its soil. */
import type { Curve } from '../../calibration/curve.ts';
import type { LimitRange } from '../../control/limits.ts';
import type { PlotParts } from './plotParts.ts';
import { marksOf } from './words.ts';

export function limitRange({ garden, plot }: PlotParts, curve: Curve): LimitRange {
  const pores = marksOf(garden, plot).poresTenths;
  const curveTop = Math.min(1000, Math.floor(10 * curve.wetPercent));
  const isPores = pores !== null && pores < curveTop;
  return {
    leastTenths: Math.max(0, Math.ceil(10 * curve.dryPercent)),
    mostTenths: isPores ? pores : curveTop,
    mostBy: isPores ? 'pores' : 'curve',
  };
}
