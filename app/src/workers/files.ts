import { proxy, wrap, type Remote } from 'comlink';
import type { FileJobs } from './files.worker.ts';

/** A job under way: its result, and a way to end it at once. A cancelled job resolves to null. */
export type Job<T> = { readonly result: Promise<T | null>; readonly cancel: () => void };

type Hand = { readonly worker: Worker; readonly jobs: Remote<FileJobs> };

/** One that has done its job waits so long for the next: it takes a third of a second to start another. */
const KEPT_MS = 20_000;
let idle: (Hand & { readonly timer: ReturnType<typeof setTimeout> }) | null = null;

function takeHand(): Hand {
  if (idle) {
    const hand = idle;
    clearTimeout(hand.timer);
    idle = null;
    return hand;
  }
  const worker = new Worker(new URL('./files.worker.ts', import.meta.url), { type: 'module' });
  return { worker, jobs: wrap<FileJobs>(worker) };
}

function keepHand(hand: Hand): void {
  if (idle) {
    hand.worker.terminate();
    return;
  }
  const timer = setTimeout(() => {
    idle = null;
    hand.worker.terminate();
  }, KEPT_MS);
  idle = { ...hand, timer };
}

/** Runs one job in a worker that it has to itself. */
export function runJob<T>(start: (jobs: Remote<FileJobs>) => Promise<T>): Job<T> {
  const hand = takeHand();
  const { worker, jobs } = hand;
  let cancel: () => void = () => undefined;
  const cancelled = new Promise<null>((resolve) => {
    cancel = () => resolve(null);
  });
  const failed = new Promise<never>((_, reject) => {
    worker.onerror = (event) => reject(new Error(event.message || 'The worker could not start.'));
  });
  let isDone = false;
  const work = start(jobs).then((value) => {
    isDone = true;
    return value;
  });
  // One that was cancelled, or failed, may still be at work.
  const result = Promise.race([work, cancelled, failed]).finally(() =>
    isDone ? keepHand(hand) : worker.terminate(),
  );
  return { result, cancel: () => cancel() };
}

/** A progress callback that can cross into a worker. */
export const progressOf = <Told extends readonly number[]>(report: (...told: Told) => void) => proxy(report);
