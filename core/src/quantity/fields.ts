/** Fields that many schemas share. */
import { z } from './schema.ts';

export const id = z
  .string()
  .regex(/^[a-z0-9][a-z0-9-]{0,39}$/, 'use small letters, digits and hyphens, at most 40');
export const name = z.string().trim().min(1, 'must not be empty').max(60, 'at most 60 characters');
export const text = z.string().max(400, 'at most 400 characters');
export const time = z.iso.datetime({ offset: true });
export const counts = z.number().min(-1e9).max(1e9);
