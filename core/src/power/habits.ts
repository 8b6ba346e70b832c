/** What the supply budget rests on besides the parts. */
import { z } from '../quantity/schema.ts';
import { CHEMISTRY_NAMES } from './battery.ts';

const state = z.strictObject({
  currentMa: z.number().min(0).max(100_000).nullable(),
  secondsPerDay: z.number().min(0).max(86_400).nullable(),
});

export const supplyHabits = z.strictObject({
  /** Time between readings, s. */
  everyS: z.number().min(1).max(86_400),
  /** The board sleeps between readings. */
  sleeps: z.boolean(),
  /** Pump and valve time, s a day. */
  waterS: z.number().min(0).max(86_400),
  /** Figures the person set in place of those from the parts; null takes those. */
  sleep: state,
  wake: state,
  measure: state,
  radio: state,
  pump: state,
  chemistry: z.enum(CHEMISTRY_NAMES),
  capacityMah: z.number().min(1).max(1e7),
  batteryV: z.number().min(1).max(60),
  usableFrac: z.number().min(0.05).max(1),
  selfDischargePerMonthFrac: z.number().min(0).max(0.9),
  temperatureC: z.number().min(-40).max(60),
  latitudeDeg: z.number().min(-90).max(90).nullable(),
  /** East positive; null: that of the time zone, roughly. */
  longitudeDeg: z.number().min(-180).max(180).nullable(),
  altitudeM: z.number().min(-400).max(6000),
  clearness: z.number().min(0.05).max(1),
  chainFrac: z.number().min(0.05).max(1),
  darkDays: z.number().min(0).max(60),
});
export type SupplyHabits = z.infer<typeof supplyHabits>;
