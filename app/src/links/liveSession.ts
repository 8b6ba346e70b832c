/**
 * One garden's live readings: takes lines from whichever source is open, parses them, keeps the last minutes for the screen, hands what
 * is due to the recorder, and publishes a snapshot five times a second at most, however fast the lines come.
 */
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import type { EventDraft } from '@plain-trowel/core/records/event';
import { isMoment, isoOf } from '@plain-trowel/core/quantity/moment';
import { FLAGS } from '@plain-trowel/core/records/series';
import {
  initialLineParser,
  parseLine,
  type LineParserState,
  type NotUnderstood,
} from '@plain-trowel/core/signal/line';
import { presentValue, WATCH_WINDOW, type PresentValue } from '@plain-trowel/core/signal/presentValue';
import type { StreamBuffer } from '@plain-trowel/core/signal/streamBuffer';
import type { Line, LineSource, SourceStatus, SourceUpdate } from './lineSource.ts';
import type { LineFault } from '@plain-trowel/core/faults/lineFaults';
import type { StreamFault } from '@plain-trowel/core/faults/streamFaults';
import { probeScale } from '@plain-trowel/core/garden/bind/channels';
import type { Settling } from '@plain-trowel/core/settling/settlingWatch';
import type { LineAnswers } from '@plain-trowel/core/control/host/answers';
import { signalOf, type SignalRule } from '@plain-trowel/core/control/signals';
import type { AlertStates } from '@plain-trowel/core/control/alerts';
import { signalFacts, signalLimits, type Heard } from '@plain-trowel/core/garden/bind/plotFacts';
import { AlertWatch, type ActiveAlert } from './alertWatch.ts';
import { BenchRecorder } from './benchRecorder.ts';
import { ChannelWatch } from './channelWatch.ts';
import { LinesWatch } from './linesWatch.ts';
import { PageEngines } from './pageEngines.ts';
import { Recorder, type RecorderState, type Save } from './recorder.ts';
import { Streams, type StreamInfo } from './streams.ts';

export type { StreamInfo };
export type BadLine = { readonly text: string; readonly reason: NotUnderstood };

export type LiveSnapshot = {
  readonly source: LineSource | null;
  readonly status: SourceStatus | 'none';
  readonly message: string | null;
  readonly recording: boolean;
  /** Time of the source, or of the page while none is open, ms since 1970. */
  readonly nowMs: number;
  readonly understood: number;
  readonly notUnderstood: number;
  /** Lines that arrived within the last seconds, and the time they took. */
  readonly recent: { readonly lines: number; readonly durationS: number };
  readonly badLines: readonly BadLine[];
  readonly streams: readonly StreamInfo[];
  /** Names beyond those that are kept. */
  readonly moreStreams: number;
  readonly present: ReadonlyMap<string, PresentValue>;
  /** Of every moisture channel that something came from. */
  readonly settling: ReadonlyMap<string, Settling>;
  readonly faults: ReadonlyMap<string, readonly StreamFault[]>;
  readonly lineFault: LineFault | null;
  /** Lines of the bench recording under way and since when; null while none is. */
  readonly benchRecording: { readonly lines: number; readonly sinceMs: number } | null;
  /** By water line. */
  readonly answers: LineAnswers;
  /** What the lamp of each plot says, by plot; none while nothing is connected. */
  readonly signals: Readonly<Record<string, SignalRule>>;
  readonly alerts: readonly ActiveAlert[];
  readonly recorder: RecorderState;
  /** The source's clock says a time that no garden has, so nothing is recorded. */
  readonly clockIsWrong: boolean;
};

const PUBLISH_MS = 200;
const RATE_WINDOW_MS = 5000;
/** Channels whose faults are looked for at one publishing; the others have their turn at the next. */
const LOOKS_AT_ONCE = 4;

/** Settling fits that all channels together may cost in a second. */
const FITS_A_SECOND = 4;

export class LiveSession {
  private source: LineSource | null = null;
  private status: LiveSnapshot['status'] = 'none';
  private message: string | null = null;
  private recording = true;
  private understood = 0;
  private notUnderstood = 0;
  private badLines: BadLine[] = [];
  private arrivals: { atMs: number; lines: number }[] = [];
  private readonly streams: Streams;
  private parsers = new Map<string, LineParserState>();
  private answers: LineAnswers = {};
  private engines = new PageEngines();
  private readonly watches = new Map<string, ChannelWatch>();
  private linesWatch: LinesWatch;
  private readonly bench = new BenchRecorder();
  private lookNext = 0;
  private readonly listeners = new Set<() => void>();
  private publishTimer: ReturnType<typeof setTimeout> | null = null;
  private readonly secondTimer: ReturnType<typeof setInterval>;
  private readonly recorder: Recorder;
  private readonly alertWatch: AlertWatch;
  private snapshot: LiveSnapshot;

  constructor(
    private garden: Garden,
    save: Save,
    private readonly clocks: { nowMs: () => number; tickMs: () => number },
    alerts: AlertStates = {},
    onRecorder: (state: RecorderState) => void = () => undefined,
  ) {
    this.streams = new Streams(garden);
    this.alertWatch = new AlertWatch(alerts);
    this.linesWatch = new LinesWatch(clocks.tickMs());
    this.recorder = new Recorder(save, (state) => {
      onRecorder(state);
      this.publishSoon();
    });
    // Ages and waiting times go on although no line comes.
    this.secondTimer = setInterval(() => {
      this.answerInPage();
      this.watchAlerts();
      this.publishSoon();
    }, 1000);
    this.snapshot = this.take();
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly getSnapshot = (): LiveSnapshot => this.snapshot;

  setGarden(garden: Garden): void {
    this.garden = garden;
    this.streams.setGarden(garden);
    for (const [channelId, watch] of this.watches) {
      const channel = garden.channels.find((one) => one.id === channelId);
      const buffer = this.bufferOf(channelId);
      if (channel?.quantity === 'moisture' && buffer) watch.setScale(probeScale(garden, channel), buffer);
      else this.watches.delete(channelId);
    }
    this.publishSoon();
  }

  /** Tells the watch of a channel, or of all, that a hand is at work: what leaps now is no fault. */
  handled(channelId?: string): void {
    const nowMs = this.nowMs();
    for (const [id, watch] of this.watches)
      if (channelId === undefined || id === channelId) watch.handledAt(nowMs);
  }

  /** Time until a channel is within a share of its span of its end. */
  within(channelId: string, toleranceFrac: number): Settling['left'] {
    return this.watches.get(channelId)?.within(toleranceFrac) ?? null;
  }

  /** Takes lines from beside the source, such as the bus desk's: kept and shown as if the board had printed them. */
  feed(lines: readonly Line[], simulated: boolean): void {
    for (const line of lines) this.readLine({ simulated, fromFile: false }, line);
    this.publishSoon();
  }

  /** Begins to write down every line as it comes. */
  startBench(): void {
    const { source } = this;
    if (!source) return;
    const nowMs = source.nowMs();
    this.bench.start(
      {
        garden: this.garden.name,
        source: source.label,
        startedAt: isoOf(nowMs),
        simulated: source.simulated,
      },
      nowMs,
    );
    this.publish();
  }

  /** The bench recording as a file's text; null when there was none. */
  stopBench(): string | null {
    const text = this.bench.stop();
    this.publish();
    return text;
  }

  /** The last minutes of a channel's stream; empty while nothing came. */
  bufferOf(channelId: string): StreamBuffer | null {
    const channel = this.garden.channels.find((one) => one.id === channelId);
    return channel ? this.streams.bufferOf(channel) : null;
  }

  /** A source as it happens records from the start; what a file holds is taken in as one import, not as it plays. */
  async connect(source: LineSource): Promise<void> {
    await this.disconnect();
    this.source = source;
    this.recording = source.mayRecord && !source.fromFile;
    this.understood = 0;
    this.notUnderstood = 0;
    this.badLines = [];
    this.arrivals = [];
    this.streams.clear();
    this.watches.clear();
    this.linesWatch = new LinesWatch(this.clocks.tickMs());
    this.parsers = new Map();
    this.engines = new PageEngines();
    this.message = null;
    source.start((update) => this.receive(source, update));
    this.publish();
  }

  async disconnect(): Promise<void> {
    const { source } = this;
    this.source = null;
    this.status = 'none';
    this.answers = {};
    await source?.stop();
    await this.recorder.flush();
    this.publish();
  }

  /** Whether readings go into the log; refused for a source that plays a file. */
  setRecording(recording: boolean): void {
    this.recording = recording && this.source !== null && this.source.mayRecord && !this.source.fromFile;
    this.publish();
  }

  /** Shows at once what was changed on the source itself, such as its pace. */
  refresh(): void {
    this.publish();
  }

  /** Puts an event into the log with the next write. @returns false when it cannot be one, as with a time that no garden has */
  note(event: EventDraft): boolean {
    return this.recorder.note([event], 'person');
  }

  /** The person has seen an alert: it is not told again before it is over. */
  acknowledgeAlert(key: string): void {
    this.alertWatch.acknowledge(key);
    this.noteAlert(key, 'acknowledged');
  }

  /** An alert is told again after a while, if it is still so. */
  snoozeAlert(key: string, forS: number): void {
    this.alertWatch.snooze(key, this.nowMs() + forS * 1000);
    this.noteAlert(key, 'snoozed');
  }

  private noteAlert(key: string, phase: 'acknowledged' | 'snoozed'): void {
    const event = this.alertWatch.eventOf(
      this.garden,
      key,
      phase,
      this.nowMs(),
      this.source?.simulated ?? false,
    );
    if (event) this.recorder.note([event], 'person');
    this.publish();
  }

  private nowMs(): number {
    return this.source?.nowMs() ?? this.clocks.nowMs();
  }

  alertMemory(): AlertStates {
    return this.alertWatch.memory();
  }

  flush(): Promise<void> {
    return this.recorder.flush();
  }

  /** How the recorder stands at this moment; the snapshot may be a fifth of a second behind. */
  recorderState(): RecorderState {
    return this.recorder.state;
  }

  /** What is not on disk yet. */
  waiting(): ReturnType<Recorder['waiting']> {
    return this.recorder.waiting();
  }

  async close(): Promise<void> {
    clearInterval(this.secondTimer);
    await this.disconnect();
    if (this.publishTimer) clearTimeout(this.publishTimer);
  }

  private receive(source: LineSource, update: SourceUpdate): void {
    if (source !== this.source) return;
    switch (update.kind) {
      case 'lines':
        this.arrivals.push({ atMs: this.clocks.tickMs(), lines: update.lines.length });
        for (const line of update.lines) this.readLine(source, line);
        this.answerInPage();
        break;
      case 'bytes':
        this.linesWatch.bytes(update.bytes, update.baudRate);
        break;
      case 'status':
        this.status = update.status;
        this.message = update.message ?? null;
        break;
      case 'answers':
        this.answers = update.answers;
        break;
      case 'events':
        this.recorder.note(update.events, 'person');
        break;
    }
    this.publishSoon();
  }

  private readLine(source: Pick<LineSource, 'simulated' | 'fromFile'>, line: Line): void {
    const { state, result } = parseLine(this.parsers.get(line.boardId) ?? initialLineParser, line.text);
    this.parsers.set(line.boardId, state);
    this.bench.take(line);
    if (result.kind !== 'blank')
      this.linesWatch.line(
        this.clocks.tickMs(),
        result.kind === 'not-understood' && result.reason === 'garbage',
      );
    if (result.kind === 'not-understood') {
      this.notUnderstood += 1;
      this.badLines = [...this.badLines.slice(-4), { text: line.text.slice(0, 120), reason: result.reason }];
    }
    if (result.kind !== 'values') return;
    this.understood += 1;
    const flags = source.simulated ? FLAGS.simulated : 0;
    for (const { name, value } of result.values) {
      const channel = this.streams.take(line.boardId, name, line.atMs, value);
      if (channel?.quantity === 'moisture') this.watchOf(channel).push(line.atMs, value);
      if (channel && this.recording)
        this.recorder.offer(
          channel.id,
          { timeMs: Math.round(line.atMs), raw: value, flags },
          this.garden.logEveryS,
        );
    }
  }

  /** Up to four moisture channels are fitted each second; more take turns, so that no moment has many of them. */
  private paceOf(channel: Garden['channels'][number]): { everyS: number; phaseS: number } {
    const all = this.garden.channels.filter((one) => one.quantity === 'moisture');
    const everyS = Math.max(1, all.length / FITS_A_SECOND);
    const at = all.findIndex((one) => one.id === channel.id);
    return { everyS, phaseS: all.length > FITS_A_SECOND ? (at / all.length) * everyS : 0 };
  }

  private watchOf(channel: Garden['channels'][number]): ChannelWatch {
    const held = this.watches.get(channel.id);
    if (held) return held;
    const watch = new ChannelWatch(probeScale(this.garden, channel), this.paceOf(channel));
    this.watches.set(channel.id, watch);
    return watch;
  }

  /** Looks for faults in a few channels at a time, so that sixteen cost no more at once than four. */
  private lookForFaults(): void {
    const all = [...this.watches];
    for (let turn = 0; turn < Math.min(LOOKS_AT_ONCE, all.length); turn += 1) {
      const [channelId, watch] = all[this.lookNext % all.length] ?? [];
      this.lookNext += 1;
      const buffer = channelId === undefined ? null : this.bufferOf(channelId);
      if (watch && buffer) watch.look(buffer);
    }
  }

  /** A stand-in decides on its own board; for every other source the page works out what the rules would answer. */
  private answerInPage(): void {
    if (!this.source || this.source.kind === 'stand-in') return;
    this.answers = this.engines.step(this.garden, (id) => this.lastOf(id), this.source.nowMs());
  }

  private lastOf(channelId: string): { raw: number; timeMs: number } | null {
    const last = this.bufferOf(channelId)?.last();
    return last ? { raw: last.value, timeMs: last.timeMs } : null;
  }

  private heard(source: LineSource): Heard {
    return {
      nowMs: source.nowMs(),
      newest: (channelId) => this.lastOf(channelId),
      isLocked: (lineId) => this.answers[lineId]?.isLocked ?? null,
    };
  }

  /** Alerts are of what happens now; a file tells of the past. */
  private watchAlerts(): void {
    const { source } = this;
    if (!source || source.fromFile || this.status !== 'open') return;
    this.recorder.note(this.alertWatch.step(this.garden, this.heard(source), source.simulated));
  }

  private signals(): Record<string, SignalRule> {
    const { source } = this;
    if (!source) return {};
    const heard = this.heard(source);
    return Object.fromEntries(
      this.garden.plots.flatMap((plot) => {
        const facts = signalFacts(this.garden, plot.id, heard);
        const signal = facts && signalOf(this.garden.signals, facts, signalLimits(plot));
        return signal ? [[plot.id, signal]] : [];
      }),
    );
  }

  private publishSoon(): void {
    this.publishTimer ??= setTimeout(() => this.publish(), PUBLISH_MS);
  }

  private publish(): void {
    if (this.publishTimer) clearTimeout(this.publishTimer);
    this.publishTimer = null;
    this.snapshot = this.take();
    for (const listener of this.listeners) listener();
  }

  private take(): LiveSnapshot {
    const nowMs = this.nowMs();
    this.lookForFaults();
    const watched = [...this.watches];
    const present = new Map<string, PresentValue>();
    for (const channel of this.garden.channels) {
      const buffer = this.bufferOf(channel.id);
      const value = buffer && presentValue(buffer, WATCH_WINDOW);
      if (value) present.set(channel.id, value);
    }
    return {
      source: this.source,
      status: this.status,
      message: this.message,
      recording: this.recording,
      nowMs,
      understood: this.understood,
      notUnderstood: this.notUnderstood,
      recent: this.recentLines(),
      badLines: this.badLines,
      streams: this.streams.all(),
      moreStreams: this.streams.more,
      present,
      settling: new Map(watched.map(([id, watch]) => [id, watch.settling])),
      faults: new Map(watched.map(([id, watch]) => [id, watch.faults])),
      lineFault:
        this.status === 'open' && this.source && !this.source.fromFile
          ? this.linesWatch.fault(this.clocks.tickMs())
          : null,
      benchRecording:
        this.bench.lines === null ? null : { lines: this.bench.lines, sinceMs: this.bench.sinceMs },
      answers: this.answers,
      signals: this.signals(),
      alerts: this.alertWatch.active(this.garden),
      recorder: this.recorder.state,
      clockIsWrong: this.source !== null && !isMoment(nowMs),
    };
  }

  private recentLines(): { lines: number; durationS: number } {
    const now = this.clocks.tickMs();
    this.arrivals = this.arrivals.filter((one) => now - one.atMs <= RATE_WINDOW_MS);
    const lines = this.arrivals.reduce((sum, one) => sum + one.lines, 0);
    return { lines, durationS: Math.max(1, (now - (this.arrivals[0]?.atMs ?? now)) / 1000) };
  }
}
