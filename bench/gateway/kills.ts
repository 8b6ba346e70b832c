/** The gateway is killed again and again while boards report to it; afterwards every report that was acknowledged must be there, once. */
import { mkdtempSync } from 'node:fs';
import { request } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { end, startGateway } from './started.ts';

const BOARDS = 20;

export type Kills = {
  readonly rounds: number;
  readonly acknowledged: number;
  readonly kept: number;
  readonly lost: number;
  readonly doubled: number;
};

export async function killAgainAndAgain(rounds: number): Promise<Kills> {
  const folder = mkdtempSync(join(tmpdir(), 'trowel-kills-'));
  const first = await startGateway(folder);
  const boards = await Promise.all(
    Array.from({ length: BOARDS }, async (_, at) => ({
      id: `b${at}`,
      key: await first.key('bench', `b${at}`),
      seq: 0,
      isWaiting: false,
    })),
  );
  await end(first.child);
  const acknowledged = new Set<string>();
  for (let round = 0; round < rounds; round += 1) {
    const { address, child } = await startGateway(folder);
    let isOver = false;
    const report = async (board: (typeof boards)[number]) => {
      while (!isOver) {
        // A board sends a report again under its number until it is answered.
        if (!board.isWaiting) {
          board.seq += 1;
          board.isWaiting = true;
        }
        if ((await post(address, board)) !== 200) return;
        acknowledged.add(`${board.id} ${board.seq}`);
        board.isWaiting = false;
      }
    };
    const all = Promise.all(boards.map(report));
    await new Promise((done) => setTimeout(done, 150 + Math.random() * 500));
    const killed = end(child, 'SIGKILL');
    await killed;
    isOver = true;
    await all;
  }
  const last = await startGateway(folder);
  const kept = new Map<string, number>();
  const response = await fetch(`${last.address}/api/gardens/bench/feed?app=bench`);
  let text = '';
  for await (const part of response.body ?? []) {
    text += Buffer.from(part as Uint8Array).toString();
    const lines = text.split('\n');
    text = lines.pop() ?? '';
    for (const line of lines) {
      const entry = line.startsWith('data: ')
        ? (JSON.parse(line.slice(6)) as { boardId?: string; seq?: number })
        : {};
      if (entry.boardId !== undefined) {
        const name = `${entry.boardId} ${entry.seq}`;
        kept.set(name, (kept.get(name) ?? 0) + 1);
      }
    }
    if (text.includes('caught-up') || lines.some((line) => line.includes('caught-up'))) break;
  }
  await end(last.child);
  return {
    rounds,
    acknowledged: acknowledged.size,
    kept: kept.size,
    lost: [...acknowledged].filter((name) => !kept.has(name)).length,
    doubled: [...kept.values()].filter((count) => count > 1).length,
  };
}

const post = (address: string, { id, key, seq }: { id: string; key: string; seq: number }): Promise<number> =>
  new Promise((tell) => {
    const body = JSON.stringify({
      board: id,
      boot: 3,
      seq,
      upS: seq,
      readings: [{ n: 'c1', v: seq, agoS: 0 }],
    });
    const asked = request(
      `${address}/api/readings`,
      {
        method: 'POST',
        headers: { authorization: `Bearer ${key}`, 'content-type': 'application/json' },
      },
      (response) => {
        response.on('error', () => tell(0));
        response.resume();
        response.on('end', () => tell(response.statusCode ?? 0));
      },
    );
    asked.on('error', () => tell(0));
    asked.end(body);
  });
