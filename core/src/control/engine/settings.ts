/**
 * A board's settings, as its engine goes by them. Whole numbers only: moisture in tenths of a percent (0..1000), volumes in ml, times in s, temperatures in
 * tenths of a degree, voltages in mV. One engine decides for all water lines of one board.
 */
import type { BoardTable } from '../../calibration/boardTable.ts';
import type { Conditions } from '../conditions/conditions.ts';
import type { Program } from '../programs/programs.ts';

/** A moisture probe that decides, or a reservoir's level, as the board reads it. */
export type SensorConfig = {
  readonly table: BoardTable;
  /** Raw values outside of this window are implausible (shorted, open, unplugged). */
  readonly lowRaw: number;
  readonly highRaw: number;
  /** Plausible values outside of this narrower window are those of a probe in air: out of the soil, or the soil has shrunken away. */
  readonly soilLowRaw: number;
  readonly soilHighRaw: number;
  /** An older reading counts for nothing, s. */
  readonly staleAfterS: number;
  /** Two readings in a row further apart than this are a leap, tenths: nothing starts until `settleS` have passed since. */
  readonly leapTenths: number;
  readonly settleS: number;
};

export type TankConfig = {
  /** Raw value at the minimum level. */
  readonly minimumRaw: number;
  /** True where a larger raw value means less water, as with a distance from above. */
  readonly fallsWithWater: boolean;
  readonly lowRaw: number;
  readonly highRaw: number;
  readonly staleAfterS: number;
};

/** They always exist; a setting only tightens or loosens them. */
export type Guards = {
  readonly maxRunS: number;
  readonly dailyMaxMl: number;
  readonly minIntervalS: number;
  /** A dose must raise the reading by this much within the response time, or it counts towards the lock. */
  readonly riseTenths: number;
  readonly responseS: number;
  readonly noRiseTimes: number;
  /** A dose that begins this wet or wetter need raise nothing, so it proves nothing; tenths, the stop limit as a rule. */
  readonly provesBelowTenths: number;
};

export type LineConfig = {
  /** False: switched off by the person; manual orders still work. */
  readonly enabled: boolean;
  /** Its settings stand against each other: nothing runs by itself until that is solved. */
  readonly contradicts: boolean;
  /** Places in the lists of sensors and tanks; null without one. */
  readonly sensor: number | null;
  readonly tank: number | null;
  readonly flowMlPerMin: number;
  /** Time before the first drop, ms. */
  readonly tubeMs: number;
  readonly program: Program;
  /** What is given each day while the probe is faulty, ml; 0: nothing. */
  readonly fallbackMl: number;
  readonly conditions: Conditions;
  readonly guards: Guards;
};

export type EngineConfig = {
  readonly sensors: readonly SensorConfig[];
  readonly tanks: readonly TankConfig[];
  readonly lines: readonly LineConfig[];
  /** Lines that may run at the same time, at least one. */
  readonly atOnce: number;
};
