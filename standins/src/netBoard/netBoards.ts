/**
 * The stand-in boards of a garden as boards on a network are: they report every few seconds, keep what was not answered and send it again under its number, and take orders
 * from the answer, each once. How a report travels is somebody else's.
 */
import { allAnswers } from '@plain-trowel/core/control/host/answers';
import type { LineOrder } from '@plain-trowel/core/control/host/engineHost';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import type { Answer, Report } from '@plain-trowel/core/protocol/report';
import { initialLineParser, parseLine } from '@plain-trowel/core/signal/line';
import { advance, newWorld, orderLine, type World } from '../board/world.ts';
import { setupOf, type Setup } from '../board/setup.ts';
import { seedOf } from '../random.ts';
import { saidOfLine, skipOfLine, standingOfLine } from './said.ts';

/** Every so many ms the stand-ins look at their probes. */
const LOOK_EVERY_MS = 2000;
/** A board has room for so much that was not answered. */
const MOST_KEPT = { readings: 400, said: 80 };
/** The name of the program that a stand-in says it runs: none of ours has it. */
const PROGRAM = '000000000000';

type Timed<T> = T & { readonly atMs: number };
type Box = {
  readings: Timed<{ n: string; v: number }>[];
  said: Timed<{ text: string }>[];
  orders: Report['orders'][number][];
};
type Board = {
  readonly id: string;
  readonly lineIds: readonly string[];
  seq: number;
  /** Sent, and not answered. */
  sent: Box | null;
  next: Box;
  readonly known: Set<string>;
};

const emptyBox = (): Box => ({ readings: [], said: [], orders: [] });

export class NetBoards {
  private world: World;
  private readonly setup: Setup;
  private readonly boards: readonly Board[];
  private readonly waiting: { readonly board: Board; readonly orderId: string; readonly lineId: string }[] =
    [];

  /** @param boot another number for every start */
  constructor(
    garden: Garden,
    private readonly startMs: number,
    private readonly boot: number,
  ) {
    this.setup = setupOf(garden);
    this.world = newWorld(this.setup, Math.ceil(startMs / 1000) * 1000, seedOf(garden.id));
    this.boards = garden.boards.map(({ id }) => ({
      id,
      lineIds: this.setup.lines.flatMap(({ boardId, lineId }) => (boardId === id ? [lineId] : [])),
      seq: 0,
      sent: null,
      next: emptyBox(),
      known: new Set(),
    }));
  }

  get boardIds(): readonly string[] {
    return this.boards.map(({ id }) => id);
  }

  /** Lets time pass up to a moment. */
  live(nowMs: number): void {
    const { world, lines, events } = advance(this.world, this.setup, Math.floor(nowMs), LOOK_EVERY_MS);
    this.world = world;
    for (const { boardId, text, atMs } of lines) {
      const { result } = parseLine(initialLineParser, text);
      if (result.kind !== 'values') continue;
      for (const { name, value } of result.values)
        this.boardOf(boardId)?.next.readings.push({ n: name, v: value, atMs });
    }
    const answers = allAnswers(Object.values(world.boards)).lines;
    for (const event of events) {
      if ('contactId' in event) continue;
      const board = this.boardOf(event.boardId);
      const line = (board?.lineIds.indexOf(event.lineId) ?? -1) + 1;
      if (!board || line === 0) continue;
      const text = saidOfLine(event, line, answers[event.lineId]?.plannedS ?? 0);
      board.next.said.push({ text, atMs: event.atMs });
      this.settle(board, event.lineId, event.kind === 'refused' ? event.reason : null);
    }
    for (const { next } of this.boards) {
      next.readings = next.readings.slice(-MOST_KEPT.readings);
      next.said = next.said.slice(-MOST_KEPT.said);
    }
  }

  /** What a board reports now: what it has not been answered for, else what is new. */
  report(boardId: string, nowMs: number): Report | null {
    const board = this.boardOf(boardId);
    if (!board) return null;
    if (!board.sent) {
      const answers = allAnswers(Object.values(this.world.boards)).lines;
      const standing = board.lineIds.flatMap((id, at) => {
        const answer = answers[id];
        return answer
          ? [standingOfLine(answer, at + 1), ...skipOfLine(answer, at + 1, nowMs)].map((text) => ({
              text,
              atMs: nowMs,
            }))
          : [];
      });
      const version = [`# version 0 ${PROGRAM} engine 1`, `# lines ${board.lineIds.join(' ')}`];
      const first = board.lineIds.length > 0 && board.seq % 6 === 0 ? version : [];
      const said = [...first.map((text) => ({ text, atMs: nowMs })), ...board.next.said, ...standing];
      board.sent = { ...board.next, said };
      board.next = emptyBox();
      board.seq += 1;
    }
    const agoS = (atMs: number) => Math.max(0, Math.round((nowMs - atMs) / 100) / 10);
    const { readings, said, orders } = board.sent;
    return {
      board: board.id,
      boot: this.boot,
      seq: board.seq - 1,
      upS: Math.max(0, Math.floor((nowMs - this.startMs) / 1000)),
      program: PROGRAM,
      readings: readings.map(({ n, v, atMs }) => ({ n, v, agoS: agoS(atMs) })),
      said: said.map(({ text, atMs }) => ({ text, agoS: agoS(atMs) })),
      orders,
    };
  }

  /** The answer to a board's report: it forgets what it was answered for, and does what it is told. */
  answered(boardId: string, { seq, orders }: Answer): void {
    const board = this.boardOf(boardId);
    if (!board?.sent || seq !== board.seq - 1) return;
    board.sent = null;
    for (const { id, text } of orders) {
      if (board.known.has(id)) continue;
      board.known.add(id);
      const order = orderOf(text, board.lineIds);
      if (!order) {
        board.next.orders.push({
          id,
          state: 'refused',
          why: 'a stand-in knows give, stop, unlock and skip only',
        });
        continue;
      }
      this.world = orderLine(this.world, order);
      this.waiting.push({ board, orderId: id, lineId: order.lineId });
    }
  }

  /** Orders that a board has seen by now: it tells of each what came of it. */
  settleOrders(): void {
    for (const { board, lineId } of [...this.waiting]) this.settle(board, lineId, null);
  }

  private settle(board: Board, lineId: string, refusal: string | null): void {
    const at = this.waiting.findIndex((one) => one.board === board && one.lineId === lineId);
    const order = this.waiting[at];
    if (!order) return;
    this.waiting.splice(at, 1);
    const { orderId: id } = order;
    board.next.orders.push(
      refusal === null ? { id, state: 'taken' } : { id, state: 'refused', why: refusal },
    );
  }

  private boardOf(boardId: string): Board | null {
    return this.boards.find(({ id }) => id === boardId) ?? null;
  }
}

/** An order as it is typed at a console; null for one that is none of these. */
function orderOf(text: string, lineIds: readonly string[]): LineOrder | null {
  const [, kind, number, volume] = /^(give|stop|unlock|skip) (\d{1,3})(?: (\d{1,7}))?$/.exec(text) ?? [];
  const lineId = lineIds[Number(number) - 1];
  if (lineId === undefined) return null;
  if (kind === 'give')
    return volume === undefined ? null : { lineId, kind: 'water', volumeMl: Number(volume) };
  if (kind === 'skip') return volume === undefined ? null : { lineId, kind, forS: Number(volume) };
  return kind === 'stop' || kind === 'unlock' ? { lineId, kind } : null;
}
