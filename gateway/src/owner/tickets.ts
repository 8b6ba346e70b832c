/** Tickets that let one browser in without the passphrase: shown as a picture on a page that is in, read by a phone, good once and for a few minutes. */
import { createHash, randomBytes } from 'node:crypto';

const LIVES_MS = 5 * 60_000;
/** Tickets that hold at one time; the oldest goes first. */
const MOST = 5;

export type Ticket = { readonly token: string; readonly untilMs: number };

/** They live in memory alone: a restart ends them all. */
export class Tickets {
  private readonly open = new Map<string, number>();

  make(nowMs: number): Ticket {
    this.tidy(nowMs);
    for (const [sum] of [...this.open].slice(0, Math.max(0, this.open.size - MOST + 1)))
      this.open.delete(sum);
    const token = randomBytes(20).toString('hex');
    const untilMs = nowMs + LIVES_MS;
    this.open.set(sumOf(token), untilMs);
    return { token, untilMs };
  }

  /** Whether a ticket holds; from then on it holds no more. */
  use(token: string, nowMs: number): boolean {
    this.tidy(nowMs);
    return this.open.delete(sumOf(token));
  }

  private tidy(nowMs: number): void {
    for (const [sum, untilMs] of this.open) if (untilMs <= nowMs) this.open.delete(sum);
  }
}

const sumOf = (token: string): string => createHash('sha256').update(token).digest('hex');
