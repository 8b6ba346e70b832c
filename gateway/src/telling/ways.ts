/** By which ways alerts leave the gateway. Passwords lie here and are shown to nobody again. */
import { z } from '@plain-trowel/core/quantity/schema';
import { WAYS, type Way, type WaysGiven, type WaysShown } from '@plain-trowel/core/protocol/telling';
import { KeptTable } from '../mailbox/keptTable.ts';
import type { Store } from '../mailbox/store.ts';

const mailSchema = z.strictObject({
  host: z.string(),
  port: z.int(),
  security: z.enum(['tls', 'starttls', 'none']),
  user: z.string(),
  password: z.string(),
  from: z.string(),
  to: z.string(),
});
const webhookSchema = z.strictObject({ url: z.string(), secret: z.string() });
const waysSchema = z.strictObject({
  mail: mailSchema.nullable(),
  webhook: webhookSchema.nullable(),
  /** Minute of the day of a garden at which its note is written; null: none. */
  noteAtMinute: z.int().min(0).max(1439).nullable(),
});
export type Mail = z.infer<typeof mailSchema>;
export type Webhook = z.infer<typeof webhookSchema>;
export type Ways = z.infer<typeof waysSchema>;

const NONE: Ways = { mail: null, webhook: null, noteAtMinute: null };
const NAME = 'all';

export class KeptWays {
  private readonly table: KeptTable<Ways>;
  private held: Ways;

  constructor(store: Store) {
    this.table = new KeptTable(store, 'ways', waysSchema);
    this.held = this.table.get(NAME) ?? NONE;
  }

  get now(): Ways {
    return this.held;
  }

  /** Ways by which something is sent. */
  get open(): readonly Way[] {
    return WAYS.filter((way) => this.held[way] !== null);
  }

  /**
   * Takes what a person has set. A secret that was not typed again stays, but only for the very server that it was typed for.
   * @returns null, or what is missing
   */
  async set({ mail, webhook, noteAtMinute }: WaysGiven): Promise<string | null> {
    const before = this.held;
    const isSameServer =
      mail !== null &&
      before.mail !== null &&
      mail.host === before.mail.host &&
      mail.port === before.mail.port &&
      mail.user === before.mail.user &&
      mail.security === before.mail.security;
    const password = mail?.password ?? (isSameServer ? before.mail?.password : '') ?? '';
    if (mail && mail.user !== '' && password === '')
      return 'The mail server wants the password of its user: type it again, for the server or the user has changed.';
    const secret =
      webhook?.secret ?? (webhook?.url === before.webhook?.url ? before.webhook?.secret : '') ?? '';
    if (webhook && secret === '')
      return 'A webhook wants a secret, so that its receiver can tell that it is from here.';
    const next: Ways = {
      mail: mail && { ...mail, password },
      webhook: webhook && { ...webhook, secret },
      noteAtMinute,
    };
    await this.table.put(NAME, next);
    this.held = next;
    return null;
  }

  shown(): WaysShown {
    const { mail, webhook, noteAtMinute } = this.held;
    return {
      mail: mail && {
        host: mail.host,
        port: mail.port,
        security: mail.security,
        user: mail.user,
        from: mail.from,
        to: mail.to,
        hasPassword: mail.password !== '',
      },
      webhook: webhook && { url: webhook.url, hasSecret: webhook.secret !== '' },
      noteAtMinute,
    };
  }
}
