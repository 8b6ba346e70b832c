/**
 * What a board is told to do: a line for its console, with a life. It goes out with every answer until the board says what became of it, and a board takes an id once, so it
 * is done once; when its life is over it goes to nobody any more.
 */
import { randomBytes } from 'node:crypto';
import type { Answer, Report } from '@plain-trowel/core/protocol/report';
import { z } from '@plain-trowel/core/quantity/schema';
import { KeptTable } from '../mailbox/keptTable.ts';
import type { Store } from '../mailbox/store.ts';

const orderSchema = z.strictObject({
  id: z.string(),
  text: z.string(),
  madeMs: z.number(),
  untilMs: z.number(),
  /** `waiting` until the board has said something about it; `expired` when it never did. */
  state: z.enum(['waiting', 'taken', 'refused', 'done', 'expired']),
  why: z.string().optional(),
  /** The start of the board that it was told to; absent: it has gone out with no answer yet. */
  toldTo: z.string().optional(),
});
export type Order = z.infer<typeof orderSchema>;

/** Orders that one answer carries at most; the others wait. */
const AT_ONCE = 20;
/** What became of an order is remembered for so long, ms. */
const REMEMBERED_MS = 7 * 86_400_000;
const RESTARTED = 'the board restarted after it was told; whether it had begun nobody knows';
/** Orders of one board that may wait. */
export const MOST_WAITING = 100;

export class Orders {
  private readonly table: KeptTable<Order>;
  private readonly listeners = new Set<(gardenId: string, boardId: string, order: Order) => void>();

  /** Boards that have orders waiting: asked with every report, so it is kept in mind. */
  private readonly called: Set<string>;
  private lastMs = 0;

  constructor(store: Store) {
    this.table = new KeptTable(store, 'order', orderSchema);
    this.called = new Set(
      this.table
        .all()
        .filter(({ value }) => value.state === 'waiting')
        .map(({ name }) => boardOf(name)),
    );
  }

  /** Called when an order has been made, or something has become of it. @returns how to call it off */
  onChange(listener: (gardenId: string, boardId: string, order: Order) => void): () => void {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  /** Gives a board an order. @returns null where too many wait already */
  async give(
    gardenId: string,
    boardId: string,
    { text, liveS }: { readonly text: string; readonly liveS: number },
    nowMs: number,
  ): Promise<Order | null> {
    if (this.waiting(gardenId, boardId, nowMs).length >= MOST_WAITING) return null;
    // By name they stand in the order in which they were given, also those of one moment.
    this.lastMs = Math.max(nowMs, this.lastMs + 1);
    const id = `o${this.lastMs.toString(36)}-${randomBytes(6).toString('hex')}`;
    const order: Order = { id, text, madeMs: nowMs, untilMs: nowMs + liveS * 1000, state: 'waiting' };
    await this.become(gardenId, boardId, order);
    this.called.add(boardOf(nameOf(gardenId, boardId, id)));
    return order;
  }

  all(gardenId: string, boardId: string): readonly Order[] {
    return this.table.all(nameOf(gardenId, boardId, '')).map(({ value }) => value);
  }

  private waiting(gardenId: string, boardId: string, nowMs: number): readonly Order[] {
    return this.all(gardenId, boardId).filter(({ state, untilMs }) => state === 'waiting' && untilMs > nowMs);
  }

  /**
   * What the next answer carries. What was told to an earlier start of the board is not told again: a board does not remember through a restart which orders it has obeyed, and
   * a pump that pulls its supply down is the very thing that restarts it.
   * @param start by which the starts of the board are told apart
   */
  async forAnswer(
    gardenId: string,
    boardId: string,
    start: string,
    nowMs: number,
  ): Promise<Answer['orders']> {
    const board = boardOf(nameOf(gardenId, boardId, ''));
    if (!this.called.has(board)) return [];
    const waiting = this.waiting(gardenId, boardId, nowMs);
    if (waiting.length === 0) this.called.delete(board);
    const told: Order[] = [];
    for (const order of waiting.slice(0, AT_ONCE)) {
      if (order.toldTo !== undefined && order.toldTo !== start)
        await this.become(gardenId, boardId, { ...order, state: 'expired', why: RESTARTED });
      else {
        // On disk before it goes out, or a gateway that is killed would not know.
        if (order.toldTo === undefined) await this.keep(gardenId, boardId, { ...order, toldTo: start });
        told.push(order);
      }
    }
    return told.map(({ id, text, untilMs }) => ({
      id,
      text,
      liveS: Math.max(1, Math.floor((untilMs - nowMs) / 1000)),
    }));
  }

  /** Takes in what a board says about its orders. What it once refused or has done stays so. */
  async heard(gardenId: string, boardId: string, orders: Report['orders']): Promise<void> {
    for (const { id, state, why } of orders) {
      const name = nameOf(gardenId, boardId, id);
      const before = this.table.get(name);
      if (!before || before.state === state || before.state === 'done' || before.state === 'refused')
        continue;
      await this.become(gardenId, boardId, { ...before, state, ...(why === undefined ? {} : { why }) });
    }
  }

  /** Ends what nobody took in time, and forgets what is long over. */
  async tidy(nowMs: number): Promise<void> {
    for (const { name, value } of this.table.all()) {
      if (nowMs - value.untilMs > REMEMBERED_MS) await this.table.remove(name);
      else if (value.state === 'waiting' && value.untilMs <= nowMs) {
        const [gardenId = '', boardId = ''] = name.split(SEPARATOR);
        await this.become(gardenId, boardId, { ...value, state: 'expired' });
      }
    }
  }

  private keep(gardenId: string, boardId: string, order: Order): Promise<void> {
    return this.table.put(nameOf(gardenId, boardId, order.id), order);
  }

  /** Keeps what has become of an order, and tells it. */
  private async become(gardenId: string, boardId: string, order: Order): Promise<void> {
    await this.keep(gardenId, boardId, order);
    for (const listener of this.listeners) listener(gardenId, boardId, order);
  }
}

/** Stands in no id. */
const SEPARATOR = ' ';
const nameOf = (gardenId: string, boardId: string, id: string): string =>
  [gardenId, boardId, id].join(SEPARATOR);
const boardOf = (name: string): string => name.slice(0, name.lastIndexOf(SEPARATOR));
