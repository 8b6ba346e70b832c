/** Which readings may be acted on: guards 4 and 5. Comparisons are written so that a time or a value that is no number ends in doubt. */
import { tenthsFromTable } from '../../calibration/boardTable.ts';
import type { Reason } from '../contract/reasons.ts';
import type { SensorConfig, TankConfig } from './settings.ts';
import type { RawReading, SensorState, TankState } from '../contract/types.ts';

/** Takes a new reading in, or leaves the old one. */
export function nextSensor(
  before: SensorState | null,
  reading: RawReading | null,
  config: SensorConfig,
): SensorState | null {
  if (!reading) return before;
  const { raw, atS } = reading;
  const tenths = isInSoil(raw, config) ? tenthsFromTable(config.table, raw) : null;
  const isNext = before !== null && atS - before.atS <= config.staleAfterS;
  // Coming back from the rail is a leap as well: somebody has just put the plug in.
  const leapt =
    isNext &&
    (before.tenths === null || tenths === null
      ? before.tenths !== tenths
      : Math.abs(tenths - before.tenths) > config.leapTenths);
  return {
    raw,
    atS,
    unsettled: reading.unsettled === true,
    tenths,
    leapS: leapt ? atS : (before?.leapS ?? null),
  };
}

const isInSoil = (raw: number, { lowRaw, highRaw, soilLowRaw, soilHighRaw }: SensorConfig): boolean =>
  raw >= lowRaw && raw <= highRaw && raw >= soilLowRaw && raw <= soilHighRaw;

/** Why a reading cannot be acted on at all; null when it can. */
export function doubt(sensor: SensorState | null, nowS: number, config: SensorConfig): Reason | null {
  if (!sensor) return 'no-reading';
  if (!(nowS - sensor.atS <= config.staleAfterS && sensor.atS <= nowS)) return 'stale';
  if (sensor.tenths !== null) return null;
  return sensor.raw >= config.lowRaw && sensor.raw <= config.highRaw ? 'out-of-soil' : 'implausible';
}

/** Whether a reading is good enough to go on with a run but not to start one. */
export const isUnsettled = (sensor: SensorState, nowS: number, config: SensorConfig): boolean =>
  sensor.unsettled || (sensor.leapS !== null && nowS - sensor.leapS < config.settleS);

/** Why a reservoir forbids running; null when it does not. */
export function tankTrouble(tank: TankState | null, nowS: number, config: TankConfig): Reason | null {
  if (!tank || !(nowS - tank.atS <= config.staleAfterS && tank.atS <= nowS)) return 'tank-unknown';
  if (!(tank.raw >= config.lowRaw && tank.raw <= config.highRaw)) return 'tank-unknown';
  const holds = config.fallsWithWater ? tank.raw <= config.minimumRaw : tank.raw >= config.minimumRaw;
  return holds ? null : 'tank-low';
}
