import { countsAtPercent, type Curve } from '@plain-trowel/core/calibration/curve';
import type { Band } from '@plain-trowel/core/quantity/bands';
import type { RulerScale } from './rulerScale.ts';

/** Where a band begins and ends, and where it is drawn, px; null for one that lies wholly beyond what this curve can say. @param left of the bar @param right of the bar */
export function bandPlace(
  { fromTenths, toTenths }: Band,
  fit: Curve,
  scale: RulerScale,
  left: number,
  right: number,
): { readonly from: number; readonly to: number; readonly x1: number; readonly x2: number } | null {
  if (toTenths <= 10 * fit.dryPercent || fromTenths >= 10 * fit.wetPercent) return null;
  const from = scale.x(countsAtPercent(fit, fromTenths / 10));
  const to = scale.x(countsAtPercent(fit, toTenths / 10));
  // The outermost bands reach to the ends of the bar: what is clamped still is dry, or flooded.
  return {
    from,
    to,
    x1: fromTenths <= 10 * fit.dryPercent ? left : from,
    x2: toTenths >= 10 * fit.wetPercent ? right : to,
  };
}
