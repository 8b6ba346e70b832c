import { Router } from 'express';
import { z } from '@plain-trowel/core/quantity/schema';

/** Gardens, boards and apps as they stand in addresses. */
export const idSchema = z.string().regex(/^[\w-]{1,60}$/);

/** A router whose addresses hold nothing but such ids. */
export function routerOfIds(): Router {
  const router = Router();
  for (const name of ['garden', 'board', 'app'])
    router.param(name, (_request, response, next, value) => {
      if (idSchema.safeParse(value).success) next();
      else response.status(404).json({ error: 'There is nothing at this address.' });
    });
  return router;
}
