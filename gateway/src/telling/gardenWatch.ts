/** Watches one published garden as a page would: the same pipeline over what its boards report, with nobody looking. */
import type { AlertStates } from '@plain-trowel/core/control/alerts';
import { NetworkBoards, type NetworkUpdate } from '@plain-trowel/core/following/networkBoards';
import { tankNow } from '@plain-trowel/core/garden/bind/plotFacts';
import { plotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import { LivePipeline } from '@plain-trowel/core/live/pipeline';
import { decidedView, type Kept } from '@plain-trowel/core/live/plotView';
import type { Entry } from '@plain-trowel/core/protocol/feed';
import { byId } from '@plain-trowel/core/quantity/byId';
import type { EventDraft } from '@plain-trowel/core/records/event';
import type { AlertDraft } from '@plain-trowel/core/telling/letters';
import type { NowKnown } from '@plain-trowel/core/telling/needs';

/** What comes to be told: each alert, marked where it is a stand-in's. */
export type Tell = (alerts: readonly AlertDraft[]) => void;

const NOTHING_HEARD = new Map<string, never>();

export class GardenWatch {
  readonly boards: NetworkBoards;
  private readonly pipeline: LivePipeline<never>;
  private readonly standIns = new Set<string>();
  private expected: ReadonlySet<string> = new Set();
  private isWarming = true;

  /** @param states alerts as they stood when the gateway ended */
  constructor(
    public garden: Garden,
    states: AlertStates,
    private readonly nowMs: () => number,
    tell: Tell,
  ) {
    this.boards = new NetworkBoards(garden, {
      nowMs,
      // It only listens: what boards are told is the page's business.
      say: () => undefined,
      emit: (update) => this.hear(update),
    });
    this.pipeline = new LivePipeline(garden, states, {
      recorder: { offer: () => undefined },
      notifier: { tell: (due) => tell(due.filter(isAlert).map((one) => this.marked(one))) },
      findWave: () => Promise.resolve(null),
      onFound: () => undefined,
    });
  }

  setGarden(garden: Garden): void {
    this.garden = garden;
    this.boards.setGarden(garden);
    this.pipeline.setGarden(garden);
  }

  take(entry: Entry, store: string): void {
    if (entry.simulated) this.standIns.add(entry.boardId);
    else this.standIns.delete(entry.boardId);
    this.boards.take(entry, store);
  }

  /** What was kept of the time before has been taken in: from here on old readings say nothing of now. */
  warm(): void {
    this.isWarming = false;
  }

  /** One look, each second. */
  step(): void {
    const nowMs = this.nowMs();
    this.boards.look();
    if (!this.boards.decide) this.pipeline.answer(nowMs);
    this.pipeline.watchAlerts(nowMs, false);
  }

  get states(): AlertStates {
    return this.pipeline.alerts.memory();
  }

  seen(key: string): void {
    this.pipeline.alerts.acknowledge(key);
  }

  putOff(key: string, untilMs: number): void {
    this.pipeline.alerts.snooze(key, untilMs);
  }

  /** Some of what it goes by is a stand-in's. */
  get simulated(): boolean {
    return this.standIns.size > 0;
  }

  /** The newest reading of each channel: what alerts are judged by, and no mean of several. */
  private newest(): Map<string, Kept> {
    return new Map(
      this.garden.channels.flatMap(({ id }): [string, Kept][] => {
        const last = this.pipeline.bufferOf(id)?.last();
        return last ? [[id, { raw: last.value, timeMs: last.timeMs }]] : [];
      }),
    );
  }

  readingOf(channelId: string): (Kept & { readonly simulated: boolean }) | null {
    const last = this.pipeline.bufferOf(channelId)?.last();
    const boardId = byId(this.garden.channels, channelId)?.boardId;
    return last
      ? { raw: last.value, timeMs: last.timeMs, simulated: this.standIns.has(boardId ?? '') }
      : null;
  }

  /** How a plot stands by what alerts go by. */
  viewOf(plotId: string): ReturnType<NowKnown['viewOf']> {
    const parts = plotParts(this.garden, plotId);
    const nowMs = this.nowMs();
    const now = { nowMs, present: NOTHING_HEARD, silent: NOTHING_HEARD };
    return parts && decidedView(this.garden, parts, now, this.newest());
  }

  /** What the lamp of each plot says, by plot. */
  signals(): ReturnType<LivePipeline<never>['signals']> {
    return this.pipeline.signals(this.nowMs());
  }

  /** Boards that may report here. */
  expect(boardIds: readonly string[]): void {
    this.expected = new Set(boardIds);
  }

  /** Whether the board that reads a plot reports here. */
  isHere(plotId: string): boolean {
    const boardId = plotParts(this.garden, plotId)?.board?.id;
    return boardId !== undefined && this.expected.has(boardId);
  }

  /** @param boards that should be reporting, and whether each ever has */
  known(
    boards: readonly { readonly boardId: string; readonly hasReported: boolean }[],
    unsent: NowKnown['unsent'],
  ): NowKnown {
    const { garden } = this;
    const views = new Map(garden.plots.map(({ id }) => [id, this.isHere(id) ? this.viewOf(id) : null]));
    return {
      garden,
      nowMs: this.nowMs(),
      viewOf: (plotId) => views.get(plotId) ?? null,
      active: this.pipeline.alerts.active(garden),
      pending: this.pipeline.alerts.pending(garden),
      boards: boards.map(({ boardId, hasReported }) => {
        const heardMs = this.boards.heardMs(boardId);
        return { boardId, heardMs, isLost: heardMs === null && hasReported };
      }),
      unknownTanks: this.unknownTanks(),
      unsent,
    };
  }

  /** Of those whose level is read by a board that reports here, or by none. */
  private unknownTanks(): readonly string[] {
    const heard = this.pipeline.heard(this.nowMs());
    return this.garden.reservoirs
      .filter((tank) => {
        const boardId = byId(this.garden.channels, tank.channelId)?.boardId;
        return (boardId === undefined || this.expected.has(boardId)) && tankNow(tank, heard) === null;
      })
      .map(({ id }) => id);
  }

  /** What a line gave in the last 24 h, as its board says; null where none says it. */
  given(lineId: string): number | null {
    const line = byId(this.garden.waterLines, lineId);
    const isTold = line !== undefined && this.boards.boardAt(line.boardId) !== null;
    return isTold ? (this.pipeline.answers.lines[lineId]?.givenMl ?? null) : null;
  }

  private hear(update: NetworkUpdate): void {
    if (update.kind === 'answers') this.pipeline.setAnswers(update.answers);
    if (update.kind === 'readings' || (update.kind === 'past' && this.isWarming))
      for (const reading of update.readings) this.pipeline.take(reading, false);
  }

  /** An alert is a stand-in's where the board is that it rests on. */
  private marked(alert: AlertDraft): AlertDraft {
    const { garden } = this;
    const channelId =
      alert.channelId ?? garden.reservoirs.find(({ name }) => name === alert.subject)?.channelId;
    const boardId =
      alert.boardId ??
      byId(garden.channels, channelId)?.boardId ??
      (alert.plotId === null ? undefined : plotParts(garden, alert.plotId)?.board?.id);
    return { ...alert, simulated: boardId !== undefined && this.standIns.has(boardId) };
  }
}

const isAlert = (event: EventDraft): event is AlertDraft => event.kind === 'alert';
