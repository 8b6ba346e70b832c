// npm run standin:net-boards -- --gateway URL [--mqtt HOST:PORT] [--inbox PORT]: the sample garden's boards, made up, reporting to a gateway on this machine: the first over HTTP, the others over MQTT. With an inbox the gateway's alerts go there, unless a person has set other ways.
import { parseArgs } from 'node:util';
import mqtt from 'mqtt';
import { answerSchema, type Answer, type Report } from '@plain-trowel/core/protocol/report';
import { standingSchema } from '@plain-trowel/core/protocol/feed';
import { writeGardenFile } from '@plain-trowel/core/garden/document/gardenFile';
import { parseJson } from '@plain-trowel/core/quantity/parseJson';
import { tellingSchema, type WaysGiven } from '@plain-trowel/core/protocol/telling';
import { openInbox } from '../inbox/inbox.ts';
import { marigoldHare } from '../sample/marigoldHare.ts';
import { NetBoards } from './netBoards.ts';

const EVERY_MS = 5000;
const ANSWER_WITHIN_MS = 4000;

type Send = (report: Report) => Promise<Answer | null>;

const { values } = parseArgs({
  options: { gateway: { type: 'string' }, mqtt: { type: 'string' }, inbox: { type: 'string' } },
});
const gateway = values.gateway ?? 'http://127.0.0.1:4860';
const startMs = Date.now();
const garden = marigoldHare(startMs);
const boards = new NetBoards(garden, startMs, Math.floor(startMs / 1000));

const answerOf = (text: string): Answer | null => {
  const read = answerSchema.safeParse(parseJson(text));
  return read.success ? read.data : null;
};

/** A key for each board, unless a person has given it one: that one is theirs. */
async function keyFor(boardId: string): Promise<string | null> {
  const at = `${gateway}/api/gardens/${garden.id}`;
  const standing = standingSchema.safeParse(await (await fetch(at)).json());
  const known = standing.success ? standing.data.boards.find((one) => one.boardId === boardId) : undefined;
  if (known && !known.standIn) return null;
  const made = (await (
    await fetch(`${at}/boards/${boardId}/key?standIn=yes`, { method: 'POST' })
  ).json()) as { key?: string };
  return made.key ?? null;
}

const INBOX_TO = 'hare@garden.invalid';
const INBOX_SECRET = 'of the stand-ins';

/** Opens an inbox and has the gateway send there. A person's own ways are left alone. */
async function tellTo(port: number): Promise<void> {
  const at = `${gateway}/api/telling`;
  const known = tellingSchema.safeParse(await (await fetch(at)).json());
  const ways = known.success ? known.data.ways : null;
  if (ways === null || (ways.mail !== null && ways.mail.to !== INBOX_TO)) return;
  const inbox = await openInbox(INBOX_SECRET, { smtp: 0, web: port });
  const given: WaysGiven = {
    mail: {
      host: '127.0.0.1',
      port: inbox.smtpPort,
      security: 'none',
      user: '',
      from: 'trowel@garden.invalid',
      to: INBOX_TO,
    },
    webhook: { url: `${inbox.address}/hook`, secret: INBOX_SECRET },
    noteAtMinute: ways.noteAtMinute ?? 480,
  };
  await fetch(at, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(given),
  });
}

const overHttp =
  (key: string): Send =>
  async (report) => {
    const response = await fetch(`${gateway}/api/readings`, {
      method: 'POST',
      headers: { authorization: `Bearer ${key}`, 'content-type': 'application/json' },
      body: JSON.stringify(report),
      signal: AbortSignal.timeout(ANSWER_WITHIN_MS),
    });
    return response.ok ? answerOf(await response.text()) : null;
  };

async function overMqtt(address: string, boardId: string, key: string): Promise<Send> {
  const client = await mqtt.connectAsync(`mqtt://${address}`, { username: boardId, password: key });
  const topic = `trowel/${garden.id}/${boardId}`;
  await client.subscribeAsync(`${topic}/answer`, { qos: 1 });
  let heard: ((answer: Answer | null) => void) | null = null;
  client.on('message', (_topic, payload) => heard?.(answerOf(payload.toString())));
  client.on('error', () => undefined);
  return (report) =>
    new Promise((tell) => {
      const timer = setTimeout(() => tell(null), ANSWER_WITHIN_MS);
      heard = (answer) => {
        clearTimeout(timer);
        tell(answer);
      };
      client.publish(`${topic}/report`, JSON.stringify(report), { qos: 1 });
    });
}

await fetch(`${gateway}/api/gardens/${garden.id}/document?by=${encodeURIComponent('the stand-in boards')}`, {
  method: 'PUT',
  headers: { 'content-type': 'application/json' },
  body: writeGardenFile(garden),
});
if (values.inbox !== undefined) await tellTo(Number(values.inbox));
const sends = new Map<string, Send>();
for (const [at, boardId] of boards.boardIds.entries()) {
  const key = await keyFor(boardId);
  if (key === null) continue;
  sends.set(boardId, at > 0 && values.mqtt ? await overMqtt(values.mqtt, boardId, key) : overHttp(key));
}
for (;;) {
  boards.live(Date.now());
  boards.settleOrders();
  for (const [boardId, send] of sends) {
    const report = boards.report(boardId, Date.now());
    // A gateway that is away is asked again at the next turn; the report keeps its number.
    const answer = report && (await send(report).catch(() => null));
    if (answer) boards.answered(boardId, answer);
  }
  await new Promise((done) => setTimeout(done, EVERY_MS));
}
