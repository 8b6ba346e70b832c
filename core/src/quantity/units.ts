/** The units that a person reads and types. Stored are °C, ml and cm; here they are turned round at the edge of the screen. */
import { z } from './schema.ts';

export const unitsSchema = z.strictObject({
  temperature: z.enum(['C', 'F']),
  volume: z.enum(['l', 'gal']),
  length: z.enum(['cm', 'in']),
});
export type Units = z.infer<typeof unitsSchema>;

export const METRIC: Units = { temperature: 'C', volume: 'l', length: 'cm' };
