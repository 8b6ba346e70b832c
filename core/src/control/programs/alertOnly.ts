import { z } from '../../quantity/schema.ts';
import type { ProgramRecord } from './record.ts';

/** Nothing runs by itself: a person waters. */
export type AlertOnly = { readonly kind: 'alert-only' };

const settings = z.strictObject({ kind: z.literal('alert-only') });

export const alertOnly = {
  settings,
  begin: () => ({ kind: 'alert-only' }),
  doseMl: () => null,
  bind: (saved) => saved,
  usesProbe: false,
  wants: () => 'alert-only',
} as const satisfies ProgramRecord<z.infer<typeof settings>, AlertOnly>;
