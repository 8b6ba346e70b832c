import { transfer, wrap } from 'comlink';
import { packingHere, type Packing } from '../data/packing.ts';

/** Packing in a worker of its own, so that a file is packed while more of it is made; where there can be no such worker, packing here. */
export async function packingBeside(): Promise<Packing> {
  let worker: Worker | null = null;
  try {
    const started = new Worker(new URL('./pack.worker.ts', import.meta.url), { type: 'module' });
    worker = started;
    const failed = new Promise<never>((_, reject) => {
      started.onerror = ({ message }) => reject(new Error(message || 'The worker that packs has ended.'));
    });
    failed.catch(() => undefined);
    const remote = wrap<Packing>(started);
    // A worker that is gone never answers.
    const answered = <T>(answer: Promise<T>): Promise<T> => Promise.race([answer, failed]);
    await answered(remote.begin());
    return {
      begin: () => answered(remote.begin()),
      write: (bytes) => answered(remote.write(transfer(bytes, [bytes.buffer]))),
      end: () => answered(remote.end()),
    };
  } catch {
    worker?.terminate();
    return packingHere();
  }
}
