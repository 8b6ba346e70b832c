import { expose, type Endpoint } from 'comlink';
import { afterAll, expect, test, vi } from 'vitest';
import { runJob } from './files.ts';

/** A worker on this thread: what it is asked goes through a channel as to a real one. */
const workers: FakeWorker[] = [];
class FakeWorker {
  isEnded = false;
  onerror: ((event: { readonly message: string }) => void) | null = null;
  private readonly channel = new MessageChannel();
  readonly addEventListener: Endpoint['addEventListener'];
  readonly removeEventListener: Endpoint['removeEventListener'];

  constructor() {
    workers.push(this);
    const { port1, port2 } = this.channel;
    expose(jobs, port2);
    port1.start();
    this.addEventListener = port1.addEventListener.bind(port1);
    this.removeEventListener = port1.removeEventListener.bind(port1);
  }

  postMessage(message: unknown, transfer: Transferable[] = []): void {
    this.channel.port1.postMessage(message, transfer);
  }

  terminate(): void {
    this.isEnded = true;
    this.channel.port1.close();
  }
}

type Told = (doneFrac: number) => unknown;
let late: Told = () => undefined;
const jobs = {
  readBench: (): string => 'read',
  readLog: async (_file: unknown, _options: unknown, told: Told): Promise<string> => {
    await told(0.5);
    late = told;
    return 'read';
  },
  readBackup: (): Promise<string> => new Promise(() => undefined),
  writeCsv: (): never => {
    throw new Error('full');
  },
};

vi.stubGlobal('Worker', FakeWorker);
const [file, garden] = [new Blob(), {} as never];
const short = () => runJob(async (of) => of.readBench(file));

afterAll(() => {
  vi.unstubAllGlobals();
  for (const worker of workers) worker.terminate();
});

test('one that has done its job does the next; of two at a time each has one to itself', async () => {
  await expect(short().result).resolves.toBe('read');
  await expect(short().result).resolves.toBe('read');
  expect(workers).toHaveLength(1);
  const both = [short(), short()];
  await Promise.all(both.map(async ({ result }) => result));
  expect(workers.map(({ isEnded }) => isEnded)).toEqual([false, true]);
});

test('what is told after the job is over is told to nobody', async () => {
  const told: number[] = [];
  const job = runJob(async (of, telling) =>
    of.readLog(
      file,
      { startMs: 0, intervalMs: 0 },
      telling((share) => told.push(share)),
    ),
  );
  await expect(job.result).resolves.toBe('read');
  await late(0.7);
  expect(told).toEqual([0.5]);
});

test('one that was cancelled, or went wrong, is ended, for it may still be at work', async () => {
  const before = workers.length;
  const long = runJob(async (of, telling) =>
    of.readBackup(
      file,
      telling(() => undefined),
    ),
  );
  long.cancel();
  await expect(long.result).resolves.toBe(null);
  await expect(
    runJob(async (of, telling) =>
      of.writeCsv(
        garden,
        telling(() => undefined),
      ),
    ).result,
  ).rejects.toThrow('full');
  expect(workers.slice(Math.max(0, before - 1)).filter(({ isEnded }) => !isEnded)).toEqual([]);
});
