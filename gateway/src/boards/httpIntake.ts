/**
 * `POST /api/readings`: boards report here, each with its key. It stands before the framework that serves pages, which on a small machine would take four times as long over a
 * report as the report takes.
 */
import type { IncomingMessage, ServerResponse } from 'node:http';
import { MOST_REPORT_BYTES } from '@plain-trowel/core/protocol/report';
import { z } from '@plain-trowel/core/quantity/schema';
import { AtMost } from './atMost.ts';
import type { Heard, Intake, Written } from './intake.ts';
import type { Keys } from './keys.ts';
import { refusalOf } from './refusals.ts';

const PATH = '/api/readings';
/** Reports that one board may send in ten seconds: what it kept back while it was alone comes in a burst. */
const MOST_OF_A_BOARD = 300;
/** Wrong keys that one address may try in a minute. */
const MOST_WRONG = 30;

/** What belongs to a report of SenML, in the query: `?board=roof&boot=12&seq=345&up=3600`. */
const aboutSchema = z.object({
  board: z.string(),
  boot: z.coerce.number(),
  seq: z.coerce.number(),
  up: z.coerce.number().default(0),
});

const NO_KEY =
  'This board has no key, or one that is no longer valid. Make it a new one in the app: Bench, Readout, boards over the network.';
const NO_REPORT =
  'A report is application/json, or application/senml+json with board, boot and seq in the address.';

/** Answers reports. @returns false for a request that is none, which is then somebody else's */
export type HttpIntake = (request: IncomingMessage, response: ServerResponse) => boolean;

export function httpIntake(
  intake: Intake,
  keys: Keys,
  names: ReadonlySet<string>,
  noteHeard: (heard: Heard['kind'] | 'no-key') => void,
): HttpIntake {
  const wrongKeys = new AtMost(MOST_WRONG, 60_000);
  const reports = new AtMost(MOST_OF_A_BOARD, 10_000);
  const take = async (request: IncomingMessage, response: ServerResponse): Promise<void> => {
    const say = (status: number, what: object) => {
      const text = JSON.stringify(what);
      // What was refused before it had come is not waited for.
      if (!request.complete) response.shouldKeepAlive = false;
      response.writeHead(status, {
        'content-type': 'application/json',
        'content-length': Buffer.byteLength(text),
        'cache-control': 'no-store',
      });
      response.end(text);
    };
    const board = keys.boardOf(bearerOf(request));
    if (!board) {
      noteHeard('no-key');
      if (wrongKeys.may(request.socket.remoteAddress ?? '')) say(401, { error: NO_KEY });
      else say(429, { error: 'Too many wrong keys from this address. Wait a minute.' });
      return;
    }
    if (!reports.may(`${board.gardenId} ${board.boardId}`)) {
      say(429, { error: 'This board reports too often. Wait ten seconds.' });
      return;
    }
    const written = writtenOf(request);
    if (!written) {
      say(415, { error: NO_REPORT });
      return;
    }
    const text = await bodyOf(request);
    if (text === null) return;
    const heard = await intake.hear(board, text, written);
    noteHeard(heard.kind);
    if (heard.kind === 'answered') {
      say(200, heard.answer);
      return;
    }
    const { status, error } = refusalOf(heard);
    say(status, { error });
  };
  return (request, response) => {
    const [path] = (request.url ?? '').split('?', 1);
    const name = (request.headers.host ?? '').toLowerCase().replace(/:\d+$/, '');
    if (request.method !== 'POST' || path !== PATH || !names.has(name)) return false;
    take(request, response).catch(() => {
      if (!response.headersSent) response.writeHead(500);
      response.end();
    });
    return true;
  };
}

const bearerOf = ({ headers }: IncomingMessage): string =>
  /^Bearer ([\w-]{8,100})$/.exec(headers.authorization ?? '')?.[1] ?? '';

/** How the report of a request is written; null for one that cannot be told. */
function writtenOf({ headers, url }: IncomingMessage): Written | null {
  if (headers['content-encoding'] !== undefined) return null;
  const [type] = (headers['content-type'] ?? '').split(';', 1);
  if (type === 'application/json' || type === 'text/plain') return { kind: 'own' };
  if (type !== 'application/senml+json') return null;
  const query = new URL(url ?? '', 'http://localhost').searchParams;
  const read = aboutSchema.safeParse(Object.fromEntries(query));
  if (!read.success) return null;
  const { board, boot, seq, up } = read.data;
  return { kind: 'senml', about: { board, boot, seq, upS: up } };
}

/** The whole body, or a little more than may be read; null when it was broken off. */
function bodyOf(request: IncomingMessage): Promise<string | null> {
  return new Promise((tell) => {
    const parts: Buffer[] = [];
    let length = 0;
    const text = () => tell(Buffer.concat(parts).toString('utf8'));
    request.on('data', (part: Buffer) => {
      parts.push(part);
      length += part.length;
      if (length <= MOST_REPORT_BYTES) return;
      request.removeAllListeners('data');
      request.pause();
      text();
    });
    request.once('end', text);
    request.once('close', () => tell(null));
  });
}
