/**
 * Letters that are to leave the gateway. One is kept with the alert that it tells, and stays until its way has taken it: it is tried again ever less often for a day, and
 * then lies among those that could not be sent, where a person sees it.
 */
import { randomBytes } from 'node:crypto';
import { z } from '@plain-trowel/core/quantity/schema';
import { LETTER_STATES, WAYS, type LetterShown, type Way } from '@plain-trowel/core/protocol/telling';
import { KeptTable } from '../mailbox/keptTable.ts';
import type { Store } from '../mailbox/store.ts';

const letterSchema = z.strictObject({
  way: z.enum(WAYS),
  gardenId: z.string(),
  kind: z.enum(['alert', 'note', 'test']),
  subject: z.string(),
  text: z.string(),
  /** What a program may want of it, as JSON. */
  facts: z.unknown(),
  madeMs: z.number(),
  state: z.enum(LETTER_STATES),
  tries: z.int(),
  atMs: z.number(),
  why: z.string().nullable(),
});
export type KeptLetter = z.infer<typeof letterSchema>;
export type NewLetter = Pick<KeptLetter, 'gardenId' | 'kind' | 'subject' | 'text' | 'facts'>;

/** A letter with its name, before it is kept. */
export type Ready = { readonly id: string; readonly letter: KeptLetter };

/** What a try came to. */
export type Sent =
  | { readonly kind: 'sent' }
  /** It may go another time. */
  | { readonly kind: 'failed'; readonly why: string }
  /** It never will. */
  | { readonly kind: 'refused'; readonly why: string };
export type Send = (id: string, letter: KeptLetter) => Promise<Sent>;

/** From one try to the next, ms: 5 s, 15 s, 45 s … an hour at most. */
const FIRST_MS = 5000;
const TIMES = 3;
const MOST_MS = 3_600_000;
/** Tries are spread by a fifth, so that all that failed together do not come together again. */
const JITTER = 0.2;
const GIVEN_UP_MS = 86_400_000;
const REMEMBERED_MS = 30 * 86_400_000;
/** Letters that are on their way at one time. */
const AT_ONCE = 4;
/** Letters that may wait for one way; one more is not sent, and that is seen. */
const MOST_WAITING = 500;
/** One that has waited so long in spite of tries is told as not sent, ms. */
const LATE_MS = 600_000;
const CLOSES_WITHIN_MS = 2000;

/** @param tries made so far, 1 or more @param chance 0..1 */
export const pauseMs = (tries: number, chance: number): number =>
  Math.min(MOST_MS, FIRST_MS * TIMES ** (tries - 1)) * (1 + JITTER * (2 * chance - 1));

export class Outbox {
  private readonly table: KeptTable<KeptLetter>;
  /** Those that wait are kept in mind, for they are looked through every second. */
  private readonly waiting = new Map<string, KeptLetter>();
  private readonly underWay = new Map<string, Promise<void>>();
  private isClosed = false;
  private lastMs = 0;

  constructor(
    store: Store,
    private readonly send: Send,
    private readonly onOutcome: (way: Way, outcome: Sent['kind']) => void = () => undefined,
    private readonly chance: () => number = Math.random,
  ) {
    this.table = new KeptTable(store, 'letter', letterSchema);
    for (const { name, value } of this.table.all())
      if (value.state === 'waiting') this.waiting.set(name, value);
  }

  /** A letter ready to be put in. */
  ready(way: Way, letter: NewLetter, nowMs: number): Ready {
    this.lastMs = Math.max(nowMs, this.lastMs + 1);
    const id = `l${this.lastMs.toString(36)}-${randomBytes(6).toString('hex')}`;
    const isFull = [...this.waiting.values()].filter((one) => one.way === way).length >= MOST_WAITING;
    const why = isFull ? `${MOST_WAITING} letters wait for this way already` : null;
    const state = isFull ? 'dead' : 'waiting';
    return { id, letter: { ...letter, way, madeMs: nowMs, state, tries: 0, atMs: nowMs, why } };
  }

  /** Puts letters in, within an action of the store's commits: they are kept together with what they tell, or not at all. */
  putNow(letters: readonly Ready[]): void {
    for (const { id, letter } of letters) this.table.putNow(id, letter);
  }

  /** They are on the disk: from here on they are sent. */
  taken(letters: readonly Ready[]): void {
    for (const { id, letter } of letters) if (letter.state === 'waiting') this.waiting.set(id, letter);
  }

  /** Sends what is due; to be called every second. */
  look(nowMs: number): void {
    for (const [id, letter] of this.waiting) {
      if (this.isClosed || this.underWay.size >= AT_ONCE) return;
      if (letter.atMs > nowMs || this.underWay.has(id)) continue;
      const trying = this.tryOne(id, letter, nowMs)
        // Without room on the disk it counts as not tried, and is tried again.
        .catch(() => undefined)
        .finally(() => this.underWay.delete(id));
      this.underWay.set(id, trying);
    }
  }

  private async tryOne(id: string, letter: KeptLetter, nowMs: number): Promise<void> {
    const sent = await this.send(id, letter).catch((error: unknown): Sent => ({
      kind: 'failed',
      why: (error as Error).message.slice(0, 200),
    }));
    this.onOutcome(letter.way, sent.kind);
    // A person may have thrown it away meanwhile. One that was sent as the gateway ended is sent once more, under its name.
    if (this.isClosed || !this.waiting.has(id)) return;
    await this.become(id, after(letter, sent, nowMs, this.chance()));
  }

  private async become(id: string, letter: KeptLetter): Promise<void> {
    if (letter.state === 'waiting') this.waiting.set(id, letter);
    else this.waiting.delete(id);
    await this.table.put(id, letter);
  }

  /** The newest letters, newest first. */
  newest(most: number): readonly LetterShown[] {
    return this.table
      .all()
      .slice(-most)
      .reverse()
      .map(({ name, value: { gardenId, way, subject, madeMs, state, tries, atMs, why } }) => ({
        id: name,
        gardenId,
        way,
        subject,
        madeMs,
        state,
        tries,
        atMs,
        why,
      }));
  }

  /** Letters of a garden that did not go, by way. */
  unsent(gardenId: string, nowMs: number): readonly { readonly way: Way; readonly count: number }[] {
    const late = this.table
      .all()
      .filter(
        ({ value }) =>
          value.gardenId === gardenId &&
          (value.state === 'dead' ||
            (value.state === 'waiting' && value.tries > 0 && nowMs - value.madeMs > LATE_MS)),
      );
    return WAYS.flatMap((way) => {
      const count = late.filter(({ value }) => value.way === way).length;
      return count > 0 ? [{ way, count }] : [];
    });
  }

  /** Tries a letter again that was given up. @returns false where there is none such */
  async again(id: string, nowMs: number): Promise<boolean> {
    const letter = this.table.get(id);
    if (!letter || letter.state === 'sent') return false;
    await this.become(id, { ...letter, state: 'waiting', tries: 0, madeMs: nowMs, atMs: nowMs });
    return true;
  }

  async remove(id: string): Promise<boolean> {
    this.waiting.delete(id);
    return this.table.remove(id);
  }

  /** Sends nothing more; what is on its way has a moment to arrive. */
  async close(): Promise<void> {
    const moment = new Promise((done) => setTimeout(done, CLOSES_WITHIN_MS).unref());
    await Promise.race([Promise.all(this.underWay.values()), moment]);
    this.isClosed = true;
  }

  async tidy(nowMs: number): Promise<void> {
    for (const { name, value } of this.table.all())
      if (value.state !== 'waiting' && nowMs - value.madeMs > REMEMBERED_MS) await this.table.remove(name);
  }
}

/** A letter after a try. */
function after(letter: KeptLetter, sent: Sent, nowMs: number, chance: number): KeptLetter {
  const tries = letter.tries + 1;
  if (sent.kind === 'sent') return { ...letter, tries, state: 'sent', atMs: nowMs, why: null };
  const isOver = sent.kind === 'refused' || nowMs - letter.madeMs > GIVEN_UP_MS;
  const atMs = isOver ? nowMs : nowMs + pauseMs(tries, chance);
  return { ...letter, tries, state: isOver ? 'dead' : 'waiting', atMs, why: sent.why };
}
