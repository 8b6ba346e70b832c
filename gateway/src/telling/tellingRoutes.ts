/** What the owner sets and sees of telling: the ways, a test of each, the letters, and alerts that have been seen. */
import express, { Router } from 'express';
import { z } from '@plain-trowel/core/quantity/schema';
import { waysGivenSchema, WAYS, type Telling } from '@plain-trowel/core/protocol/telling';
import { fieldName, plainMessage } from '@plain-trowel/core/quantity/fieldName';
import type { Gateway } from '../gateway.ts';
import { routerOfIds } from '../ids.ts';

const NEWEST = 60;
const wayQuery = z.enum(WAYS);
const seenSchema = z.strictObject({ key: z.string().max(200), untilMs: z.number().nullable() });
const json = express.json({ limit: 10_000 });

export function tellingRoutes({ ways, outbox, teller, send, nowMs }: Gateway): Router {
  const router = Router();
  router.get('/telling', (_request, response) => {
    const telling: Telling = {
      ways: ways.shown(),
      letters: [...outbox.newest(NEWEST)],
      watched: [...teller.watched],
    };
    response.set('Cache-Control', 'no-store').json(telling);
  });
  router.put('/telling', json, async (request, response) => {
    const read = waysGivenSchema.safeParse(request.body);
    if (!read.success) {
      const [first] = read.error.issues;
      const where = first ? `${fieldName(first.path)}: ${plainMessage(first.message)}` : 'cannot be read';
      response.status(400).json({ error: where });
      return;
    }
    const missing = await ways.set(read.data);
    if (missing === null) response.json(ways.shown());
    else response.status(400).json({ error: missing });
  });
  router.post('/telling/test', async (request, response) => {
    const way = wayQuery.safeParse(request.query.way);
    if (!way.success) {
      response.status(400).json({ error: 'way: mail or webhook?' });
      return;
    }
    const sent = await send(`test-${nowMs().toString(36)}`, {
      way: way.data,
      gardenId: '',
      kind: 'test',
      subject: 'Plain Trowel: a test',
      text: 'A test of your alerts: nothing is wrong. If you read this, alerts come to you this way.',
      facts: {},
      madeMs: nowMs(),
      state: 'waiting',
      tries: 0,
      atMs: nowMs(),
      why: null,
    });
    response.json(sent.kind === 'sent' ? { sent: true, why: null } : { sent: false, why: sent.why });
  });
  router.post('/letters/:letter/again', async (request, response) => {
    const isThere = await outbox.again(request.params.letter, nowMs());
    response
      .status(isThere ? 200 : 404)
      .json(isThere ? {} : { error: 'This letter is not there, or was sent.' });
  });
  router.delete('/letters/:letter', async (request, response) => {
    await outbox.remove(request.params.letter);
    response.json({});
  });
  return router;
}

/** What a person does about an alert of a garden. */
export function seenRoutes({ teller }: Gateway): Router {
  const router = routerOfIds();
  router.post('/gardens/:garden/alerts/seen', json, async (request, response) => {
    const read = seenSchema.safeParse(request.body);
    if (!read.success) {
      response.status(400).json({ error: 'An alert is seen by { key, untilMs }; untilMs null: for good.' });
      return;
    }
    const { key, untilMs } = read.data;
    const isThere = await teller.seen(request.params.garden, key, untilMs);
    response
      .status(isThere ? 200 : 404)
      .json(isThere ? {} : { error: 'This alert does not stand any more.' });
  });
  return router;
}
