/** What a garden's plan keeps: answers, choices with their reasons, prices, and the habits the supply budget rests on. */
import { z } from '../quantity/schema.ts';
import { supplyHabits } from '../power/habits.ts';
import { answersSchema, NO_ANSWERS } from './interview.ts';

const key = z.string().min(1).max(80);
const choice = z.strictObject({
  candidate: z.string().max(80),
  /** Why the person took it, in their words. */
  reason: z.string().max(400, 'at most 400 characters'),
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
  supply: supplyHabits,
  /** What lies in the drawer already: pieces by entry, as the parts list names it. */
  drawer: z.record(key, z.int().min(1).max(1000)),
});
export type Plan = z.infer<typeof planSchema>;

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
    longitudeDeg: null,
    altitudeM: 0,
    clearness: 0.35,
    chainFrac: 0.6,
    darkDays: 5,
  },
  drawer: {},
};
