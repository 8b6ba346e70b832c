/**
 * A made-up probe whose true curve is known, with everything that stands between a reading and the truth: noise, being pushed in again, a rest of
 * settling, the temperature of the soil, whole counts.
 */
import type { RunPoint } from '@plain-trowel/core/calibration/runPoint';
import type { Dice } from '../random.ts';

export type SyntheticProbe = {
  readonly dryCounts: number;
  readonly wetCounts: number;
  /** How strongly it bends: 0 straight, 2.5 strongly. */
  readonly bend: number;
  readonly noiseCounts: number;
  /** What pushing it in again moves it by, standard deviation, counts. */
  readonly insertionCounts: number;
  /** What a degree moves it by, share of the span. */
  readonly driftFrac: number;
  readonly fallsWhenWet: boolean;
};

/** A probe as cheap ones are, drawn by a seed. */
export function drawProbe(chance: Dice): SyntheticProbe {
  const span = chance.between(500, 2000);
  const wet = chance.between(300, 1500);
  const fallsWhenWet = chance.flat() < 0.85;
  return {
    dryCounts: fallsWhenWet ? wet + span : wet,
    wetCounts: fallsWhenWet ? wet : wet + span,
    bend: chance.between(0, 2),
    noiseCounts: span * chance.across(0.001, 0.01),
    insertionCounts: span * chance.across(0.003, 0.01),
    driftFrac: 0.0015 * chance.bell(),
    fallsWhenWet,
  };
}

export const spanOf = (probe: SyntheticProbe): number => Math.abs(probe.dryCounts - probe.wetCounts);

/** Raw value at a share of wetness, 0 dry … 1 wet, free of everything that disturbs. */
export function trueCounts(probe: SyntheticProbe, wetness: number): number {
  const share =
    probe.bend < 1e-6 ? wetness : (1 - Math.exp(-probe.bend * wetness)) / (1 - Math.exp(-probe.bend));
  return probe.dryCounts + share * (probe.wetCounts - probe.dryCounts);
}

const READINGS = 20;
const REST_FRAC = 0.004;

/** What a capture in a condition of this wetness gives. @param warmerC than at calibration, °C */
export function captureAt(
  probe: SyntheticProbe,
  wetness: number,
  chance: Dice,
  of: { readonly inserted: boolean; readonly warmerC: number; readonly minute: number },
): RunPoint['captures'][number] {
  const span = spanOf(probe);
  const off =
    (of.inserted ? probe.insertionCounts * chance.bell() : 0) +
    REST_FRAC * span * chance.bell() +
    probe.driftFrac * of.warmerC * (probe.wetCounts - probe.dryCounts) +
    (probe.noiseCounts / Math.sqrt(READINGS)) * 1.25 * chance.bell();
  return {
    rawCounts: Math.round(trueCounts(probe, wetness) + off),
    noiseCounts: probe.noiseCounts,
    readings: READINGS,
    settling: { verdict: 'steady', fromEndCounts: 0 },
    takenAt: new Date(Date.UTC(2026, 3, 1) + of.minute * 60_000).toISOString(),
    supplyV: 3.3,
    boardId: 'board',
  };
}
