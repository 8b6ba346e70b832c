/** The settings of the engine in MicroPython: probes, tanks, lines and contacts. */
import type { Conditions } from '../control/conditions/conditions.ts';
import type { Edge } from '../control/contacts/contract.ts';
import type { LineConfig, SensorConfig, TankConfig } from '../control/engine/settings.ts';
import type { ProgramKind } from '../control/programs/programs.ts';
import { flatProgram } from './flatProgram.ts';
import type { SketchContact } from './plan.ts';
import { fields, points, type Value } from './pythonValue.ts';
import { forComment } from './safeText.ts';

export const sensorText = (one: SensorConfig, label: string): string =>
  fields({
    [`# ${forComment(label)}: raw value, tenths of a percent`]: null,
    table: points(one.table),
    '# Outside of these the plug is out or the cable broken.': null,
    low_raw: one.lowRaw,
    high_raw: one.highRaw,
    '# Outside of these it is out of the soil.': null,
    soil_low_raw: one.soilLowRaw,
    soil_high_raw: one.soilHighRaw,
    stale_after_s: one.staleAfterS,
    leap_tenths: one.leapTenths,
    settle_s: one.settleS,
  });

export const tankText = (one: TankConfig): string =>
  fields({
    minimum_raw: one.minimumRaw,
    falls_with_water: one.fallsWithWater,
    low_raw: one.lowRaw,
    high_raw: one.highRaw,
    stale_after_s: one.staleAfterS,
  });

export function lineText({ program, conditions: c, guards: g, ...line }: LineConfig, name: string): string {
  const flat = flatProgram(program);
  const programText = fields({
    kind: { text: kindName(program.kind) },
    start_tenths: flat.startTenths,
    stop_tenths: flat.stopTenths,
    dose_ml: flat.doseMl,
    soak_s: flat.soakS,
    most_pulses: flat.mostPulses,
    rest_s: flat.restS,
    interval_s: flat.intervalS,
    interrupts: flat.interrupts,
    leader: flat.leader,
    share_percent: flat.sharePercent,
    every_nth: flat.everyNth,
    slots: flat.slots.map(({ daySecond, days }) => [daySecond, days]),
  });
  return fields({
    [`# ${forComment(name)}`]: null,
    enabled: line.enabled,
    contradicts: line.contradicts,
    sensor: line.sensor,
    tank: line.tank,
    flow_ml_per_min: line.flowMlPerMin,
    tube_ms: line.tubeMs,
    program: { text: programText },
    fallback_ml: line.fallbackMl,
    conditions: { text: conditionsText(c) },
    '# Guards: nothing that is typed or sent changes them.': null,
    max_run_s: g.maxRunS,
    daily_max_ml: g.dailyMaxMl,
    min_interval_s: g.minIntervalS,
    rise_tenths: g.riseTenths,
    response_s: g.responseS,
    no_rise_times: g.noRiseTimes,
    proves_below_tenths: g.provesBelowTenths,
  });
}

/** As the engine calls it. */
export const kindName = (kind: ProgramKind): string => `P_${kind.toUpperCase().replace(/-/g, '_')}`;

const EDGES: Readonly<Record<Edge['by'], number>> = { clock: 0, sunrise: 1, sunset: 2 };
const edgeValue = ({ by, s }: Edge): Value => [EDGES[by], s];

const conditionsText = (c: Conditions): string =>
  fields({
    hours: c.hours && [c.hours.fromS, c.hours.toS],
    dark_below: c.darkBelow,
    air_below_tenths_c: c.airBelowTenthsC,
    soil_above_tenths_c: c.soilAboveTenthsC,
    no_rain: c.noRain,
    battery_above_mv: c.batteryAboveMv,
    no_skip: c.noSkip,
  });

export function contactText({ name, config: { rule, conditions, guards, ...one } }: SketchContact): string {
  return fields({
    [`# ${forComment(name)}`]: null,
    enabled: one.enabled,
    contradicts: one.contradicts,
    sensor: one.sensor,
    ...(rule.kind === 'permit'
      ? {
          '# A permit in series with another timer.': null,
          kind: 0,
          start_tenths: rule.startTenths,
          stop_tenths: rule.stopTenths,
          rest_permits: rule.restPermits,
        }
      : {
          '# A light, from one moment of the day to another: 0 by the clock, 1 from sunrise, 2 from sunset on, in s.':
            null,
          kind: 1,
          begins: edgeValue(rule.from),
          ends: edgeValue(rule.to),
          dark_below: rule.cell?.darkBelow ?? null,
          bright_above: rule.cell?.brightAbove ?? null,
        }),
    conditions: { text: conditionsText(conditions) },
    '# Guards: nothing that is typed or sent changes them.': null,
    most_on_s: guards.mostOnS,
    least_off_s: guards.leastOffS,
    day_max_s: guards.dayMaxS,
  });
}
