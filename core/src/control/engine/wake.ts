/** When an idle line must be looked at again although nothing is read. */
import { conditionWakes } from '../conditions/conditions.ts';
import { recordOf } from '../programs/programs.ts';
import { DAY_S } from '../programs/settings.ts';
import type { EngineConfig, LineConfig } from './settings.ts';
import type { EngineInput, LineState, SensorState } from '../contract/types.ts';

/** A faulty probe is given this long to come back before the fallback waters, s; then at most once a day. */
export const FAULTY_S = 3600;

/** The earliest time after now at which something may change by itself, s since boot; null when nothing does. */
export function wakeS(
  line: LineState,
  config: LineConfig,
  sensor: SensorState | null,
  input: EngineInput,
  all: EngineConfig,
): number | null {
  const { nowS } = input;
  const { program, guards, conditions } = config;
  let next: number | null = null;
  next = sooner(next, nowS, line.lastStartS + guards.minIntervalS);
  if (line.watch) next = sooner(next, nowS, line.watch.untilS);
  const sensorConfig = config.sensor === null ? undefined : all.sensors[config.sensor];
  if (sensor && sensorConfig) {
    next = sooner(next, nowS, sensor.atS + sensorConfig.staleAfterS + 1);
    if (sensor.leapS !== null) next = sooner(next, nowS, sensor.leapS + sensorConfig.settleS);
  }
  if (line.faultyS !== null && config.fallbackMl > 0) {
    next = sooner(next, nowS, line.faultyS + FAULTY_S);
    next = sooner(next, nowS, line.lastStartS + DAY_S);
  }
  for (const atS of conditionWakes(conditions, input)) next = sooner(next, nowS, atS);
  // The oldest hour of the day is forgotten at a full hour.
  if (line.ration.sumMl > 0) next = sooner(next, nowS, (Math.trunc(nowS / 3600) + 1) * 3600);
  for (const atS of recordOf(program.kind).wake?.(program, line, input) ?? []) next = sooner(next, nowS, atS);
  return next;
}

/** The sooner of two times, as far as the second lies ahead. */
const sooner = (next: number | null, nowS: number, timeS: number | null): number | null =>
  timeS !== null && timeS > nowS && (next === null || timeS < next) ? timeS : next;
