/** What a garden's plan keeps: answers, choices with their reasons, prices, and the habits the supply budget rests on. */
import { z } from '../quantity/schema.ts';
import { CHEMISTRY_NAMES } from '../power/battery.ts';
import { answersSchema, NO_ANSWERS } from './interview.ts';

const key = z.string().min(1).max(80);
const choice = z.strictObject({
  candidate: z.string().max(80),
  /** Why the person took it, in their words. */
  reason: z.string().max(400, 'at most 400 letters'),
});
const state = z.strictObject({
  currentMa: z.number().min(0).max(100_000).nullable(),
  secondsPerDay: z.number().min(0).max(86_400).nullable(),
});

export const planSchema = z.strictObject({
  answers: answersSchema,
  choices: z.strictObject({
    probe: choice.nullable(),
    board: choice.nullable(),
    link: choice.nullable(),
    power: choice.nullable(),
  }),
  money: z.strictObject({
    currency: z.string().trim().min(1).max(8),
    prices: z.record(key, z.number().min(0).max(1e7)),
    spares: z.record(key, z.int().min(0).max(1000)),
    lives: z.record(key, z.number().min(0.01).max(100)),
  }),
  supply: z.strictObject({
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
    altitudeM: z.number().min(-400).max(6000),
    clearness: z.number().min(0.05).max(1),
    chainFrac: z.number().min(0.05).max(1),
    darkDays: z.number().min(0).max(60),
  }),
});
export type Plan = z.infer<typeof planSchema>;
export type SupplyHabits = Plan['supply'];

const FROM_PARTS = { currentMa: null, secondsPerDay: null };

export const EMPTY_PLAN: Plan = {
  answers: NO_ANSWERS,
  choices: { probe: null, board: null, link: null, power: null },
  money: { currency: '€', prices: {}, spares: {}, lives: {} },
  supply: {
    everyS: 600,
    sleeps: false,
    waterS: 60,
    sleep: FROM_PARTS,
    wake: FROM_PARTS,
    measure: FROM_PARTS,
    radio: FROM_PARTS,
    pump: FROM_PARTS,
    chemistry: 'lead-acid',
    capacityMah: 7000,
    batteryV: 12,
    usableFrac: 0.5,
    selfDischargePerMonthFrac: 0.04,
    temperatureC: 5,
    latitudeDeg: null,
    altitudeM: 0,
    clearness: 0.35,
    chainFrac: 0.6,
    darkDays: 5,
  },
};
