/** Run time and volume in whole numbers, division truncated toward zero. */

/** What a pump gives, and the time before its first drop. */
export type Flow = { readonly flowMlPerMin: number; readonly tubeMs: number };

/** Seconds that a dose takes, to the nearest second, at least one. */
export function doseS({ flowMlPerMin, tubeMs }: Flow, volumeMl: number): number {
  const ms = Math.trunc((volumeMl * 60_000) / flowMlPerMin) + tubeMs;
  return Math.max(1, Math.trunc((ms + 500) / 1000));
}

/** What a run really gives, ml: nothing comes before the tube is full. */
export const givenMl = ({ flowMlPerMin, tubeMs }: Flow, ranS: number): number =>
  Math.trunc((Math.max(0, ranS * 1000 - tubeMs) * flowMlPerMin) / 60_000);

/** What a run counts towards the daily maximum, ml: as if the tube were full, rounded up, so that it is never less than what came. */
export const countedMl = ({ flowMlPerMin }: Pick<Flow, 'flowMlPerMin'>, ranS: number): number =>
  Math.trunc((ranS * flowMlPerMin + 59) / 60);
