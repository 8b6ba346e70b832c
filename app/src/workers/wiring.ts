import { wrap, type Remote } from 'comlink';
import type { WiringJobs } from './wiring.worker.ts';

type Held = { readonly worker: Worker; readonly jobs: Remote<WiringJobs>; readonly failed: Promise<never> };
let held: Held | null = null;

function start(): Held {
  const worker = new Worker(new URL('./wiring.worker.ts', import.meta.url), { type: 'module' });
  const failed = new Promise<never>((_, reject) => {
    worker.onerror = (event) => {
      // The next job gets a worker that is whole.
      if (held?.worker === worker) held = null;
      worker.terminate();
      reject(new Error(event.message || 'The worker could not start.'));
    };
  });
  failed.catch(() => undefined);
  return { worker, jobs: wrap<WiringJobs>(worker), failed };
}

/** Asks the worker that checks and plans wirings; it stays for the next question. */
export async function askWiring<T>(ask: (jobs: Remote<WiringJobs>) => Promise<T>): Promise<T> {
  held ??= start();
  return Promise.race([ask(held.jobs), held.failed]);
}
