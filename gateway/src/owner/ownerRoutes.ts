import express, { Router, type Request, type RequestHandler, type Response } from 'express';
import { rateLimit } from 'express-rate-limit';
import { z } from '@plain-trowel/core/quantity/schema';
import type { Reach } from '../hosts.ts';
import { SESSION_S, type Owner } from './owner.ts';
import { Tickets } from './tickets.ts';

const COOKIE = 'trowel_session';
const ticketSchema = z.strictObject({ token: z.string().max(100) });
const wordsSchema = z.strictObject({ passphrase: z.string().min(1).max(200) });

const tokenOf = (request: Request): string =>
  new RegExp(`(?:^|; *)${COOKIE}=([0-9a-f]{64})(?:;|$)`).exec(request.headers.cookie ?? '')?.[1] ?? '';

/** Coming in and going out. Tries are slowed for one address and for all together. */
export function ownerRoutes(
  owner: Owner,
  { isOpen, isSecure }: Pick<Reach, 'isOpen' | 'isSecure'>,
  nowMs: () => number,
): Router {
  const router = Router();
  const tickets = new Tickets();
  const letIn = (response: Response, token: string) =>
    response
      .cookie(COOKIE, token, {
        httpOnly: true,
        sameSite: 'strict',
        secure: isSecure,
        path: '/',
        maxAge: SESSION_S * 1000,
      })
      .json({ isIn: true });
  const TOO_MANY = { error: 'Too many tries. Wait a quarter of an hour.' };
  const perAddress = rateLimit({ windowMs: 900_000, limit: 8, message: TOO_MANY, validate: false });
  const together = rateLimit({
    windowMs: 900_000,
    limit: 40,
    keyGenerator: () => 'all',
    message: TOO_MANY,
    validate: false,
  });
  router.get('/session', (request, response) => {
    response.json({ isIn: !isOpen || owner.isIn(tokenOf(request), nowMs()), isOpen });
  });
  router.post('/session', perAddress, together, express.json({ limit: 2000 }), async (request, response) => {
    const read = wordsSchema.safeParse(request.body);
    const token = read.success ? await owner.enter(read.data.passphrase, nowMs()) : null;
    if (token === null) {
      response.status(401).json({ error: 'That is not the passphrase of this gateway.' });
      return;
    }
    letIn(response, token);
  });
  router.post('/session/ticket', ownerOnly(owner, isOpen, nowMs), (_request, response) => {
    if (isOpen) response.set('Cache-Control', 'no-store').json(tickets.make(nowMs()));
    else response.status(409).json({ error: 'This gateway answers on its own machine alone.' });
  });
  router.post(
    '/session/ticket/used',
    perAddress,
    together,
    express.json({ limit: 2000 }),
    async (request, response) => {
      const read = ticketSchema.safeParse(request.body);
      if (!read.success || !tickets.use(read.data.token, nowMs())) {
        response.status(401).json({ error: 'This ticket holds no more: have a new one shown.' });
        return;
      }
      letIn(response, await owner.admit(nowMs()));
    },
  );
  router.delete('/session', async (request, response) => {
    await owner.leave(tokenOf(request));
    response.clearCookie(COOKIE, { path: '/' }).json({});
  });
  return router;
}

/** Lets only the owner on. @param isOpen the gateway answers to a network; else whoever reaches it sits at this machine */
export function ownerOnly(owner: Owner, isOpen: boolean, nowMs: () => number): RequestHandler {
  return (request, response, next) => {
    if (!isOpen || owner.isIn(tokenOf(request), nowMs())) next();
    else response.status(401).json({ error: 'Enter the passphrase of this gateway first.' });
  };
}

/** What changes something comes from a page of our own, never from another site that this browser has open. */
export const sameOriginOnly: RequestHandler = (request, response, next) => {
  if (request.method === 'GET' || request.method === 'HEAD' || isOurs(request)) next();
  else response.status(403).json({ error: 'This was asked by another site, and is not done.' });
};

function isOurs({ headers }: Request): boolean {
  const site = headers['sec-fetch-site'];
  if (site !== undefined && site !== 'same-origin' && site !== 'none') return false;
  if (headers.origin === undefined) return true;
  try {
    return new URL(headers.origin).host === headers.host;
  } catch {
    return false;
  }
}
