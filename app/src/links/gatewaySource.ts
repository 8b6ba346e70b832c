import { standingAlertsSchema, toldSchema } from '@plain-trowel/core/protocol/telling';
import { byId } from '@plain-trowel/core/quantity/byId';
import { parseJson } from '@plain-trowel/core/quantity/parseJson';
import type { z } from '@plain-trowel/core/quantity/schema';
import { entrySchema, helloSchema, orderSchema } from '@plain-trowel/core/protocol/feed';
import type { AlertStates } from '@plain-trowel/core/control/alerts';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import type { LineOrder } from '@plain-trowel/core/control/host/engineHost';
import type { BoardAtTheLine } from '@plain-trowel/core/following/boardTalk';
import { NetworkBoards } from '@plain-trowel/core/following/networkBoards';
import type { Gateway } from './gatewayClient.ts';
import type { AlertsElsewhere, Emit, LineSource, Orders } from './lineSource.ts';

/** What the source hears by; the browser's own, or one in a test. */
export type Feed = Pick<EventSource, 'addEventListener' | 'close' | 'readyState'>;

export type GatewayNeeds = {
  readonly client: Pick<Gateway, 'fetched' | 'order' | 'seen' | 'session' | 'feedUrl'>;
  readonly openFeed: (url: string) => Feed;
  /** Writes away what was told; true once all of it is on disk. */
  readonly keep: () => Promise<boolean>;
  readonly nowMs: () => number;
};

/** A skip may come later: boards that sleep fetch it at their next waking, s. */
const SKIP_LIVES_S = 1800;
/** An order by hand that nobody fetched for so long is not given any more, s. */
const ORDER_LIVES_S = 120;
/** So often it is noted at the gateway what is on this disk, ms. */
const NOTE_EVERY_MS = 5000;
/** After a refusal it is tried again, ms. */
const AGAIN_MS = 5000;
const CLOSED = 2;
const SLICE_MS = 12;

/** The boards of a garden that report to the gateway: what they have said since this browser last looked, and then as they say it. */
export class GatewaySource implements LineSource, Orders {
  readonly label = 'Boards over the network';
  readonly clock = null;
  readonly hands = null;
  readonly orders = this;
  private readonly boards: NetworkBoards;
  /** Alerts as the gateway told them last; null: it does not watch this garden. */
  private alertStates: AlertStates | null = null;
  private feed: Feed | null = null;
  private emit: Emit | null = null;
  private store = '';
  /** Up to this entry everything has been told. */
  private toldTo = 0;
  private notedTo = 0;
  private offsetMs = 0;
  private saying: Promise<void> = Promise.resolve();
  /** Boards that were asked for their limits. */
  private readonly asked = new Set<string>();
  /** Entries as they came, and how many of them were taken in. */
  private arrived: string[] = [];
  private taken = 0;
  private isWaiting = false;
  private timer: ReturnType<typeof setInterval> | null = null;
  private again: ReturnType<typeof setTimeout> | null = null;

  /** @param app by which name this browser is known to the gateway */
  constructor(
    private garden: Garden,
    private readonly app: string,
    private readonly needs: GatewayNeeds,
  ) {
    this.boards = new NetworkBoards(garden, {
      nowMs: () => this.nowMs(),
      // One after the other: two at once may arrive the other way round.
      say: (boardId, text) => {
        this.saying = this.saying.then(() => this.say(boardId, text));
      },
      emit: (update) => this.emit?.(update),
    });
  }

  /** As soon as one of them is a stand-in: what is taken from here may be its. */
  get simulated(): boolean {
    return this.boards.simulated;
  }

  /** The boards decide once one of them has said that it runs a program of ours. */
  get can(): LineSource['can'] {
    return {
      decides: this.boards.decide,
      records: true,
      isLive: true,
    };
  }

  get alerts(): AlertsElsewhere | null {
    if (!this.alertStates) return null;
    const seen = (key: string, untilMs: number | null) => void this.tellSeen(key, untilMs);
    return { seen: (key) => seen(key, null), putOff: seen };
  }

  boardAt(boardId: string): BoardAtTheLine | null {
    return this.boards.boardAt(boardId);
  }

  setGarden(garden: Garden): void {
    this.garden = garden;
    this.boards.setGarden(garden);
  }

  start(emit: Emit): void {
    this.emit = emit;
    emit({ kind: 'status', status: 'opening' });
    this.open();
    this.timer = setInterval(() => this.look(), NOTE_EVERY_MS);
  }

  async stop(): Promise<void> {
    if (this.timer) clearInterval(this.timer);
    if (this.again) clearTimeout(this.again);
    this.feed?.close();
    this.feed = null;
    this.forget();
    await this.note();
    this.emit = null;
  }

  /** The gateway's clock: by it the times of readings are told. */
  nowMs(): number {
    return this.needs.nowMs() + this.offsetMs;
  }

  order(order: LineOrder): void {
    const line = byId(this.garden.waterLines, order.lineId);
    if (line) this.boards.talkOf(line.boardId).order(order);
  }

  private open(): void {
    const feed = this.needs.openFeed(this.needs.client.feedUrl(this.garden.id, this.app));
    this.feed = feed;
    const on = <T>(kind: string, schema: z.ZodType<T>, take: (what: T) => void) =>
      feed.addEventListener(kind, (event) => {
        const read = schema.safeParse(parseJson(String(event.data)));
        if (read.success && this.feed === feed) take(read.data);
      });
    on('hello', helloSchema, ({ store, after, nowMs }) => {
      // What waits is of the connection before.
      this.forget();
      this.alertStates = null;
      // Another store counts anew; in the same one nothing is told twice.
      if (store !== this.store) [this.store, this.toldTo] = [store, after];
      this.offsetMs = nowMs - this.needs.nowMs();
      this.emit?.({ kind: 'status', status: 'open' });
    });
    feed.addEventListener('entry', (event) => {
      if (this.feed !== feed) return;
      this.arrived.push(String(event.data));
      this.takeSoon();
    });
    on('alerts', standingAlertsSchema, ({ states }) => {
      this.alertStates = states;
      this.emit?.({ kind: 'alerts', states });
    });
    on('told', toldSchema, (told) => this.emit?.({ kind: 'told', ...told }));
    on('order', orderSchema, ({ boardId, state, why }) => {
      // Told as the board would at its console.
      if (state === 'refused') this.boards.hear(boardId, `# no: ${why ?? 'refused'}`, this.nowMs(), null);
      if (state === 'expired')
        this.boards.hear(boardId, `# no: ${why ?? 'the board did not fetch it in time'}`, this.nowMs(), null);
      if (state === 'taken' || state === 'done') this.boards.hear(boardId, '# taken', this.nowMs(), null);
    });
    feed.addEventListener('error', () => this.broken(feed));
  }

  /** Where the gateway did not hear it, the alert stands here as it does there. */
  private async tellSeen(key: string, untilMs: number | null): Promise<void> {
    const done = await this.needs.client.seen(this.garden.id, key, untilMs);
    if (!done.ok && this.alertStates) this.emit?.({ kind: 'alerts', states: this.alertStates });
  }

  /** A connection that broke is made again by the browser; one that was refused is not. */
  private broken(feed: Feed): void {
    if (this.feed !== feed) return;
    this.emit?.({
      kind: 'status',
      status: 'opening',
      message: 'The gateway does not answer. It is tried again.',
    });
    if (feed.readyState !== CLOSED) return;
    feed.close();
    this.again = setTimeout(() => void this.askAgain(feed), AGAIN_MS);
  }

  private async askAgain(feed: Feed): Promise<void> {
    const session = await this.needs.client.session();
    if (this.feed !== feed) return;
    if (session.ok && !session.value.isIn)
      this.emit?.({
        kind: 'status',
        status: 'failed',
        message: 'The gateway asks for its passphrase. Enter it below.',
      });
    else this.open();
  }

  /** The browser hands over what a week has brought in one go: it is taken in slices, so that the page stays awake. */
  private takeSoon(): void {
    if (this.isWaiting) return;
    this.isWaiting = true;
    setTimeout(() => {
      this.isWaiting = false;
      const endMs = performance.now() + SLICE_MS;
      while (this.arrived.length > this.taken && performance.now() < endMs) this.takeNext();
      if (this.arrived.length > this.taken) this.takeSoon();
      else this.forget();
    });
  }

  private takeNext(): void {
    const read = entrySchema.safeParse(parseJson(this.arrived[this.taken] ?? ''));
    this.taken += 1;
    if (!read.success || read.data.n <= this.toldTo) return;
    this.toldTo = read.data.n;
    this.boards.take(read.data, this.store);
  }

  private forget(): void {
    this.arrived = [];
    this.taken = 0;
  }

  private look(): void {
    this.boards.look();
    // A board says its limits once after its start; a page that was not there then asks, once.
    for (const { boardId, program, type } of this.boards.here())
      if (Object.keys(program.limits).length === 0 && !this.asked.has(boardId)) {
        this.asked.add(boardId);
        type('limits');
      }
    void this.note();
  }

  private async say(boardId: string, text: string): Promise<void> {
    const livesS = text.startsWith('skip ') ? SKIP_LIVES_S : ORDER_LIVES_S;
    const given = await this.needs.client.order(this.garden.id, boardId, text, livesS);
    if (given.ok) return;
    const why = given.issue.kind === 'refused' ? given.issue.text : 'the gateway does not answer';
    this.boards.hear(boardId, `# no: ${why}`, this.nowMs(), null);
  }

  /** What is on this browser's disk need not be kept for it any longer. */
  private async note(): Promise<void> {
    const { toldTo, store } = this;
    if (toldTo <= this.notedTo || !(await this.needs.keep())) return;
    const { app } = this;
    const noted = await this.needs.client.fetched(this.garden.id, {
      app,
      name: browserName(app),
      store,
      n: toldTo,
    });
    if (noted.ok) this.notedTo = toldTo;
  }
}

/** By which name a person may know a browser again among others. */
export const browserName = (app: string): string => `browser ${app.slice(0, 4)}`;
