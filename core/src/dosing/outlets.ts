/**
 * How evenly water is shared: outlets of one line, or catch cups under a sprinkler.
 * Source: Merriam & Keller 1978, Farm Irrigation System Evaluation (distribution uniformity of the low quarter); Christiansen 1942 (coefficient).
 */

export type Evenness = {
  readonly meanMl: number;
  /** Mean of the driest quarter over the mean, percent: what the thirstiest plant gets. */
  readonly lowQuarterPercent: number;
  /** Christiansen's coefficient, percent. */
  readonly coefficientPercent: number;
  /** Share of each, percent of all water, in the order given. */
  readonly sharesPercent: readonly number[];
};

/** @param volumesMl one for each outlet or cup, ≥ 0, at least one above zero; null otherwise */
export function evennessOf(volumesMl: readonly number[]): Evenness | null {
  const total = volumesMl.reduce((sum, one) => sum + one, 0);
  if (volumesMl.length === 0 || !(total > 0) || volumesMl.some((one) => !(one >= 0))) return null;
  const meanMl = total / volumesMl.length;
  const quarter = Math.max(1, Math.round(volumesMl.length / 4));
  const driest = [...volumesMl].sort((a, b) => a - b).slice(0, quarter);
  const low = driest.reduce((sum, one) => sum + one, 0) / quarter;
  const off = volumesMl.reduce((sum, one) => sum + Math.abs(one - meanMl), 0);
  return {
    meanMl,
    lowQuarterPercent: (100 * low) / meanMl,
    coefficientPercent: 100 * (1 - off / total),
    sharesPercent: volumesMl.map((one) => (100 * one) / total),
  };
}

/** Rain of a sprinkler by its cups, mm per minute. @param areaCm2 of a cup's mouth, > 0; @param minutes > 0 */
export const rainOf = (meanMl: number, areaCm2: number, minutes: number): number =>
  // 1 ml on 1 cm² stands 10 mm high.
  (10 * meanMl) / areaCm2 / minutes;
