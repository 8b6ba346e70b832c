/** What a person may add: conditions for automatic starts. What a condition needs and nobody knows holds the line back, and says so. */
import { isBetween } from '../hours.ts';
import type { Reason } from './reasons.ts';
import type { Conditions } from './settings.ts';
import type { EngineInput } from './types.ts';

/** The first condition that is not met; null when all are. @param sensor place of the line's probe, whose soil is meant */
export function unmetCondition(
  conditions: Conditions,
  input: EngineInput,
  sensor: number | null,
): Reason | null {
  const { hours, airBelowTenthsC, soilAboveTenthsC, batteryAboveMv } = conditions;
  if (hours) {
    if (!input.clock) return 'clock-unknown';
    if (!isBetween(hours.fromS, hours.toS, input.clock.daySecond)) return 'outside-hours';
  }
  if (conditions.darkBelow !== null) {
    if (input.light === null) return 'light-unknown';
    if (!(input.light < conditions.darkBelow)) return 'not-dark';
  }
  if (airBelowTenthsC !== null) {
    if (input.airTenthsC === null) return 'air-unknown';
    if (!(input.airTenthsC < airBelowTenthsC)) return 'air-warm';
  }
  if (soilAboveTenthsC !== null) {
    const soil = sensor === null ? null : (input.soilTenthsC[sensor] ?? null);
    if (soil === null) return 'soil-temperature-unknown';
    if (!(soil > soilAboveTenthsC)) return 'soil-cold';
  }
  if (conditions.noRain) {
    if (input.rain === null) return 'rain-unknown';
    if (input.rain) return 'rain';
  }
  if (batteryAboveMv !== null) {
    if (input.batteryMv === null) return 'battery-unknown';
    if (!(input.batteryMv >= batteryAboveMv)) return 'battery-low';
  }
  return null;
}
