/** What an app and its gateway say to each other about telling alerts: by which ways, what became of each letter, and which alerts stand. */
import { z } from '../quantity/schema.ts';
import { eventSchema } from '../records/event.ts';

export const WAYS = ['mail', 'webhook'] as const;
export type Way = (typeof WAYS)[number];

/** One address, without anything that could end a header. */
const address = z
  .string()
  .trim()
  .max(200)
  .regex(/^[^\s@<>,;"]+@[^\s@<>,;"]+$/, 'is no mail address');
const host = z
  .string()
  .trim()
  .max(200)
  .regex(/^[\w.:-]+$/, 'is no name of a server');
const secret = z
  .string()
  .max(200)
  .regex(/^[^\p{Cc}]*$/u, 'must be one line');

const mail = z.strictObject({
  host,
  port: z.int().min(1).max(65_535),
  /** Encrypted from the first byte, from the greeting on, or not at all. */
  security: z.enum(['tls', 'starttls', 'none']),
  /** Empty: the server asks for none. */
  user: secret,
  from: address,
  to: address,
});
const webAddress = z
  .url({ protocol: /^https?$/, error: 'is no web address' })
  .max(500)
  .refine((url) => !/^[a-z]+:\/\/[^/?#]*@/i.test(url), 'must not hold a password');

/** As a person sets them; a secret that is left out stays as it was. */
export const waysGivenSchema = z.strictObject({
  mail: z.strictObject({ ...mail.shape, password: secret.optional() }).nullable(),
  webhook: z.strictObject({ url: webAddress, secret: secret.optional() }).nullable(),
  noteAtMinute: z.int().min(0).max(1439).nullable(),
});
export type WaysGiven = z.infer<typeof waysGivenSchema>;

/** As they are shown: never a secret. */
export const waysShownSchema = z.object({
  mail: z.object({ ...mail.shape, hasPassword: z.boolean() }).nullable(),
  webhook: z.object({ url: z.string(), hasSecret: z.boolean() }).nullable(),
  noteAtMinute: z.number().nullable(),
});
export type WaysShown = z.infer<typeof waysShownSchema>;

export const LETTER_STATES = ['waiting', 'sent', 'dead'] as const;
export const letterShownSchema = z.object({
  id: z.string(),
  gardenId: z.string(),
  way: z.enum(WAYS),
  subject: z.string(),
  madeMs: z.number(),
  state: z.enum(LETTER_STATES),
  tries: z.number(),
  /** When it is tried next, or was sent. */
  atMs: z.number(),
  /** What went wrong at the latest try. */
  why: z.string().nullable(),
});
export type LetterShown = z.infer<typeof letterShownSchema>;

/** How the gateway tells: its ways, and its newest letters. */
export const tellingSchema = z.object({
  ways: waysShownSchema,
  letters: z.array(letterShownSchema),
  /** Gardens that it watches now. */
  watched: z.array(z.string()),
});
export type Telling = z.infer<typeof tellingSchema>;

const moment = z.number();
/** Alerts as they stand, by key; the gateway is who judges them. */
export const alertStatesSchema = z.record(
  z.string().max(200),
  z.object({
    sinceMs: moment,
    raisedMs: moment.nullable(),
    toldMs: moment.nullable(),
    acknowledged: z.boolean(),
    snoozedUntilMs: moment.nullable(),
  }),
);

/** In the feed: alerts as they stand, and what was told of them. */
export const standingAlertsSchema = z.object({ states: alertStatesSchema });
export const toldSchema = z.object({
  events: z.array(eventSchema),
  /** Told just now; else long ago, and sent again to whoever may have missed it. */
  isNew: z.boolean(),
});
