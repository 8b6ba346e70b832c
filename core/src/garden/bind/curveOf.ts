/** The curve of a calibration, and all that its ± rests on; worked out once for each version. */
import { makeCurve, type Curve } from '../../calibration/curve.ts';
import { NEEDS_REASON, type Finding } from '../../calibration/checks.ts';
import { calibratedOf, outcomeOf, worthOf } from '../../calibration/run.ts';
import type { Calibrated } from '../../calibration/uncertainty.ts';
import { remembered } from '../../quantity/remembered.ts';
import type { Calibration } from '../document/schema.ts';

/** The curve as it was stored; null for one that cannot be read, which the schema does not let in. */
export const curveOf = remembered(({ shape, percentKind, range, noiseCounts }: Calibration): Curve | null => {
  const made = makeCurve(shape, percentKind, [range.lowCounts, range.highCounts], noiseCounts);
  return made.ok ? made.value : null;
});

// What the points are worth does not depend on the day or the probe.
const ANY_DAY = { probeKind: null, fullScaleCounts: null, nowMs: 0 };

/**
 * What would refuse a stored calibration if it were made today: it may come from an older version of this program, or from a file. Null where nothing does, or where it has no points to tell by.
 */
export const refusalOf = remembered((calibration: Calibration): Finding | null => {
  if (calibration.points.length === 0) return null;
  const outcome = outcomeOf(calibration, ANY_DAY);
  const { findings } = worthOf(outcome, calibration.shape.kind, calibration.noiseCounts);
  return findings.find((one) => one.level === 'refuse') ?? null;
});

/** What a calibration was taken into use in spite of, with the reason that was written down; it marks everything that goes by it. */
export const markOf = ({
  warnings,
  note,
}: Calibration): { readonly kinds: readonly string[]; readonly reason: string } | null => {
  const kinds = warnings.filter((one) => (NEEDS_REASON as readonly string[]).includes(one));
  return kinds.length > 0 ? { kinds, reason: note } : null;
};

/** The stored curve with its ±, from the points that made it. Null when the points do not carry it any more. */
export const calibratedOfVersion = remembered((calibration: Calibration): Calibrated | null => {
  const curve = curveOf(calibration);
  const outcome = outcomeOf(calibration, ANY_DAY);
  const made = curve && calibratedOf(outcome, calibration.shape.kind, calibration.noiseCounts);
  return made && { ...made, curve };
});
