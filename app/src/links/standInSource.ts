import { allAnswers } from '@plain-trowel/core/control/host/answers';
import type { LineOrder } from '@plain-trowel/core/control/host/engineHost';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { gardenEventOf } from '@plain-trowel/standins/board/worldEvent';
import {
  advance,
  applyEdit,
  GARBAGE_SPEEDS,
  newWorld,
  orderLine,
  reboot,
  type World,
} from '@plain-trowel/standins/board/world';
import { setupOf, type Setup } from '@plain-trowel/standins/board/setup';
import { seedOf } from '@plain-trowel/standins/random';
import { handsOf } from './standInHands.ts';
import type { Clock, Emit, LineSource, Orders, Speed } from './lineSource.ts';

/** Distance of printed lines by the stand-in's clock: about 2 to 6 lines a second for the person who watches. */
export const LINE_EVERY_MS: Readonly<Record<Speed, number>> = { 1: 500, 10: 2000, 60: 10_000 };
export const TICK_MS = 100;
/** A tab that slept does not make up for it: the stand-ins slept too. */
export const LONGEST_TICK_MS = 5000;

/** The stand-in boards of a garden, living in the page. */
export class StandInSource implements LineSource, Orders, Clock {
  readonly label = 'Stand-in boards';
  readonly simulated = true;
  readonly can = { decides: true, records: true, isLive: true } as const;
  readonly orders = this;
  readonly clock = this;
  readonly hands = handsOf({
    world: () => this.world,
    setup: () => this.setup,
    edit: (edit) => {
      this.world = applyEdit(this.world, this.setup, edit);
    },
    tell: (event) => this.emit?.({ kind: 'events', events: [event] }),
  });
  readonly boardAt = () => null;
  private pace: Speed = 1;
  private world: World;
  private setup: Setup;
  private targetMs: number;
  private lastTickMs = 0;
  private timer: ReturnType<typeof setInterval> | null = null;
  private emit: Emit | null = null;

  /**
   * @param remembered the world as it was left, or null for a new one
   * @param nowMs the time to go on from, ms since 1970; a world that ran ahead keeps its own time
   * @param tickClockMs a clock that never goes back, ms
   */
  constructor(
    garden: Garden,
    remembered: World | null,
    nowMs: number,
    private readonly tickClockMs: () => number,
  ) {
    this.setup = setupOf(garden);
    // Boards print on whole seconds, so the first line waits for the next one.
    const startMs = Math.ceil(Math.max(nowMs, remembered?.timeMs ?? 0) / 1000) * 1000;
    const world = remembered ?? newWorld(this.setup, startMs, seedOf(garden.id));
    this.world = reboot(world, this.setup, startMs);
    this.targetMs = Math.max(nowMs, remembered?.timeMs ?? 0);
  }

  start(emit: Emit): void {
    this.emit = emit;
    this.lastTickMs = this.tickClockMs();
    emit({ kind: 'status', status: 'open' });
    this.run(0);
    this.timer = setInterval(() => this.tick(), TICK_MS);
  }

  stop(): Promise<void> {
    if (this.timer) clearInterval(this.timer);
    this.timer = null;
    this.emit = null;
    return Promise.resolve();
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
    return this.world;
  }

  /** New calibration, limits or guards: what a board would get with its next sketch. */
  setGarden(garden: Garden): void {
    this.setup = setupOf(garden);
  }

  /** An order by hand; what came of it is told at once. */
  order(order: LineOrder): void {
    this.world = orderLine(this.world, order);
    this.run(0);
  }

  private tick(): void {
    const now = this.tickClockMs();
    const passedMs = Math.min(LONGEST_TICK_MS, Math.max(0, now - this.lastTickMs));
    this.lastTickMs = now;
    this.run(passedMs * this.pace);
  }

  private run(durationMs: number): void {
    this.targetMs += durationMs;
    const { world, lines, events } = advance(
      this.world,
      this.setup,
      Math.floor(this.targetMs),
      LINE_EVERY_MS[this.pace],
    );
    this.world = world;
    const garbage = lines.filter((line) => world.boardFaults[line.boardId] === 'garbage');
    if (garbage.length > 0) {
      const bytes = Uint8Array.from(garbage.map((line) => line.text).join(''), (one) => one.charCodeAt(0));
      this.emit?.({ kind: 'bytes', bytes, baudRate: GARBAGE_SPEEDS.readBaud });
    }
    if (lines.length > 0) this.emit?.({ kind: 'lines', lines });
    const told = events.flatMap(gardenEventOf);
    if (told.length > 0) this.emit?.({ kind: 'events', events: told });
    if (lines.length > 0 || events.length > 0)
      this.emit?.({ kind: 'answers', answers: allAnswers(Object.values(this.world.boards)) });
  }
}
