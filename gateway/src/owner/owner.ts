/** Who may look and change: whoever sits at this machine, or, where the gateway is open to a network, whoever knows its passphrase. */
import { createHash, randomBytes, scrypt, timingSafeEqual } from 'node:crypto';
import { z } from '@plain-trowel/core/quantity/schema';
import { KeptTable } from '../mailbox/keptTable.ts';
import type { Store } from '../mailbox/store.ts';

const passphraseSchema = z.strictObject({ salt: z.string(), sum: z.string() });
const sessionSchema = z.strictObject({ untilMs: z.number() });

const THE_ONE = 'owner';
export const LEAST_LETTERS = 10;
/** A sum costs a third of a second on a small machine, and 64 MB. */
const COST = { N: 2 ** 16, r: 8, p: 1, maxmem: 128 * 2 ** 20 };
const SESSION_MS = 30 * 86_400_000;

export class Owner {
  private readonly passphrase: KeptTable<z.infer<typeof passphraseSchema>>;
  private readonly sessions: KeptTable<z.infer<typeof sessionSchema>>;
  private trying: Promise<unknown> = Promise.resolve();

  constructor(store: Store) {
    this.passphrase = new KeptTable(store, 'passphrase', passphraseSchema);
    this.sessions = new KeptTable(store, 'session', sessionSchema);
  }

  get hasPassphrase(): boolean {
    return this.passphrase.get(THE_ONE) !== null;
  }

  /** Sets the passphrase; whoever was in is out. */
  async setPassphrase(words: string): Promise<void> {
    const salt = randomBytes(16).toString('hex');
    await this.passphrase.put(THE_ONE, { salt, sum: (await sumOf(words, salt)).toString('hex') });
    for (const { name } of this.sessions.all()) await this.sessions.remove(name);
  }

  /** A token for whoever knows the passphrase; null for who does not. One try after the other, so that trying costs time and not memory. */
  enter(words: string, nowMs: number): Promise<string | null> {
    const turn = this.trying.then(() => this.tryOnce(words, nowMs));
    this.trying = turn.catch(() => undefined);
    return turn;
  }

  private async tryOnce(words: string, nowMs: number): Promise<string | null> {
    const kept = this.passphrase.get(THE_ONE);
    if (!kept) return null;
    const isRight = timingSafeEqual(await sumOf(words, kept.salt), Buffer.from(kept.sum, 'hex'));
    if (!isRight) return null;
    return this.admit(nowMs);
  }

  /** Lets somebody in whose right has been looked at. @returns the token of the session */
  async admit(nowMs: number): Promise<string> {
    const token = randomBytes(32).toString('hex');
    await this.sessions.put(nameOf(token), { untilMs: nowMs + SESSION_MS });
    return token;
  }

  isIn(token: string, nowMs: number): boolean {
    const session = this.sessions.get(nameOf(token));
    return session !== null && session.untilMs > nowMs;
  }

  async leave(token: string): Promise<void> {
    await this.sessions.remove(nameOf(token));
  }

  async tidy(nowMs: number): Promise<void> {
    for (const { name, value } of this.sessions.all())
      if (value.untilMs <= nowMs) await this.sessions.remove(name);
  }
}

const sumOf = (words: string, salt: string): Promise<Buffer> =>
  new Promise((done, failed) => {
    // The same letters, however a keyboard puts their accents together.
    scrypt(words.normalize('NFC'), salt, 32, COST, (error, sum) => (error ? failed(error) : done(sum)));
  });

const nameOf = (token: string): string => createHash('sha256').update(token).digest('hex');

export const SESSION_S = SESSION_MS / 1000;
