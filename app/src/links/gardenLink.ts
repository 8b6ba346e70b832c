import type { FindWave } from '@plain-trowel/core/live/pipeline';
import type { StorageProblem } from '../data/storageProblem.ts';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import type { LinkMemory } from '../data/linkStore.ts';
import { freshName } from '../data/eventIds.ts';
import { BusDesk } from './busDesk.ts';
import { LiveSession } from './liveSession.ts';
import type { RecorderState, Save } from '@plain-trowel/core/live/recorder';
import { byId } from '@plain-trowel/core/quantity/byId';
import type { BoardPlan } from '@plain-trowel/core/sketch/plan';
import type { Program } from '@plain-trowel/core/sketch/loader/load';
import { gateway } from './gatewayClient.ts';
import { GatewaySource } from './gatewaySource.ts';
import { InterpreterSource } from './interpreterSource.ts';
import { StandInSource } from './standInSource.ts';

const REMEMBER_MS = 5000;

/** The link of an open garden: its live session, and what its stand-in boards remember from visit to visit. */
export class GardenLink {
  readonly session: LiveSession;
  readonly bus: BusDesk;
  private readonly timer: ReturnType<typeof setInterval>;

  /**
   * @param memory what was left of the last visit; with `openAtStart` the stand-ins go on at once
   * @param exclusive no other tab holds this garden's link; otherwise nothing is opened and nothing is remembered here
   */
  constructor(
    private garden: Garden,
    private memory: LinkMemory,
    readonly exclusive: boolean,
    private readonly store: {
      addRecords: Save;
      saveMemory: (memory: LinkMemory) => Promise<void>;
      onRecorder?: (state: RecorderState<StorageProblem>) => void;
      findWave?: FindWave;
    },
    private readonly clocks: { nowMs: () => number; tickMs: () => number },
  ) {
    this.session = new LiveSession(
      garden,
      store.addRecords,
      clocks,
      memory.alerts,
      store.onRecorder,
      store.findWave,
    );
    this.bus = new BusDesk(clocks);
    this.timer = setInterval(() => void this.remember(), REMEMBER_MS);
    if (memory.gateway?.openAtStart && exclusive) void this.openGateway();
    else if (memory.openAtStart && exclusive) void this.openStandIn();
  }

  setGarden(garden: Garden): void {
    this.garden = garden;
    this.session.setGarden(garden);
  }

  async openStandIn(): Promise<void> {
    await this.session.connect(
      new StandInSource(this.garden, this.memory.world, this.clocks.nowMs(), this.clocks.tickMs),
    );
    await this.remember();
  }

  /** Listens to what the boards report to the gateway. */
  async openGateway(): Promise<void> {
    await this.remember();
    const app = this.app();
    this.memory = {
      ...this.memory,
      world: this.standIn()?.memory() ?? this.memory.world,
      openAtStart: false,
      gateway: { app, openAtStart: true },
    };
    await this.session.connect(
      new GatewaySource(this.garden, app, {
        client: gateway,
        openFeed: (url) => new EventSource(url),
        keep: async () => {
          await this.session.flush();
          const { readings, events } = this.session.recorderState().waiting;
          return readings === 0 && events === 0;
        },
        nowMs: this.clocks.nowMs,
      }),
    );
    await this.remember();
  }

  /** By which name this browser is known to the gateway; made when it is first asked for. */
  app(): string {
    const app = this.memory.gateway?.app ?? freshName().slice(0, 24);
    this.memory = { ...this.memory, gateway: { openAtStart: false, ...this.memory.gateway, app } };
    return app;
  }

  /** Lets a board run its very program in the page, against the stand-ins' pots. */
  async openProgram(boardId: string, plan: BoardPlan, program: Program): Promise<void> {
    await this.remember();
    const name = byId(this.garden.boards, boardId)?.name ?? 'Board';
    const { nowMs, tickMs } = this.clocks;
    await this.session.connect(
      new InterpreterSource(this.garden, boardId, name, plan, program, this.memory.world, nowMs(), tickMs),
    );
  }

  /** Closes whatever is open; the next visit begins unconnected. */
  async disconnect(): Promise<void> {
    this.memory = {
      ...this.memory,
      world: this.standIn()?.memory() ?? this.memory.world,
      openAtStart: false,
      ...this.silent(),
    };
    await this.session.disconnect();
    await this.remember();
  }

  /** Writes away all there is, as when the page is being left. */
  async leave(): Promise<void> {
    this.session.putBy();
    await Promise.all([this.session.flush(), this.remember()]);
  }

  async dispose(): Promise<void> {
    clearInterval(this.timer);
    await this.bus.disconnect();
    await this.leave();
    await this.session.close();
  }

  /** The made-up world, whoever runs it now. */
  private standIn(): StandInSource | InterpreterSource | null {
    const { source } = this.session.getSnapshot();
    return source instanceof StandInSource || source instanceof InterpreterSource ? source : null;
  }

  /** Another source was chosen after the gateway. */
  private silent(): Pick<LinkMemory, 'gateway'> {
    const { gateway: known } = this.memory;
    return known ? { gateway: { ...known, openAtStart: false } } : {};
  }

  private async remember(): Promise<void> {
    if (!this.exclusive) return;
    const standIn = this.standIn();
    if (standIn)
      this.memory = { ...this.memory, world: standIn.memory(), openAtStart: true, ...this.silent() };
    this.memory = { ...this.memory, alerts: this.session.alertMemory() };
    // The next turn tries again; that storage fails is told by the recorder, whose records matter more.
    await this.store.saveMemory(this.memory).catch(() => undefined);
  }
}
