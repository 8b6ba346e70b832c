/** What the owner does with boards: keys, orders and settings. */
import express, { type Router } from 'express';
import { z } from '@plain-trowel/core/quantity/schema';
import { routerOfIds } from '../ids.ts';
import type { Gateway } from '../gateway.ts';
import { READER } from './keys.ts';
import { MOST_WAITING } from './orders.ts';

const orderSchema = z.strictObject({
  text: z
    .string()
    .min(1)
    .max(160)
    .regex(/^[ -~]+$/),
  liveS: z.int().min(1).max(86_400),
});

/** Settings and nothing else: what switches something is an order. */
const settingsSchema = z.strictObject({
  frame: z.string().regex(/^[0-9a-f]{1,12}$/),
  lines: z
    .array(
      z
        .string()
        .max(160)
        .regex(/^(set [ -~]+|save)$/),
    )
    .min(1)
    .max(200),
});

export function boardRoutes({ keys, orders, settings, nowMs }: Gateway): Router {
  const router = routerOfIds();
  const at = '/gardens/:garden/boards/:board';
  router.post(`${at}/key`, async (request, response) => {
    const isStandIn = request.query.standIn === 'yes';
    const key = await keys.make(request.params.garden, request.params.board, nowMs(), isStandIn);
    response.set('Cache-Control', 'no-store').json({ key });
  });
  router.delete(`${at}/key`, async (request, response) => {
    await keys.revoke(request.params.garden, request.params.board);
    response.json({});
  });
  router.post('/gardens/:garden/reader', async (request, response) => {
    const key = await keys.make(request.params.garden, READER, nowMs());
    response.set('Cache-Control', 'no-store').json({ key });
  });
  router.delete('/gardens/:garden/reader', async (request, response) => {
    await keys.revoke(request.params.garden, READER);
    response.json({});
  });
  router.get(`${at}/orders`, (request, response) => {
    response.json({ orders: orders.all(request.params.garden, request.params.board) });
  });
  router.post(`${at}/orders`, express.json({ limit: 2000 }), async (request, response) => {
    const read = orderSchema.safeParse(request.body);
    if (!read.success) {
      response
        .status(400)
        .json({ error: 'An order is { text, liveS }: one plain line, and for how many seconds it holds.' });
      return;
    }
    const order = await orders.give(request.params.garden, request.params.board, read.data, nowMs());
    if (order) response.status(201).json({ order });
    else
      response
        .status(409)
        .json({ error: `${MOST_WAITING} orders wait for this board already. It is not there.` });
  });
  router.get(`${at}/settings`, (request, response) => {
    response.json({ settings: settings.of(request.params.garden, request.params.board) });
  });
  router.put(`${at}/settings`, express.json({ limit: 60_000 }), async (request, response) => {
    const read = settingsSchema.safeParse(request.body);
    if (!read.success) {
      response
        .status(400)
        .json({ error: 'Settings are { frame, lines }: lines that begin with "set", 160 letters at most.' });
      return;
    }
    const { garden, board } = request.params;
    response.json({ settings: await settings.leave(garden, board, read.data, nowMs()) });
  });
  router.delete(`${at}/settings`, async (request, response) => {
    await settings.withdraw(request.params.garden, request.params.board);
    response.json({});
  });
  return router;
}
