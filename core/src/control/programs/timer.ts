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

/** At fixed times a fixed dose. */
export type Timer = { readonly kind: 'timer'; readonly slots: readonly Slot[]; readonly doseMl: number };

const settings = z.strictObject({ kind: z.literal('timer'), slots, doseMl: volumeMl });

export const timer = {
  settings,
  begin: ({ minute, doseMl }) => ({ kind: 'timer', slots: [{ minute, days: EVERY_DAY }], doseMl }),
  doseMl: ({ doseMl }) => doseMl,
  contradictions: (saved, line) => slotContradictions(saved.slots, line),
  runsADay: ({ slots: times }) => mostTimesADay(times),
  bind: (saved) => ({ ...saved, slots: boundSlots(saved.slots) }),
  usesProbe: false,
  wants: (program, line, flow, { input }) => dueSlot(program, line, flow, input, 'timer'),
  wake: (program, _, input) => [nextSlotS(program.slots, input)],
} as const satisfies ProgramRecord<z.infer<typeof settings>, Timer>;
