/** What an app gets: everything a garden's boards have said since what it has on its own disk, and then what they say as they say it (server-sent events). */
import express, { type Response, type Router } from 'express';
import { z } from '@plain-trowel/core/quantity/schema';
import type { Order } from '../boards/orders.ts';
import type { Gateway } from '../gateway.ts';
import { idSchema, routerOfIds } from '../ids.ts';

/** Entries that are read at a time, so that boards need not wait while an app catches up. */
const AT_ONCE = 200;
/** A line that says nothing, so that a connection that is broken is noticed. */
const ALIVE_MS = 15_000;
/** An app that does not read what it is sent is cut off; it begins again where it was. */
const MOST_WAITING_BYTES = 8_000_000;

const cursorSchema = z.strictObject({
  app: idSchema,
  name: z.string().max(60),
  store: z.string().max(60),
  n: z.int().min(0),
});

export function feedRoutes(gateway: Gateway): Router {
  const { mailbox, nowMs } = gateway;
  const router = routerOfIds();
  router.get('/gardens/:garden/feed', (request, response) => {
    const app = idSchema.safeParse(request.query.app);
    if (!app.success) {
      response.status(400).json({ error: 'app: which app is it that listens?' });
      return;
    }
    const { garden } = request.params;
    new Feed(gateway, garden, response).start(mailbox.cursorOf(garden, app.data), nowMs());
  });
  router.post('/gardens/:garden/fetched', express.json({ limit: 2000 }), async (request, response) => {
    const read = cursorSchema.safeParse(request.body);
    if (!read.success) {
      response.status(400).json({ error: 'What an app has fetched is { app, name, n }.' });
      return;
    }
    const { app, store, ...to } = read.data;
    if (store !== mailbox.store.id) {
      response.status(409).json({ error: 'These numbers are of another mailbox. Listen again.' });
      return;
    }
    await mailbox.fetched(request.params.garden, app, to, nowMs());
    response.json({ fetchedTo: mailbox.holding(request.params.garden, nowMs()).fetchedTo });
  });
  router.delete('/gardens/:garden/apps/:app', async (request, response) => {
    await mailbox.forgetApp(request.params.garden, request.params.app);
    response.json({});
  });
  return router;
}

/** One app that listens. */
class Feed {
  private isCaughtUp = false;
  private readonly stops: (() => void)[] = [];

  constructor(
    private readonly gateway: Gateway,
    private readonly gardenId: string,
    private readonly response: Response,
  ) {}

  start(after: number, nowMs: number): void {
    const { mailbox, orders, teller } = this.gateway;
    this.response.writeHead(200, {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      // A proxy on the way must not gather what is meant for now.
      'x-accel-buffering': 'no',
    });
    this.send('hello', { store: mailbox.store.id, after, nowMs });
    this.response.on('close', () => this.stop());
    const alive = setInterval(() => this.response.write(':\n\n'), ALIVE_MS);
    this.stops.push(() => clearInterval(alive));
    this.stops.push(
      mailbox.onEntry((gardenId, entry) => {
        if (gardenId === this.gardenId && this.isCaughtUp) this.send('entry', entry, entry.n);
      }),
      orders.onChange((gardenId, boardId, order) => {
        if (gardenId === this.gardenId) this.send('order', { boardId, ...order } satisfies Told);
      }),
    );
    this.stops.push(
      teller.onChange((gardenId, { kind, ...what }) => {
        if (gardenId === this.gardenId) this.send(kind, kind === 'told' ? { ...what, isNew: true } : what);
      }),
    );
    // An app that missed some has them all once more: each is known by its name.
    const states = teller.statesOf(this.gardenId);
    if (states) this.send('alerts', { states });
    const events = teller.toldOf(this.gardenId);
    if (events.length > 0) this.send('told', { events, isNew: false });
    this.catchUp(after);
  }

  /** What came before, in portions and only as fast as it is taken. */
  private catchUp(after: number): void {
    const { mailbox } = this.gateway;
    if (this.response.closed) return;
    const entries = mailbox.after(this.gardenId, after, AT_ONCE);
    for (const entry of entries) this.send('entry', entry, entry.n);
    const last = entries.at(-1)?.n ?? after;
    // Numbers may be missing where something could not be read; only the end of all of them is the end.
    if (entries.length < AT_ONCE && mailbox.after(this.gardenId, last, 1).length === 0) {
      this.isCaughtUp = true;
      this.send('caught-up', { n: last });
    } else if (this.response.writableNeedDrain) this.response.once('drain', () => this.catchUp(last));
    else setImmediate(() => this.catchUp(last));
  }

  private send(
    kind: 'hello' | 'entry' | 'order' | 'alerts' | 'told' | 'caught-up',
    what: object,
    n?: number,
  ): void {
    if (this.response.writableLength > MOST_WAITING_BYTES) {
      this.response.destroy();
      return;
    }
    const id = n === undefined ? '' : `id: ${n}\n`;
    this.response.write(`${id}event: ${kind}\ndata: ${JSON.stringify(what)}\n\n`);
  }

  private stop(): void {
    for (const stop of this.stops) stop();
  }
}

type Told = Order & { readonly boardId: string };
