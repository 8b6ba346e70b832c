import {
  answerLength,
  buildRequest,
  EXCEPTION_LENGTH,
  readAnswer,
  type AnswerIssue,
  type Request,
} from '@plain-trowel/core/bus/frame';
import { answerWithinMs, frameGapMs } from '@plain-trowel/core/bus/timing';
import { fail, type Result } from '@plain-trowel/core/quantity/result';

/** What the link needs of a port; a real one and the stand-in both are this. */
export type BusPort = Pick<SerialPort, 'open' | 'close' | 'readable' | 'writable'>;

/** One question and its answer, with the bytes of both. */
export type Exchange = {
  readonly request: Request;
  readonly sent: Uint8Array;
  readonly received: Uint8Array;
  readonly result: Result<readonly number[], AnswerIssue | { readonly kind: 'port-gone' }>;
  readonly tookMs: number;
};

/** A master on a bus: one question at a time, with the pauses that the standard asks for. */
export class BusLink {
  private held: number[] = [];
  private arrived: (() => void) | null = null;
  private reader: ReadableStreamDefaultReader<Uint8Array> | null = null;
  private queue: Promise<unknown> = Promise.resolve();
  private gone = false;

  constructor(
    private readonly port: BusPort,
    readonly baudRate: number,
    private readonly clockMs: () => number,
  ) {}

  /** @throws what the port throws when it cannot be opened */
  async open(): Promise<void> {
    await this.port.open({ baudRate: this.baudRate });
    void this.listen();
  }

  async close(): Promise<void> {
    this.gone = true;
    this.arrived?.();
    await this.reader?.cancel().catch(() => undefined);
    await this.port.close().catch(() => undefined);
  }

  /** Asks, and waits for the answer or for the time that the slowest allowed one takes. Never throws. */
  ask(request: Request): Promise<Exchange> {
    const asked = this.queue.then(() => this.exchange(request));
    this.queue = asked;
    return asked;
  }

  private async listen(): Promise<void> {
    while (this.port.readable && !this.gone) {
      this.reader = this.port.readable.getReader();
      try {
        for (;;) {
          const { value, done } = await this.reader.read();
          if (done) break;
          this.held.push(...value);
          this.arrived?.();
        }
        break;
      } catch {
        // A framing error ends one readable; the port offers the next until it is really gone.
      } finally {
        this.reader.releaseLock();
      }
    }
    this.gone = true;
    this.arrived?.();
  }

  private async exchange(request: Request): Promise<Exchange> {
    const sent = buildRequest(request);
    const beganMs = this.clockMs();
    const done = (result: Exchange['result']): Exchange => ({
      request,
      sent,
      received: Uint8Array.from(this.held),
      result,
      tookMs: this.clockMs() - beganMs,
    });
    await pause(frameGapMs(this.baudRate));
    this.held = [];
    const { writable } = this.port;
    if (this.gone || !writable) return done(fail({ kind: 'port-gone' }));
    const writer = writable.getWriter();
    try {
      await writer.write(sent);
    } catch {
      return done(fail({ kind: 'port-gone' }));
    } finally {
      writer.releaseLock();
    }
    const untilMs = this.clockMs() + answerWithinMs(this.baudRate, sent.length, answerLength(request));
    while (!this.isWhole(request) && this.clockMs() < untilMs && !this.isGone())
      await this.more(untilMs - this.clockMs());
    if (this.isGone() && this.held.length === 0) return done(fail({ kind: 'port-gone' }));
    return done(readAnswer(request, Uint8Array.from(this.held)));
  }

  private isGone(): boolean {
    return this.gone;
  }

  private isWhole(request: Request): boolean {
    const isException = ((this.held[1] ?? 0) & 0x80) !== 0;
    if (this.held.length < (isException ? EXCEPTION_LENGTH : answerLength(request))) return false;
    const read = readAnswer(request, Uint8Array.from(this.held));
    // The echo of what was sent is not the answer yet.
    return read.ok || (read.issue.kind !== 'echo' && read.issue.kind !== 'too-short');
  }

  private more(withinMs: number): Promise<void> {
    return new Promise((resolve) => {
      const timer = setTimeout(resolve, withinMs);
      this.arrived = () => {
        clearTimeout(timer);
        this.arrived = null;
        resolve();
      };
    });
  }
}

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
