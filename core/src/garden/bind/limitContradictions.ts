import { found, type Contradiction } from '../../control/programs/contradiction.ts';
import { limitRange } from './limitRange.ts';
import type { PlotParts } from './plotParts.ts';
import { areLimitsUnset } from './suggested.ts';

/** What goes by the probe needs limits that were chosen for its kind of percent, where the calibration reads. */
export function limitContradictions(parts: PlotParts | null | undefined): Contradiction[] {
  if (!parts?.fit || parts.fit.percentKind === 'switch' || parts.fit.percentKind === 'counts') return [];
  if (areLimitsUnset(parts)) return found(true, 'limits-unset', 'limits', 'calibration');
  const { leastTenths, mostTenths } = limitRange(parts, parts.fit);
  const { startTenths, stopTenths } = parts.plot.limits;
  const { percentKind } = parts.fit;
  // Below the least it would never start, above the most it would never stop; a tenth is rounding.
  const beyond = [
    ...found(
      startTenths < leastTenths - 1,
      'limits-beyond',
      'limits',
      'calibration',
      startTenths,
      leastTenths,
    ),
    ...found(stopTenths > mostTenths + 1, 'limits-beyond', 'limits', 'calibration', stopTenths, mostTenths),
  ];
  return beyond.map((one) => ({ ...one, percentKind }));
}
