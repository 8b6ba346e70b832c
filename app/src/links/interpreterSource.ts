import { wrap, type Remote } from 'comlink';
import { allAnswers, NO_ANSWERS, type Answers } from '@plain-trowel/core/control/host/answers';
import type { LineOrder } from '@plain-trowel/core/control/host/engineHost';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import type { BoardPlan } from '@plain-trowel/core/sketch/plan';
import type { Program } from '@plain-trowel/core/sketch/loader/load';
import { setupOf, type Setup } from '@plain-trowel/standins/board/setup';
import { applyEdit, newWorld, type World } from '@plain-trowel/standins/board/world';
import { seedOf } from '@plain-trowel/standins/random';
import type { BoardJobs } from '../workers/board.worker.ts';
import { BoardTalk, type BoardAtTheLine } from '@plain-trowel/core/following/boardTalk';
import { handsOf } from './standInHands.ts';
import { LINE_EVERY_MS, LONGEST_TICK_MS, TICK_MS } from './standInSource.ts';
import type { Clock, Emit, LineSource, Orders, Speed } from './lineSource.ts';

/** One board of a garden running its very program in the page, against the stand-ins' pots; the other boards stand in. */
export class InterpreterSource implements LineSource, Orders, Clock {
  readonly label: string;
  readonly simulated = true;
  readonly can = { decides: true, records: true, isLive: true } as const;
  readonly orders = this;
  readonly clock = this;
  readonly hands = handsOf({
    world: () => this.world,
    setup: () => this.setup,
    edit: (edit) => {
      // Shown at once; the worker's world is what counts.
      this.world = applyEdit(this.world, this.setup, edit);
      void this.jobs?.edit(edit);
    },
    tell: (event) => this.emit?.({ kind: 'events', events: [event] }),
  });
  private pace: Speed = 1;
  private setup: Setup;
  private world: World;
  private own: Answers = NO_ANSWERS;
  private readonly talk: BoardTalk;
  private worker: Worker | null = null;
  private jobs: Remote<BoardJobs> | null = null;
  private timer: ReturnType<typeof setInterval> | null = null;
  private lastTickMs = 0;
  private isBusy = false;
  private emit: Emit | null = null;

  /**
   * @param remembered the world as the stand-ins left it, or null for a new one
   * @param nowMs the time to go on from, ms since 1970
   * @param tickClockMs a clock that never goes back, ms
   */
  constructor(
    private garden: Garden,
    readonly boardId: string,
    boardName: string,
    private readonly plan: BoardPlan,
    private readonly program: Program,
    remembered: World | null,
    nowMs: number,
    private readonly tickClockMs: () => number,
  ) {
    this.label = `${boardName}, its own program in this page`;
    this.setup = setupOf(garden);
    const startMs = Math.ceil(Math.max(nowMs, remembered?.timeMs ?? 0) / 1000) * 1000;
    this.world = { ...(remembered ?? newWorld(this.setup, startMs, seedOf(garden.id))), timeMs: startMs };
    this.talk = new BoardTalk(garden, boardId, true, (text) => void this.jobs?.type(text));
  }

  start(emit: Emit): void {
    this.emit = emit;
    emit({ kind: 'status', status: 'opening' });
    void this.open();
  }

  stop(): Promise<void> {
    if (this.timer) clearInterval(this.timer);
    this.worker?.terminate();
    this.timer = null;
    this.worker = null;
    this.jobs = null;
    this.emit = null;
    return Promise.resolve();
  }

  boardAt(boardId: string): BoardAtTheLine | null {
    return boardId === this.boardId ? this.talk.board : null;
  }

  get speed(): Speed {
    return this.pace;
  }

  setSpeed(speed: Speed): void {
    this.pace = speed;
  }

  nowMs(): number {
    return this.world.timeMs;
  }

  /** State to be kept for the next visit. */
  memory(): World {
    const { driven: _, ...world } = this.world;
    return world;
  }

  order(order: LineOrder): void {
    this.talk.order(order);
  }

  setGarden(garden: Garden): void {
    this.garden = garden;
    this.talk.garden = garden;
    this.setup = setupOf(garden);
    void this.jobs?.setGarden(garden);
  }

  private async open(): Promise<void> {
    const worker = new Worker(new URL('../workers/board.worker.ts', import.meta.url), { type: 'module' });
    this.worker = worker;
    const jobs = wrap<BoardJobs>(worker);
    const failed = new Promise<never>((_, reject) => {
      worker.onerror = (event) => reject(new Error(event.message));
    });
    try {
      await Promise.race([
        jobs.start(this.garden, this.boardId, this.plan, this.program, this.world),
        failed,
      ]);
    } catch {
      this.fail('The interpreter could not start in this browser. End it, and the stand-in boards go on.');
      return;
    }
    if (this.worker !== worker) return;
    this.jobs = jobs;
    this.lastTickMs = this.tickClockMs();
    this.emit?.({ kind: 'status', status: 'open' });
    void jobs.type('version');
    this.timer = setInterval(() => void this.tick(), TICK_MS);
  }

  /** Nothing runs any more, and it is said. */
  private fail(message: string): void {
    const { emit } = this;
    void this.stop();
    emit?.({ kind: 'status', status: 'failed', message });
  }

  private async tick(): Promise<void> {
    const { jobs } = this;
    if (!jobs || this.isBusy) return;
    this.isBusy = true;
    const now = this.tickClockMs();
    const passedMs = Math.min(LONGEST_TICK_MS, Math.max(0, now - this.lastTickMs));
    this.lastTickMs = now;
    const turn = await jobs.run(passedMs * this.pace, LINE_EVERY_MS[this.pace]).catch(() => undefined);
    this.isBusy = false;
    if (turn === undefined) this.fail('The interpreter broke off in the middle. Start it again, or end it.');
    if (!turn || this.jobs !== jobs) return;
    this.world = turn.world;
    if (turn.lines.length > 0) this.emit?.({ kind: 'lines', lines: turn.lines });
    if (turn.events.length > 0) this.emit?.({ kind: 'events', events: turn.events });
    for (const line of turn.lines) {
      if (line.boardId !== this.boardId) continue;
      for (const update of this.talk.hear(line.text, line.atMs)) {
        if (update.kind === 'answers') this.own = update.answers;
        else this.emit?.(update);
      }
    }
    this.talk.look(this.world.timeMs);
    const others = allAnswers(Object.values(this.world.boards));
    this.emit?.({ kind: 'answers', answers: { ...others, lines: { ...others.lines, ...this.own.lines } } });
  }
}
