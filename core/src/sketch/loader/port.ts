/** A serial line to a board as the loader needs it, and what can go wrong on it. */
export type LoaderPort = {
  /** Rejects when the line is gone. */
  readonly write: (bytes: Uint8Array) => Promise<void>;
  /** What has come; waits for the first byte at most so long, ms. Empty: nothing came. Rejects when the line is gone. */
  readonly read: (waitMs: number) => Promise<Uint8Array>;
  /** Opens the line again after a restart has taken it away, as with boards whose USB is their own; false: it did not come back in time. */
  readonly reopen: (waitMs: number) => Promise<boolean>;
};

export type LoadProblem =
  /** Something else than a program of ours runs: interrupting it leaves its outputs as they are, so a person is asked first. */
  | 'foreign-program'
  /** Nothing that speaks the language answers. */
  | 'no-interpreter'
  | 'line-lost'
  | 'no-answer'
  /** The board said that something failed while it was being written. */
  | 'board-refused'
  | 'disk-full'
  | 'not-verified'
  | 'outputs-not-off'
  /** Loaded and restarted, and then another program than the new one answered. */
  | 'did-not-start'
  | 'stopped';

/** Ends loading, wherever it stands. It never leaves this room: `loadProgram` gives it as a value. */
export class LoadStop extends Error {
  constructor(
    readonly problem: LoadProblem,
    /** What the board said, for the person who wants to know. */
    readonly said = '',
  ) {
    super(problem);
  }
}

const encoder = new TextEncoder();
export const bytesOf = (text: string): Uint8Array => encoder.encode(text);
/** A letter a byte: what boards count in bytes stays countable. */
const textOf = (bytes: Uint8Array): string => String.fromCharCode(...bytes);

/** What the board sends, a letter a byte, read piece by piece. */
export class Listener {
  private heard = '';

  constructor(
    private readonly port: LoaderPort,
    private readonly nowMs: () => number,
    private readonly signal: AbortSignal | null,
  ) {}

  async send(text: string | Uint8Array): Promise<void> {
    try {
      await this.port.write(typeof text === 'string' ? bytesOf(text) : text);
    } catch {
      throw new LoadStop('line-lost');
    }
  }

  /** Everything up to and with the mark, or null when it did not come in time; what came stays. */
  async until(mark: string | RegExp, waitMs: number): Promise<string | null> {
    const endMs = this.nowMs() + waitMs;
    for (;;) {
      const end = endOf(this.heard, mark);
      if (end !== null) {
        const found = this.heard.slice(0, end);
        this.heard = this.heard.slice(end);
        return found;
      }
      if (this.signal?.aborted) throw new LoadStop('stopped');
      const leftMs = endMs - this.nowMs();
      if (leftMs <= 0) return null;
      this.heard += textOf(await this.next(Math.min(leftMs, SLICE_MS)));
    }
  }

  /** As `until`, across a restart that may take the line away; then it is open again, and what was said meanwhile is not known. */
  async untilAcrossRestart(
    mark: string | RegExp,
    waitMs: number,
  ): Promise<{ readonly said: string | null; readonly wasAway: boolean }> {
    try {
      return { said: await this.until(mark, waitMs), wasAway: false };
    } catch (error) {
      if (!(error instanceof LoadStop && error.problem === 'line-lost')) throw error;
      this.forget();
      if (!(await this.port.reopen(REOPEN_MS))) throw error;
      return { said: null, wasAway: true };
    }
  }

  /** As `until`; that it does not come ends loading. */
  async expect(mark: string | RegExp, waitMs: number): Promise<string> {
    const found = await this.until(mark, waitMs);
    if (found === null) throw new LoadStop('no-answer', this.heard.slice(-200));
    return found;
  }

  /** What came within so long, whatever it is. */
  async all(waitMs: number): Promise<string> {
    const endMs = this.nowMs() + waitMs;
    for (let leftMs = waitMs; leftMs > 0; leftMs = endMs - this.nowMs()) {
      if (this.signal?.aborted) throw new LoadStop('stopped');
      this.heard += textOf(await this.next(Math.min(leftMs, SLICE_MS)));
    }
    return this.forget();
  }

  /** Drops what has come and was not asked for. */
  forget(): string {
    const dropped = this.heard;
    this.heard = '';
    return dropped;
  }

  private async next(waitMs: number): Promise<Uint8Array> {
    try {
      return await this.port.read(waitMs);
    } catch {
      throw new LoadStop('line-lost');
    }
  }
}

/** Machines need some seconds until they know a port again, ms. */
const REOPEN_MS = 15_000;
/** So often it is looked whether somebody has stopped it, ms. */
const SLICE_MS = 100;

function endOf(text: string, mark: string | RegExp): number | null {
  if (typeof mark === 'string') {
    const at = text.indexOf(mark);
    return at < 0 ? null : at + mark.length;
  }
  const match = mark.exec(text);
  return match ? match.index + match[0].length : null;
}
