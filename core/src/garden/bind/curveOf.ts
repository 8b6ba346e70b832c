/** The curve of a calibration, and all that its ± rests on; worked out once for each version. */
import { makeCurve, type Curve } from '../../calibration/curve.ts';
import { calibratedOf, outcomeOf } from '../../calibration/run.ts';
import type { Calibrated } from '../../calibration/uncertainty.ts';
import type { Calibration } from '../document/schema.ts';

const curves = new WeakMap<Calibration, Curve | null>();
const calibrated = new WeakMap<Calibration, Calibrated | null>();

/** The curve as it was stored; null for one that cannot be read, which the schema does not let in. */
export function curveOf(calibration: Calibration): Curve | null {
  const held = curves.get(calibration);
  if (held !== undefined) return held;
  const { shape, percentKind, range, noiseCounts } = calibration;
  const made = makeCurve(shape, percentKind, [range.lowCounts, range.highCounts], noiseCounts);
  const curve = made.ok ? made.value : null;
  curves.set(calibration, curve);
  return curve;
}

/** The stored curve with its ±, from the points that made it. Null when the points do not carry it any more. */
export function calibratedOfVersion(calibration: Calibration): Calibrated | null {
  const held = calibrated.get(calibration);
  if (held !== undefined) return held;
  const curve = curveOf(calibration);
  // What the points are worth does not depend on the day or the probe.
  const outcome = outcomeOf(calibration, { probeKind: null, fullScaleCounts: Infinity, nowMs: 0 });
  const made = curve && calibratedOf(outcome, calibration.shape.kind, calibration.noiseCounts);
  const whole = made && { ...made, curve };
  calibrated.set(calibration, whole);
  return whole;
}
