/** Student's t, 97.5 % one-sided (95 % both ways), for 1 … 30 degrees of freedom. Source: the published table, e.g. Fisher & Yates 1963. */
const T_975: readonly number[] = [
  12.706, 4.303, 3.182, 2.776, 2.571, 2.447, 2.365, 2.306, 2.262, 2.228, 2.201, 2.179, 2.16, 2.145, 2.131,
  2.12, 2.11, 2.101, 2.093, 2.086, 2.08, 2.074, 2.069, 2.064, 2.06, 2.056, 2.052, 2.048, 2.045, 2.042,
];
/** The same of the normal law, which many degrees of freedom come to. */
export const Z_975 = 1.96;

/** @param degreesOfFreedom ≥ 1; between 30 and very many by 1/n, as the tables say to */
export function student975(degreesOfFreedom: number): number {
  const held = T_975[Math.floor(degreesOfFreedom) - 1];
  if (held !== undefined) return held;
  return degreesOfFreedom < 1 ? Infinity : Z_975 + (30 * ((T_975[29] ?? Z_975) - Z_975)) / degreesOfFreedom;
}
