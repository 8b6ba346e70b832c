/** A stand-in's reservoir and tube: what its level reads, and when water arrives. */
import { rawAtVolume } from '@plain-trowel/core/dosing/reservoir';
import type { LineSetup, TankSetup } from './setup.ts';

/** How full a tank is when its garden is first opened. */
export const FULL_SHARE = 0.8;

/** What its sensor reads: a distance or counts, or for a float 1 while there is water above the minimum. */
export const tankRaw = (tank: TankSetup, volumeMl: number): number =>
  tank.curve ? Math.round(rawAtVolume(tank.curve, volumeMl)) : volumeMl > tank.minimumMl ? 1 : 0;

/** What has come out of a tube so many seconds after its pump went on, ml: nothing before it is full. */
export const arrivedMl = (
  { flowMlPerS, tubeS }: Pick<LineSetup, 'flowMlPerS' | 'tubeS'>,
  ranS: number,
): number => Math.max(0, ranS - tubeS) * flowMlPerS;
