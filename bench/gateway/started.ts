/** A gateway in a process of its own, as it is started by hand, with keys for as many boards as are wanted. */
import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { createServer } from 'node:net';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const root = join(import.meta.dirname, '../..');

export type Started = {
  readonly address: string;
  readonly mqttPort: number;
  readonly folder: string;
  readonly child: ChildProcess;
  /** Memory of the process, bytes. */
  /** What it takes, and what of that is no mapped page of the mailbox, bytes. */
  readonly memory: () => Promise<{ readonly all: number; readonly heap: number }>;
  readonly key: (gardenId: string, boardId: string) => Promise<string>;
};

const freePort = (): Promise<number> =>
  new Promise((tell) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as AddressInfo;
      probe.close(() => tell(port));
    });
  });

export async function startGateway(folder = mkdtempSync(join(tmpdir(), 'trowel-bench-'))): Promise<Started> {
  const [port, mqttPort] = [await freePort(), await freePort()];
  const args = [
    '--port',
    String(port),
    '--mqtt-port',
    String(mqttPort),
    '--data',
    folder,
    '--keep-mb',
    '8000',
  ];
  const child = spawn(
    process.execPath,
    [
      ...(process.env.PROF ? ['--cpu-prof', '--cpu-prof-dir=/tmp/prof'] : []),
      '--import',
      'tsx',
      join(root, 'gateway/src/main.ts'),
      ...args,
    ],
    {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, TROWEL_LOG: 'error' },
    },
  );
  const address = `http://127.0.0.1:${port}`;
  for (let tries = 0; tries < 300; tries += 1) {
    const answer = await fetch(`${address}/healthz`).catch(() => null);
    if (answer?.ok) break;
    await new Promise((done) => setTimeout(done, 50));
  }
  return {
    address,
    mqttPort,
    folder,
    child,
    memory: async () => {
      const text = await (await fetch(`${address}/metrics`)).text();
      const gauge = (name: string) => Number(new RegExp(`^${name} (\\S+)`, 'm').exec(text)?.[1]);
      return { all: gauge('trowel_memory_bytes'), heap: gauge('trowel_heap_bytes') };
    },
    key: async (gardenId, boardId) => {
      const response = await fetch(`${address}/api/gardens/${gardenId}/boards/${boardId}/key`, {
        method: 'POST',
      });
      return ((await response.json()) as { key: string }).key;
    },
  };
}

export const end = (child: ChildProcess, signal: NodeJS.Signals = 'SIGTERM'): Promise<void> =>
  new Promise((done) => {
    child.once('exit', () => done());
    child.kill(signal);
  });
