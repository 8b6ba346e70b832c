/**
 * From readings to what they mean: present values, verdicts, faults, answers, signals and alerts, and what goes into the log. It knows no page, no port and no
 * clock: whoever runs it hands readings and times in, and asks.
 */
import { byId } from '../quantity/byId.ts';
import type { AlertStates } from '../control/alerts.ts';
import { signalOf, type SignalRule } from '../control/signals.ts';
import { NO_ANSWERS, type Answers } from '../control/host/answers.ts';
import type { StreamFault } from '../faults/streamFaults.ts';
import { probeScale } from '../garden/bind/channels.ts';
import { signalFacts, signalLimits, type Heard } from '../garden/bind/plotFacts.ts';
import { plotParts } from '../garden/bind/plotParts.ts';
import { isDeciding } from '../garden/bind/scale.ts';
import type { Channel, Garden } from '../garden/document/schema.ts';
import type { Settling } from '../settling/settlingWatch.ts';
import { captureValue, presentValue, WATCH_WINDOW, type PresentValue } from '../signal/presentValue.ts';
import type { StreamBuffer } from '../signal/streamBuffer.ts';
import { AlertWatch } from './alertWatch.ts';
import { ChannelWatch, type Window } from './channelWatch.ts';
import { HostedEngines } from './hostedEngines.ts';
import type { Notifier } from './notifier.ts';
import type { BoardReading } from './reading.ts';
import type { Recorder } from './recorder.ts';
import { silenceOf, type Silence } from './silence.ts';
import { Streams } from './streams.ts';

/** Channels whose faults are looked for at one time; the others have their turn at the next. */
const LOOKS_AT_ONCE = 4;
/** Settling fits that all channels together may cost in a second. */
const FITS_A_SECOND = 4;

/** Channels whose rest is watched: a switch only leaps. */
const isWatched = ({ quantity }: Channel): boolean => isDeciding(quantity) && quantity !== 'moisture switch';

/** Looks for a daily wave in a whole record, somewhere else. */
export type FindWave = (record: Window) => Promise<StreamFault | null>;

export type PipelineNeeds<Problem> = {
  readonly recorder: Pick<Recorder<Problem>, 'offer'>;
  readonly notifier: Notifier;
  readonly findWave: FindWave;
  /** Called when something was found out in the meantime. */
  readonly onFound: () => void;
};

export class LivePipeline<Problem> {
  readonly streams: Streams;
  readonly alerts: AlertWatch;
  private engines = new HostedEngines();
  private toldAnswers: Answers = NO_ANSWERS;
  private readonly watches = new Map<string, ChannelWatch>();
  private lookNext = 0;

  constructor(
    private garden: Garden,
    alerts: AlertStates,
    private readonly needs: PipelineNeeds<Problem>,
  ) {
    this.streams = new Streams(garden);
    this.alerts = new AlertWatch(alerts);
  }

  setGarden(garden: Garden): void {
    this.garden = garden;
    this.streams.setGarden(garden);
    for (const [channelId, watch] of this.watches) {
      const channel = byId(garden.channels, channelId);
      const buffer = this.bufferOf(channelId);
      if (channel && isWatched(channel) && buffer) watch.setScale(probeScale(garden, channel), buffer);
      else this.watches.delete(channelId);
    }
  }

  /** Another source: nothing of the last one is of it. */
  begin(): void {
    this.streams.clear();
    this.watches.clear();
    this.engines = new HostedEngines();
    this.toldAnswers = NO_ANSWERS;
  }

  get answers(): Answers {
    return this.toldAnswers;
  }

  /** What the boards themselves decide; nothing once nobody decides any more. */
  setAnswers(answers: Answers): void {
    this.toldAnswers = answers;
  }

  /** Takes a reading in, and offers it to the log where it is to be recorded. */
  take(reading: BoardReading, isRecording: boolean): void {
    const { boardId, atMs, values, flags, bundleMs = 0 } = reading;
    for (const named of values) {
      const { value } = named;
      const channel = this.streams.take(boardId, atMs, named, bundleMs);
      if (!channel) continue;
      if (isWatched(channel)) this.watchOf(channel).push(atMs, value);
      if (isRecording)
        this.needs.recorder.offer(
          channel.id,
          { timeMs: Math.round(atMs), raw: value, flags },
          this.garden.logEveryS,
        );
    }
  }

  /** Offers a reading of the past to the log; nothing of now is worked out from it. */
  record({ boardId, atMs, values, flags }: BoardReading): void {
    for (const { name, value } of values) {
      const channel = this.streams.channelOf(boardId, name);
      if (channel)
        this.needs.recorder.offer(
          channel.id,
          { timeMs: Math.round(atMs), raw: value, flags },
          this.garden.logEveryS,
        );
    }
  }

  /** Works out what the rules would answer, where no board does. */
  answer(nowMs: number): void {
    this.toldAnswers = this.engines.step(
      this.garden,
      (id) => this.lastOf(id),
      nowMs,
      (id) => this.watches.get(id)?.isMoving(nowMs) ?? false,
    );
  }

  /** Looks whether an alert is due, and tells it. */
  watchAlerts(nowMs: number, simulated: boolean): void {
    const due = this.alerts.step(this.garden, this.heard(nowMs), simulated);
    if (due.length > 0) this.needs.notifier.tell(due);
  }

  /** Tells the watch of a channel, or of all, that a hand is at work: what leaps now is no fault. */
  handled(nowMs: number, channelId?: string): void {
    for (const [id, watch] of this.watches)
      if (channelId === undefined || id === channelId) watch.handledAt(nowMs);
  }

  /** Time until a channel is within a share of its span of its end. */
  within(channelId: string, toleranceFrac: number): Settling['left'] {
    return this.watches.get(channelId)?.within(toleranceFrac) ?? null;
  }

  /** Looks for faults in a few channels at a time, so that sixteen cost no more at once than four. @param tickMs of a clock that never goes back */
  look(tickMs: number): void {
    const all = [...this.watches];
    for (let turn = 0; turn < Math.min(LOOKS_AT_ONCE, all.length); turn += 1) {
      const [channelId, watch] = all[this.lookNext % all.length] ?? [];
      this.lookNext += 1;
      const buffer = channelId === undefined ? null : this.bufferOf(channelId);
      if (!watch || !buffer) continue;
      watch.look(buffer, tickMs);
      const record = watch.recordForWave(buffer, tickMs);
      if (record)
        void this.needs.findWave(record).then((wave) => {
          watch.setWave(wave);
          this.needs.onFound();
        });
    }
  }

  /** The last minutes of a channel's stream; null while nothing came. */
  bufferOf(channelId: string): StreamBuffer | null {
    const channel = byId(this.garden.channels, channelId);
    return channel ? this.streams.bufferOf(channel) : null;
  }

  /** Of every channel that something came from lately; one that has fallen silent has no present value, only what it said last. */
  present(nowMs: number): Map<string, PresentValue> {
    const present = new Map<string, PresentValue>();
    for (const channel of this.garden.channels) {
      const buffer = this.streams.bufferOf(channel);
      const value = buffer && !silenceOf(buffer, nowMs) && presentValue(buffer, WATCH_WINDOW);
      if (value) present.set(channel.id, value);
    }
    return present;
  }

  /** What would be captured of a channel now: only readings after the last change; null while there are too few, or while it is silent. */
  capture(channelId: string, nowMs: number): PresentValue | null {
    const buffer = this.bufferOf(channelId);
    const sinceMs = this.watches.get(channelId)?.calmSinceMs ?? null;
    return buffer && sinceMs !== null && !silenceOf(buffer, nowMs) ? captureValue(buffer, sinceMs) : null;
  }

  /** Channels that have fallen silent, with what they said last. */
  silent(nowMs: number): Map<string, Silence> {
    return new Map(
      this.garden.channels.flatMap((channel): [string, Silence][] => {
        const buffer = this.streams.bufferOf(channel);
        const silence = buffer && silenceOf(buffer, nowMs);
        return silence ? [[channel.id, silence]] : [];
      }),
    );
  }

  /** Of every moisture channel that something comes from; no verdict outlives its data. */
  settling(nowMs: number): Map<string, Settling> {
    return new Map(this.heardWatches(nowMs).map(([id, watch]) => [id, watch.settling]));
  }

  faults(nowMs: number): Map<string, readonly StreamFault[]> {
    return new Map(this.heardWatches(nowMs).map(([id, watch]) => [id, watch.faults]));
  }

  private heardWatches(nowMs: number): [string, ChannelWatch][] {
    return [...this.watches].filter(([id]) => {
      const buffer = this.bufferOf(id);
      return buffer !== null && !silenceOf(buffer, nowMs);
    });
  }

  /** What the lamp of each plot says, by plot. */
  signals(nowMs: number): Record<string, SignalRule> {
    const heard = this.heard(nowMs);
    return Object.fromEntries(
      this.garden.plots.flatMap((plot) => {
        const seen = signalFacts(this.garden, plot.id, heard);
        // Between its last word and the time from which it counts as faulty, nothing is known of a silent probe's plot.
        const isSilent = seen !== null && !seen.isFaulty && this.isSilent(plot.id, nowMs);
        const facts = isSilent ? { ...seen, tenths: null, unknown: 'stale' as const } : seen;
        const signal = facts && signalOf(this.garden.signals, facts, signalLimits(plot));
        return signal ? [[plot.id, signal]] : [];
      }),
    );
  }

  private isSilent(plotId: string, nowMs: number): boolean {
    const heard = (plotParts(this.garden, plotId)?.deciders.channels ?? []).flatMap(
      (channel) => this.streams.bufferOf(channel) ?? [],
    );
    return heard.length > 0 && heard.every((buffer) => silenceOf(buffer, nowMs) !== null);
  }

  /** What is heard, as facts about the garden are asked for. */
  heard(nowMs: number): Heard {
    return {
      nowMs,
      newest: (channelId) => this.lastOf(channelId),
      isLocked: (lineId) => this.toldAnswers.lines[lineId]?.isLocked ?? null,
      isOn: (lineId) => this.toldAnswers.lines[lineId]?.isOn ?? false,
    };
  }

  private lastOf(channelId: string): { raw: number; timeMs: number } | null {
    const last = this.bufferOf(channelId)?.last();
    return last ? { raw: last.value, timeMs: last.timeMs } : null;
  }

  private watchOf(channel: Channel): ChannelWatch {
    const held = this.watches.get(channel.id);
    if (held) return held;
    const watch = new ChannelWatch(probeScale(this.garden, channel), this.paceOf(channel));
    this.watches.set(channel.id, watch);
    return watch;
  }

  /** Up to four moisture channels are fitted each second; more take turns, so that no moment has many of them. */
  private paceOf(channel: Channel): { everyS: number; phaseS: number } {
    const all = this.garden.channels.filter(isWatched);
    const everyS = Math.max(1, all.length / FITS_A_SECOND);
    const at = all.findIndex((one) => one.id === channel.id);
    return { everyS, phaseS: all.length > FITS_A_SECOND ? (at / all.length) * everyS : 0 };
  }
}
