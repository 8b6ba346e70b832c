/** What a person may add: conditions for automatic starts. What a condition needs and nobody knows holds the line back, and says so. */
import type { Reason } from './reasons.ts';
import type { Conditions, EngineInput } from './types.ts';

/** The first condition that is not met; null when all are. @param sensor place of the line's probe, whose soil is meant */
export function unmetCondition(
  conditions: Conditions,
  input: EngineInput,
  sensor: number | null,
): Reason | null {
  const { hours, airBelowTenthsC, soilAboveTenthsC, batteryAboveMv } = conditions;
  if (hours) {
    if (!input.clock) return 'clock-unknown';
    if (!isWithin(hours, input.clock.daySecond)) return 'outside-hours';
  }
  if (conditions.onlyDark) {
    if (input.dark === null) return 'light-unknown';
    if (!input.dark) return 'not-dark';
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

/** Whether a second of the day lies between two others, over midnight when the first is later; the end is outside. */
export const isWithin = (
  { fromS, toS }: { readonly fromS: number; readonly toS: number },
  daySecond: number,
): boolean => (fromS <= toS ? daySecond >= fromS && daySecond < toS : daySecond >= fromS || daySecond < toS);
