/** A mailbox that is none: takes every mail and every signed request that comes to this machine, and shows them on a page. For trying alerts without a mail server. */
import { createHmac, timingSafeEqual } from 'node:crypto';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import PostalMime from 'postal-mime';
import { SMTPServer } from 'smtp-server';

export type InboxMail = {
  readonly id: string;
  readonly from: string;
  readonly to: string;
  readonly subject: string;
  readonly text: string;
};
export type InboxHook = { readonly id: string; readonly body: string; readonly isSigned: boolean };

export type Inbox = {
  readonly smtpPort: number;
  /** Where its page is, and where requests may be sent: `/hook`. */
  readonly address: string;
  readonly mails: readonly InboxMail[];
  readonly hooks: readonly InboxHook[];
  /** What it does with the next letters: takes them, is busy, or refuses them for good. */
  readonly behave: (as: 'take' | 'busy' | 'refuse') => void;
  readonly close: () => Promise<void>;
};

const MOST_KEPT = 200;
const MOST_BYTES = 200_000;
const HERE = '127.0.0.1';

/** @param secret of the requests that it takes for signed @param user who must sign in to send mail; null: anybody may */
export async function openInbox(
  secret: string,
  ports: { readonly smtp: number; readonly web: number } = { smtp: 0, web: 0 },
  user: { readonly name: string; readonly password: string } | null = null,
): Promise<Inbox> {
  const mails: InboxMail[] = [];
  const hooks: InboxHook[] = [];
  let behaviour: 'take' | 'busy' | 'refuse' = 'take';
  const keep = <T>(list: T[], one: T) => {
    list.push(one);
    if (list.length > MOST_KEPT) list.shift();
  };
  const smtp = new SMTPServer({
    authOptional: user === null,
    allowInsecureAuth: true,
    disabledCommands: ['STARTTLS'],
    size: MOST_BYTES,
    onAuth: ({ username, password }, _session, done) => {
      if (user && username === user.name && password === user.password) done(null, { user: username });
      else done(Object.assign(new Error('wrong user or password'), { responseCode: 535 }));
    },
    onData: (stream, session, done) => {
      const parts: Buffer[] = [];
      stream.on('data', (part: Buffer) => parts.push(part));
      stream.on('end', () => {
        if (behaviour !== 'take') {
          const [responseCode, message] =
            behaviour === 'busy' ? [451, 'try later'] : [550, 'no such mailbox'];
          done(Object.assign(new Error(message), { responseCode }));
          return;
        }
        void PostalMime.parse(Buffer.concat(parts)).then(({ subject = '', text = '', messageId = '' }) => {
          const { mailFrom, rcptTo } = session.envelope;
          keep(mails, {
            id: messageId,
            from: mailFrom ? mailFrom.address : '',
            to: rcptTo.map(({ address }) => address).join(', '),
            subject,
            text: text.trim(),
          });
          done();
        }, done);
      });
    },
  });
  smtp.on('error', () => undefined);
  const web = http.createServer((request, response) => {
    if (request.url !== '/hook') {
      response.writeHead(200, {
        'content-type': 'text/html; charset=utf-8',
        'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'",
      });
      response.end(pageOf(mails, hooks));
      return;
    }
    const parts: Buffer[] = [];
    request.on('data', (part: Buffer) => parts.push(part));
    request.on('end', () => {
      const status = { take: 204, busy: 503, refuse: 410 }[behaviour];
      response.writeHead(status).end();
      if (behaviour !== 'take') return;
      const body = Buffer.concat(parts).toString();
      keep(hooks, {
        id: String(request.headers['x-trowel-id']),
        body,
        isSigned: isFrom(secret, request, body),
      });
    });
  });
  await new Promise<void>((ready) => smtp.listen(ports.smtp, HERE, () => ready()));
  await new Promise<void>((ready) => web.listen(ports.web, HERE, () => ready()));
  return {
    smtpPort: (smtp.server.address() as AddressInfo).port,
    address: `http://${HERE}:${(web.address() as AddressInfo).port}`,
    mails,
    hooks,
    behave: (as) => {
      behaviour = as;
    },
    close: async () => {
      await new Promise<void>((done) => smtp.close(() => done()));
      web.closeAllConnections();
      await new Promise((done) => web.close(done));
    },
  };
}

/** As a receiver of ours would check it: by what docs/GATEWAY.md says, and not by the sender's code. */
function isFrom(secret: string, { headers }: http.IncomingMessage, body: string): boolean {
  const [time = '', given = ''] = ['x-trowel-time', 'x-trowel-signature'].map((name) =>
    String(headers[name]),
  );
  if (Math.abs(Date.now() / 1000 - Number(time)) > 300) return false;
  const own = createHmac('sha256', secret).update(time).update('.').update(body).digest();
  const theirs = Buffer.from(given, 'hex');
  return theirs.length === own.length && timingSafeEqual(theirs, own);
}

const escaped = (text: string): string =>
  text.replace(/[&<>"']/g, (letter) => `&#${letter.codePointAt(0) ?? 0};`);

const pageOf = (mails: readonly InboxMail[], hooks: readonly InboxHook[]): string => `<!doctype html>
<html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<meta http-equiv="refresh" content="5"><title>Stand-in inbox</title>
<style>body{font:16px/1.5 sans-serif;max-width:46rem;margin:1.5rem auto;padding:0 1rem;color:#17211d;background:#f3f5f0}
article{border-top:1px solid #b8c1b6;padding:.6rem 0}pre{white-space:pre-wrap;font:14px/1.5 monospace;margin:.4rem 0}h2{font-size:1.05rem;margin:0}</style>
<h1>Stand-in inbox</h1>
<p>Mail and requests that the gateway on this machine has sent. Nothing of it left the machine.</p>
${[...mails]
  .reverse()
  .map(
    ({ to, subject, text }) =>
      `<article><h2>${escaped(subject)}</h2><p>Mail to ${escaped(to)}</p><pre>${escaped(text)}</pre></article>`,
  )
  .join('\n')}
${[...hooks]
  .reverse()
  .map(
    ({ body, isSigned }) =>
      `<article><h2>Request, ${isSigned ? 'signed' : 'NOT signed as agreed'}</h2><pre>${escaped(body)}</pre></article>`,
  )
  .join('\n')}
${mails.length + hooks.length === 0 ? '<p>Nothing has come yet.</p>' : ''}
</html>`;
