import { z } from '../../quantity/schema.ts';
import type { ProgramRecord } from './record.ts';
import { slots, volumeMl } from './settings.ts';
import {
  boundSlots,
  dueSlot,
  EVERY_DAY,
  mostTimesADay,
  nextSlotS,
  slotContradictions,
  type Slot,
} from './slots.ts';

/** A timer that a wet probe holds back; `interrupts`: it also ends a dose under way. */
export type Veto = {
  readonly kind: 'veto';
  readonly slots: readonly Slot[];
  readonly doseMl: number;
  readonly wetTenths: number;
  readonly interrupts: boolean;
};

/** Wet means at or above the plot's stop limit. */
const settings = z.strictObject({
  kind: z.literal('veto'),
  slots,
  doseMl: volumeMl,
  interrupts: z.boolean(),
});

export const veto = {
  settings,
  begin: ({ minute, doseMl }) => ({
    kind: 'veto',
    slots: [{ minute, days: EVERY_DAY }],
    doseMl,
    interrupts: true,
  }),
  doseMl: ({ doseMl }) => doseMl,
  contradictions: (saved, line) => slotContradictions(saved.slots, line),
  runsADay: ({ slots: times }) => mostTimesADay(times),
  bind: (saved, { stopTenths }) => ({ ...saved, slots: boundSlots(saved.slots), wetTenths: stopTenths }),
  usesProbe: true,
  wants: (program, line, flow, { input, sensor }) => {
    const wish = dueSlot(program, line, flow, input, 'dry-enough');
    const isWet = (sensor?.tenths ?? 0) >= program.wetTenths;
    return typeof wish === 'object' && isWet ? 'too-wet' : wish;
  },
  whyStop: ({ interrupts, wetTenths }, tenths) => (interrupts && tenths >= wetTenths ? 'wet-veto' : null),
  wake: (program, _, input) => [nextSlotS(program.slots, input)],
} as const satisfies ProgramRecord<z.infer<typeof settings>, Veto>;
