/**
 * Writes that come at about the same time, put into one transaction: a disk is asked to make sure of them once, however many boards speak at the same time. The transaction is a
 * synchronous one: what it throws belongs to these writes and to no others, which cannot be said of the store's own batches.
 */
type Waiting = {
  readonly run: () => unknown;
  readonly done: (result: unknown) => void;
  readonly failed: (error: unknown) => void;
};

/** After a commit the next one waits for so long, ms: under load boards are then made sure of by the dozen, and a disk of flash is spared. */
const PAUSE_MS = 3;

export class Commits {
  private waiting: Waiting[] = [];
  private endedMs = -Infinity;

  /** @param transact runs an action as one transaction, all of it or nothing, and returns once it is on disk */
  constructor(private readonly transact: (action: () => void) => void) {}

  /**
   * Runs an action within the next transaction. What it reads is as those before it left it.
   * @returns what the action gives, once it is on disk; fails with what went wrong, and then nothing of it was written
   */
  do<T>(action: () => T): Promise<T> {
    return new Promise<T>((done, failed) => {
      if (this.waiting.length === 0) this.soon();
      this.waiting.push({ run: action, done: done as Waiting['done'], failed });
    });
  }

  private soon(): void {
    if (performance.now() - this.endedMs < PAUSE_MS) setTimeout(() => this.write(), PAUSE_MS);
    else setImmediate(() => this.write());
  }

  /** Writes what waits now, as before closing. */
  write(): void {
    const { waiting } = this;
    this.waiting = [];
    // One that fails must not take the others with it.
    if (waiting.length > 0 && !this.together(waiting)) for (const one of waiting) this.alone(one);
    this.endedMs = performance.now();
  }

  private together(waiting: readonly Waiting[]): boolean {
    const results: unknown[] = [];
    try {
      this.transact(() => {
        for (const { run } of waiting) results.push(run());
      });
    } catch {
      return false;
    }
    for (const [at, { done }] of waiting.entries()) done(results[at]);
    return true;
  }

  private alone({ run, done, failed }: Waiting): void {
    let result: unknown;
    try {
      this.transact(() => {
        result = run();
      });
    } catch (error) {
      failed(error);
      return;
    }
    done(result);
  }
}
