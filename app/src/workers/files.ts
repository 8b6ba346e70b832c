import { proxy, wrap, type Remote } from 'comlink';
import type { FileJobs } from './files.worker.ts';

/** A job under way: its result, and a way to end it at once. A cancelled job resolves to null. */
export type Job<T> = { readonly result: Promise<T | null>; readonly cancel: () => void };

/** Runs one job in a worker of its own, which ends with it. */
export function runJob<T>(start: (jobs: Remote<FileJobs>) => Promise<T>): Job<T> {
  const worker = new Worker(new URL('./files.worker.ts', import.meta.url), { type: 'module' });
  let cancel: () => void = () => undefined;
  const cancelled = new Promise<null>((resolve) => {
    cancel = () => resolve(null);
  });
  const failed = new Promise<never>((_, reject) => {
    worker.onerror = (event) => reject(new Error(event.message || 'The worker could not start.'));
  });
  const result = Promise.race([start(wrap<FileJobs>(worker)), cancelled, failed]).finally(() =>
    worker.terminate(),
  );
  return { result, cancel: () => cancel() };
}

/** A progress callback that can cross into a worker. */
export const progressOf = <Told extends readonly number[]>(report: (...told: Told) => void) => proxy(report);
