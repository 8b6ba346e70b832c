/** What many boards do at the same time, over HTTP and over MQTT, and how long each waits for its acknowledgement. */
import { Agent, request } from 'node:http';
import mqtt from 'mqtt';

export type Load = {
  readonly acknowledged: number;
  readonly refused: number;
  readonly perS: number;
  readonly medianMs: number;
  readonly p99Ms: number;
  readonly worstMs: number;
};

export type Board = { readonly id: string; readonly key: string };

const bodyOf = (board: string, seq: number, readings: number): string =>
  JSON.stringify({
    board,
    boot: 7,
    seq,
    upS: Math.floor(process.uptime()),
    readings: Array.from({ length: readings }, (_, at) => ({ n: `c${at}`, v: 1500 + (seq % 500), agoS: 0 })),
  });

function summed(waits: number[], refused: number, tookMs: number): Load {
  waits.sort((a, b) => a - b);
  const at = (share: number) => waits[Math.min(waits.length - 1, Math.floor(share * waits.length))] ?? NaN;
  return {
    acknowledged: waits.length,
    refused,
    perS: (waits.length / tookMs) * 1000,
    medianMs: at(0.5),
    p99Ms: at(0.99),
    worstMs: at(1),
  };
}

/** Posts of one reading each, so many at the same time; a board never has two under way. @param perS no faster than this; Infinity: as fast as they are answered */
export async function overHttp(
  address: string,
  boards: readonly Board[],
  lanes: number,
  forMs: number,
  perS = Infinity,
): Promise<Load> {
  const agent = new Agent({ keepAlive: true, maxSockets: lanes });
  const url = new URL('/api/readings', address);
  const waits: number[] = [];
  let [refused, sent] = [0, 0];
  const seqs = new Map<string, number>();
  const began = performance.now();
  const post = ({ id, key }: Board): Promise<number> => {
    const seq = (seqs.get(id) ?? -1) + 1;
    seqs.set(id, seq);
    // As a board does: what met a connection that was just being closed is sent again under its number.
    return postOnce(id, key, seq).catch(() => postOnce(id, key, seq));
  };
  const postOnce = (id: string, key: string, seq: number): Promise<number> =>
    new Promise((tell, fail) => {
      const body = bodyOf(id, seq, 1);
      const asked = request(
        url,
        {
          method: 'POST',
          agent,
          headers: {
            authorization: `Bearer ${key}`,
            'content-type': 'application/json',
            'content-length': Buffer.byteLength(body),
          },
        },
        (response) => {
          response.resume();
          response.on('end', () => tell(response.statusCode ?? 0));
        },
      );
      asked.on('error', fail);
      asked.end(body);
    });
  const lane = async (which: number) => {
    const mine = boards.filter((_, at) => at % lanes === which);
    for (let turn = 0; performance.now() - began < forMs; turn += 1) {
      const board = mine[turn % mine.length];
      if (!board) return;
      const dueMs = (sent / perS) * 1000 - (performance.now() - began);
      sent += 1;
      if (dueMs > 1) await new Promise((done) => setTimeout(done, dueMs));
      const startedMs = performance.now();
      if ((await post(board)) === 200) waits.push(performance.now() - startedMs);
      else refused += 1;
    }
  };
  await Promise.all(Array.from({ length: lanes }, (_, which) => lane(which)));
  agent.destroy();
  return summed(waits, refused, performance.now() - began);
}

/** Reports at QoS 1 of many boards, each with a connection of its own and one report under way. */
export async function overMqtt(
  port: number,
  gardenId: string,
  boards: readonly Board[],
  readings: number,
  forMs: number,
): Promise<Load> {
  const clients = await Promise.all(
    boards.map(({ id, key }) =>
      mqtt.connectAsync(`mqtt://127.0.0.1:${port}`, { username: id, password: key, clientId: `b-${id}` }),
    ),
  );
  const waits: number[] = [];
  const began = performance.now();
  await Promise.all(
    clients.map(async (client, at) => {
      const id = boards[at]?.id ?? '';
      for (let seq = 0; performance.now() - began < forMs; seq += 1) {
        const startedMs = performance.now();
        await client.publishAsync(`trowel/${gardenId}/${id}/report`, bodyOf(id, seq, readings), { qos: 1 });
        waits.push(performance.now() - startedMs);
      }
    }),
  );
  const load = summed(waits, 0, performance.now() - began);
  await Promise.all(clients.map((client) => client.endAsync(true)));
  return load;
}
