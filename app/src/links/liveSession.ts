/**
 * One garden's live readings: takes lines from whichever source is open, parses them, keeps the last minutes for the screen, hands what
 * is due to the recorder, and publishes a snapshot four times a second at most, however fast the lines come.
 */
import { NO_ANSWERS } from '@plain-trowel/core/control/host/answers';
import { LivePipeline, type FindWave } from '@plain-trowel/core/live/pipeline';
import { byId } from '@plain-trowel/core/quantity/byId';
import { named } from '../data/eventIds.ts';
import { problemOf, type StorageProblem } from '../data/storageProblem.ts';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import type { BoardReading } from '@plain-trowel/core/live/reading';
import type { EventDraft } from '@plain-trowel/core/records/event';
import { isMoment, isoOf } from '@plain-trowel/core/quantity/moment';
import type { PresentValue } from '@plain-trowel/core/signal/presentValue';
import type { StreamBuffer } from '@plain-trowel/core/signal/streamBuffer';
import type { Line, LineSource, SourceUpdate } from './lineSource.ts';
import type { Settling } from '@plain-trowel/core/settling/settlingWatch';
import type { AlertStates } from '@plain-trowel/core/control/alerts';
import { BenchRecorder } from './benchRecorder.ts';
import { tellHere } from './tellHere.ts';
import { LineReader } from './lineReader.ts';
import type { LiveSnapshot } from './liveSnapshot.ts';
import { Recorder, type RecorderState, type Save } from '@plain-trowel/core/live/recorder';
import { NOTHING_SAID } from '@plain-trowel/core/garden/document/migrations';

const PUBLISH_MS = 250;

/** All of a garden that decides what its lines say. */
const readingOf = ({ boards, channels }: Garden): string =>
  JSON.stringify([
    boards.map(({ id, reads }) => [id, reads.comma, reads.picked]),
    channels.map(({ id, boardId, streamName, quantity }) => [id, boardId, streamName, quantity]),
  ]);

export class LiveSession {
  private source: LineSource | null = null;
  private status: LiveSnapshot['status'] = 'none';
  private message: string | null = null;
  private recording = true;
  private lines: LineReader;
  private readonly bench: BenchRecorder;
  private readonly listeners = new Set<() => void>();
  private publishTimer: ReturnType<typeof setTimeout> | null = null;
  private readonly secondTimer: ReturnType<typeof setInterval>;
  private readonly recorder: Recorder<StorageProblem>;
  private readonly pipeline: LivePipeline<StorageProblem>;
  private snapshot: LiveSnapshot;

  constructor(
    private garden: Garden,
    save: Save,
    private readonly clocks: { nowMs: () => number; tickMs: () => number },
    alerts: AlertStates = {},
    onRecorder: (state: RecorderState<StorageProblem>) => void = () => undefined,
    findWave: FindWave = () => Promise.resolve(null),
  ) {
    this.lines = this.newReader();
    this.bench = new BenchRecorder(`plain-trowel bench ${garden.id}`, tabStore());
    this.recorder = new Recorder({
      save,
      named,
      problemOf,
      after: (ms, run) => {
        const timer = setTimeout(run, ms);
        return () => clearTimeout(timer);
      },
      report: (state) => {
        onRecorder(state);
        this.publishSoon();
      },
    });
    this.pipeline = new LivePipeline(garden, alerts, {
      recorder: this.recorder,
      notifier: {
        tell: (due) => {
          this.recorder.note(due);
          for (const one of due) tellHere(one);
        },
      },
      findWave,
      onFound: () => this.publishSoon(),
    });
    // Ages and waiting times go on although no line comes.
    this.secondTimer = setInterval(() => {
      this.answerInPage();
      this.watchAlerts();
      this.pipeline.look(this.clocks.tickMs());
      this.publishSoon();
    }, 1000);
    this.snapshot = this.take();
  }

  private newReader(): LineReader {
    return new LineReader(
      this.clocks.tickMs,
      (boardId) => byId(this.garden.boards, boardId)?.reads ?? NOTHING_SAID,
    );
  }

  /** What came under a name that nobody has claimed; null for one that was never heard. */
  bufferUnder(boardId: string, name: string): StreamBuffer | null {
    return this.pipeline.streams.bufferUnder(boardId, name);
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly getSnapshot = (): LiveSnapshot => this.snapshot;

  setGarden(garden: Garden): void {
    const isReadOtherwise = readingOf(garden) !== readingOf(this.garden);
    this.garden = garden;
    this.pipeline.setGarden(garden);
    this.source?.setGarden?.(garden);
    // A board goes on by itself; a file that has come to its end is read again under what is now known of its names.
    if (isReadOtherwise && this.source?.can.isLive === false && this.status === 'ended')
      void this.connect(this.source);
    this.publishSoon();
  }

  /** Tells the watch of a channel, or of all, that a hand is at work: what leaps now is no fault. */
  handled(channelId?: string): void {
    this.pipeline.handled(this.nowMs(), channelId);
  }

  /** Time until a channel is within a share of its span of its end. */
  within(channelId: string, toleranceFrac: number): Settling['left'] {
    return this.pipeline.within(channelId, toleranceFrac);
  }

  /** What would be captured of a channel now; null while there is too little to capture. */
  captureOf(channelId: string): PresentValue | null {
    return this.pipeline.capture(channelId, this.nowMs());
  }

  /** Takes lines from beside the source, such as the bus desk's: kept and shown as if the board had printed them. */
  feed(lines: readonly Line[], simulated: boolean): void {
    for (const line of lines) this.readLine(simulated, line);
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

  /** Puts by what a reload must not lose. */
  putBy(): void {
    this.bench.putBy();
  }

  /** The bench recording as a file's text; null when there was none. */
  stopBench(): string | null {
    const text = this.bench.stop();
    this.publish();
    return text;
  }

  /** The last minutes of a channel's stream; empty while nothing came. */
  bufferOf(channelId: string): StreamBuffer | null {
    return this.pipeline.bufferOf(channelId);
  }

  /** A source as it happens records from the start; what a file holds is taken in as one import, not as it plays. */
  async connect(source: LineSource): Promise<void> {
    await this.disconnect();
    this.source = source;
    this.recording = source.can.records;
    this.pipeline.begin();
    this.lines = this.newReader();
    this.message = null;
    source.start((update) => this.receive(source, update));
    this.publish();
  }

  async disconnect(): Promise<void> {
    const { source } = this;
    this.source = null;
    this.status = 'none';
    this.pipeline.setAnswers(NO_ANSWERS);
    await source?.stop();
    await this.recorder.flush();
    this.publish();
  }

  /** Whether readings go into the log; refused for a source that plays a file. */
  setRecording(recording: boolean): void {
    this.recording = recording && this.source?.can.records === true;
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
    this.pipeline.alerts.acknowledge(key);
    this.source?.alerts?.seen(key);
    this.noteAlert(key, 'acknowledged');
  }

  /** An alert is told again after a while, if it is still so. */
  snoozeAlert(key: string, forS: number): void {
    const untilMs = this.nowMs() + forS * 1000;
    this.pipeline.alerts.snooze(key, untilMs);
    this.source?.alerts?.putOff(key, untilMs);
    this.noteAlert(key, 'snoozed');
  }

  private noteAlert(key: string, phase: 'acknowledged' | 'snoozed'): void {
    const event = this.pipeline.alerts.eventOf(
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
    return this.pipeline.alerts.memory();
  }

  flush(): Promise<void> {
    return this.recorder.flush();
  }

  /** How the recorder stands at this moment; the snapshot may be a fifth of a second behind. */
  recorderState(): RecorderState<StorageProblem> {
    return this.recorder.state;
  }

  /** What is not on disk yet. */
  waiting(): ReturnType<Recorder<StorageProblem>['waiting']> {
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
        this.lines.arrived(update.lines.length);
        for (const line of update.lines) this.readLine(source.simulated, line);
        this.answerInPage();
        break;
      case 'readings':
        this.lines.arrived(update.readings.length);
        for (const reading of update.readings) this.takeReading(reading);
        this.answerInPage();
        break;
      case 'past':
        if (this.recording) for (const reading of update.readings) this.pipeline.record(reading);
        break;
      case 'bytes':
        this.lines.bytes(update.bytes, update.baudRate);
        break;
      case 'status':
        this.status = update.status;
        this.message = update.message ?? null;
        break;
      case 'answers':
        this.pipeline.setAnswers(update.answers);
        break;
      case 'events':
        this.recorder.note(update.events, 'person');
        break;
      case 'alerts':
        this.pipeline.alerts.adopt(update.states);
        break;
      case 'told':
        // What this log has already is known by its name, and stands there once.
        this.recorder.note(update.events);
        if (update.isNew) for (const one of update.events) tellHere(one);
        break;
    }
    this.publishSoon();
  }

  private readLine(simulated: boolean, line: Line): void {
    const reading = this.lines.read(line, simulated);
    this.bench.take(line);
    if (reading) this.pipeline.take(reading, this.recording);
  }

  private takeReading(reading: BoardReading): void {
    const { boardId, atMs, values } = reading;
    this.lines.heard();
    this.bench.take({ boardId, atMs, text: values.map(({ name, value }) => `${name}=${value}`).join(' ') });
    this.pipeline.take(reading, this.recording);
  }

  /** Where the boards do not decide by their own engine, the page works out what the rules would answer. */
  private answerInPage(): void {
    const { source } = this;
    if (source && !source.can.decides) this.pipeline.answer(source.nowMs());
  }

  /** Alerts are of what happens now; a file tells of the past. Two who judged would tell everything twice. */
  private watchAlerts(): void {
    const { source } = this;
    if (source?.alerts) return;
    if (source?.can.isLive && this.status === 'open')
      this.pipeline.watchAlerts(source.nowMs(), source.simulated);
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
    return {
      source: this.source,
      status: this.status,
      message: this.message,
      recording: this.recording,
      nowMs,
      ...this.lines.state,
      streams: this.pipeline.streams.all(),
      moreStreams: this.pipeline.streams.more,
      present: this.pipeline.present(nowMs),
      silent: this.pipeline.silent(nowMs),
      settling: this.pipeline.settling(nowMs),
      faults: this.pipeline.faults(nowMs),
      lineFault: this.status === 'open' && this.source?.can.isLive ? this.lines.fault() : null,
      benchRecording:
        this.bench.lines === null
          ? null
          : { lines: this.bench.lines, sinceMs: this.bench.sinceMs, isAtRisk: this.bench.isAtRisk },
      answers: this.pipeline.answers.lines,
      contactAnswers: this.pipeline.answers.contacts,
      signals: this.source ? this.pipeline.signals(nowMs) : {},
      alerts: this.pipeline.alerts.active(this.garden),
      pendingAlerts: this.pipeline.alerts.pending(this.garden),
      recorder: this.recorder.state,
      clockIsWrong: this.source !== null && !isMoment(nowMs),
    };
  }
}

/** Storage of this tab; null where the browser has none or forbids it. */
function tabStore(): Storage | null {
  try {
    return 'sessionStorage' in globalThis ? globalThis.sessionStorage : null;
  } catch {
    return null;
  }
}
