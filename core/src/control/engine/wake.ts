/** When an idle line must be looked at again although nothing is read. */
import { DAY_S, FAULTY_S, nextSlotS } from './programs.ts';
import type { EngineConfig, EngineInput, LineConfig, LineState, SensorState } from './types.ts';

/** The earliest time after now at which something may change by itself, s since boot; null when nothing does. */
export function wakeS(
  line: LineState,
  config: LineConfig,
  sensor: SensorState | null,
  input: EngineInput,
  all: EngineConfig,
): number | null {
  const { nowS, clock } = input;
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
  if (conditions.hours && clock) {
    const aheadS = conditions.hours.fromS - clock.daySecond;
    next = sooner(next, nowS, nowS + (aheadS > 0 ? aheadS : aheadS + DAY_S));
  }
  // The oldest hour of the day is forgotten at a full hour.
  if (line.ration.sumMl > 0) next = sooner(next, nowS, (Math.trunc(nowS / 3600) + 1) * 3600);
  if (line.owes) next = sooner(next, nowS, line.owes.untilS);
  switch (program.kind) {
    case 'pulse-soak':
      if (line.pulses > 0 && line.lastStopS !== null) {
        next = sooner(next, nowS, line.lastStopS + program.soakS);
        next = sooner(next, nowS, line.lastStopS + program.restS);
      }
      break;
    case 'single-dose':
      next = sooner(next, nowS, line.lastStartS + program.intervalS);
      break;
    case 'timer':
    case 'veto':
      next = sooner(next, nowS, nextSlotS(program.slots, input));
  }
  return next;
}

/** The sooner of two times, as far as the second lies ahead. */
const sooner = (next: number | null, nowS: number, timeS: number | null): number | null =>
  timeS !== null && timeS > nowS && (next === null || timeS < next) ? timeS : next;
