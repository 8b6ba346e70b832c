/** How the gateway tells alerts while no page is open, in words. */
import { plainMessage } from '@plain-trowel/core/quantity/fieldName';
import {
  waysGivenSchema,
  type LetterShown,
  type Telling,
  type WaysGiven,
  type WaysShown,
} from '@plain-trowel/core/protocol/telling';
import { dayTime } from '@plain-trowel/core/quantity/timeText';

/** The panel's own sentence: whether anybody is told of this garden. */
export function awayHeadline({ ways, watched }: Telling, gardenId: string): string {
  const isWatched = watched.includes(gardenId);
  const isSet = ways.mail !== null || ways.webhook !== null;
  if (!isWatched)
    return 'The gateway does not watch this garden: publish it and give its boards keys, on Bench, Readout, boards over the network.';
  return isSet
    ? 'The gateway watches this garden as it was published last, by its limits, hold-offs and quiet hours, and tells you when something is wrong.'
    : 'The gateway watches this garden, and has no way to tell you: set up mail or a web request.';
}

export const mailLine = ({ mail }: WaysShown): string =>
  mail === null ? 'Off.' : `To ${mail.to}, by ${mail.host}:${mail.port}.`;

export const webhookLine = ({ webhook }: WaysShown): string =>
  webhook === null ? 'Off. For programs of your own.' : `To ${webhook.url}.`;

/** What became of a letter. */
export function letterText({ way, state, atMs, tries, why }: LetterShown, timeZone: string): string {
  const by = way === 'mail' ? 'by mail' : 'by web request';
  const at = dayTime(atMs, timeZone);
  switch (state) {
    case 'sent':
      return `Sent ${by} ${at}.`;
    case 'dead':
      return `Not sent ${by}: ${why ?? 'nobody says why'}.`;
    case 'waiting':
      return tries === 0
        ? `On its way ${by}.`
        : `Tried ${by} ${tries === 1 ? 'once' : `${tries} times`} (${why ?? 'nobody says why'}); again ${at}.`;
  }
}

/** What is set, to be set again with a change: secrets stay where they are. */
export function givenOf({ mail, webhook, noteAtMinute }: WaysShown): WaysGiven {
  const kept = mail && {
    host: mail.host,
    port: mail.port,
    security: mail.security,
    user: mail.user,
    from: mail.from,
    to: mail.to,
  };
  return { mail: kept, webhook: webhook && { url: webhook.url }, noteAtMinute };
}

const FIELD: Readonly<Record<string, string>> = {
  host: 'Mail server',
  port: 'Port',
  user: 'User',
  password: 'Password',
  from: 'From',
  to: 'To',
  url: 'Address',
  secret: 'Secret',
};

/** What cannot be set as it stands, field by field; null where all of it can. */
export function waysIssue(ways: WaysGiven): string | null {
  const read = waysGivenSchema.safeParse(ways);
  const [first] = read.error?.issues ?? [];
  if (!first) return null;
  const field = FIELD[String(first.path.at(-1))] ?? 'This';
  return first.path.at(-1) === 'port'
    ? 'Port: a number from 1 to 65535.'
    : `${field}: ${plainMessage(first.message)}.`;
}
