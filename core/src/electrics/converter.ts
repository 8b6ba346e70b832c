/**
 * Highest number an analog-to-digital converter can give: 2^bits − 1.
 *
 * @param bits resolution, 1..24
 * @throws RangeError outside that: board data are checked on loading, so that is our mistake.
 * Source: definition of an n-bit converter; counts = V / Vref × (2^n − 1).
 */
export function fullScaleCounts(bits: number): number {
  if (!Number.isInteger(bits) || bits < 1 || bits > 24)
    throw new RangeError(`fullScaleCounts: bits is ${bits}; pass a whole number from 1 to 24`);
  return 2 ** bits - 1;
}

/**
 * The raw window outside of which a moisture reading is implausible: an analog probe in working order reaches neither rail.
 * Water never reads 0 and air never exactly full scale, so 0.5 % of the scale at either end means shorted, open or unplugged.
 *
 * @param full the most that it can read, counts
 * @returns whole counts; readings below `lowCounts` or above `highCounts` are implausible
 */
export function plausibleWithin(full: number): { lowCounts: number; highCounts: number } {
  const margin = Math.max(1, Math.round(full * 0.005));
  return { lowCounts: margin, highCounts: full - margin };
}
