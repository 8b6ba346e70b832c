/** How a letter leaves: by a mail server that speaks SMTP, or as a signed request to a web address. Each try ends within a quarter of a minute. */
import { createHmac } from 'node:crypto';
import { createTransport } from 'nodemailer';
import type { KeptLetter, Send, Sent } from './outbox.ts';
import type { KeptWays, Mail, Webhook } from './ways.ts';

const CONNECT_MS = 8000;
const ANSWER_MS = 12_000;

/** Sends by the way that a letter says, as it is set at that moment. */
export const sendBy =
  (ways: KeptWays): Send =>
  (id, letter) => {
    const { mail, webhook } = ways.now;
    if (letter.way === 'mail' && mail) return byMail(mail, id, letter);
    if (letter.way === 'webhook' && webhook) return byWebhook(webhook, id, letter);
    return Promise.resolve({ kind: 'refused', why: `telling by ${letter.way} is switched off` });
  };

/** Answers of a mail server that no other try will change: mailbox, sender or text are not taken. SMTP, RFC 5321, 4.2.3. */
const NEVER: ReadonlySet<number> = new Set([550, 551, 552, 553, 554]);

async function byMail(mail: Mail, id: string, { subject, text }: KeptLetter): Promise<Sent> {
  const { host, port, security, user, password, from, to } = mail;
  const transport = createTransport({
    host,
    port,
    secure: security === 'tls',
    requireTLS: security === 'starttls',
    ignoreTLS: security === 'none',
    ...(user === '' ? {} : { auth: { user, pass: password } }),
    connectionTimeout: CONNECT_MS,
    greetingTimeout: CONNECT_MS,
    socketTimeout: ANSWER_MS,
    disableFileAccess: true,
    disableUrlAccess: true,
  });
  try {
    // The same letter has the same name: one that came twice can be told by it.
    await transport.sendMail({ from, to, subject, text, messageId: `<${id}@plain-trowel.invalid>` });
    return { kind: 'sent' };
  } catch (error) {
    const { responseCode, message } = error as { readonly responseCode?: number; readonly message?: string };
    const kind = responseCode !== undefined && NEVER.has(responseCode) ? 'refused' : 'failed';
    return { kind, why: plain(message ?? 'the mail server does not answer', password) };
  } finally {
    transport.close();
  }
}

/** Answers of a web server after which another try may do: signed in anew, too early, too often. */
const LATER: ReadonlySet<number> = new Set([401, 403, 404, 408, 425, 429]);

async function byWebhook({ url, secret }: Webhook, id: string, letter: KeptLetter): Promise<Sent> {
  const { gardenId, kind, subject, text, facts, madeMs } = letter;
  const body = JSON.stringify({
    id,
    kind,
    garden: gardenId,
    at: new Date(madeMs).toISOString(),
    subject,
    text,
    facts,
  });
  const seconds = String(Math.floor(Date.now() / 1000));
  try {
    const response = await fetch(url, {
      method: 'POST',
      body,
      // An address that sends elsewhere is not followed: the secret is for this one.
      redirect: 'manual',
      headers: {
        'content-type': 'application/json',
        'x-trowel-id': id,
        'x-trowel-time': seconds,
        'x-trowel-signature': signature(secret, seconds, body),
      },
      signal: AbortSignal.timeout(ANSWER_MS),
    });
    await response.body?.cancel();
    if (response.ok) return { kind: 'sent' };
    const why = `${new URL(url).host} answered ${response.status}`;
    return { kind: response.status < 500 && !LATER.has(response.status) ? 'refused' : 'failed', why };
  } catch (error) {
    const { cause, name } = error as {
      readonly cause?: { readonly message?: string };
      readonly name?: string;
    };
    const why =
      name === 'TimeoutError' ? 'it does not answer in time' : (cause?.message ?? 'nothing answers there');
    return { kind: 'failed', why: plain(why, secret) };
  }
}

/** HMAC-SHA256 of the second it was sent, a point and the body, in hexadecimal digits: by it the receiver knows that it is from here, and from now. */
const signature = (secret: string, seconds: string, body: string): string =>
  createHmac('sha256', secret).update(`${seconds}.${body}`).digest('hex');

/** One short line, in which no secret stands. */
const plain = (why: string, secret: string): string =>
  (secret === '' ? why : why.split(secret).join('…')).replace(/\s+/g, ' ').trim().slice(0, 200);
