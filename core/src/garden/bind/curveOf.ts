/** The curve of a calibration, and all that its ± rests on; worked out once for each version. */
import { makeCurve, type Curve } from '../../calibration/curve.ts';
import { calibratedOf, outcomeOf } from '../../calibration/run.ts';
import type { Calibrated } from '../../calibration/uncertainty.ts';
import { remembered } from '../../quantity/remembered.ts';
import type { Calibration } from '../document/schema.ts';

/** The curve as it was stored; null for one that cannot be read, which the schema does not let in. */
export const curveOf = remembered(({ shape, percentKind, range, noiseCounts }: Calibration): Curve | null => {
  const made = makeCurve(shape, percentKind, [range.lowCounts, range.highCounts], noiseCounts);
  return made.ok ? made.value : null;
});

/** The stored curve with its ±, from the points that made it. Null when the points do not carry it any more. */
export const calibratedOfVersion = remembered((calibration: Calibration): Calibrated | null => {
  const curve = curveOf(calibration);
  // What the points are worth does not depend on the day or the probe.
  const outcome = outcomeOf(calibration, { probeKind: null, fullScaleCounts: null, nowMs: 0 });
  const made = curve && calibratedOf(outcome, calibration.shape.kind, calibration.noiseCounts);
  return made && { ...made, curve };
});
