import { proxy, wrap, type ProxyMarked, type Remote } from 'comlink';
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
  const letGo = () => {
    if (idle?.worker === hand.worker) idle = null;
    hand.worker.terminate();
  };
  hand.worker.onerror = letGo;
  idle = { ...hand, timer: setTimeout(letGo, KEPT_MS) };
}

/** Makes of a callback one that can cross into a worker. Once its job is over nothing more is told: progress and result come by two ways, and the one may overtake the other. */
export type Telling = <Told extends readonly number[]>(
  report: (...told: Told) => void,
) => ((...told: Told) => void) & ProxyMarked;

/** Runs one job in a worker that it has to itself. */
export function runJob<T>(start: (jobs: Remote<FileJobs>, telling: Telling) => Promise<T>): Job<T> {
  const hand = takeHand();
  const { worker, jobs } = hand;
  let cancel: () => void = () => undefined;
  const cancelled = new Promise<null>((resolve) => {
    cancel = () => resolve(null);
  });
  const failed = new Promise<never>((_, reject) => {
    worker.onerror = (event) => reject(new Error(event.message || 'The worker could not start.'));
  });
  let [isDone, isOver] = [false, false];
  const telling: Telling = (report) =>
    proxy((...told) => {
      if (!isOver) report(...told);
    });
  const work = start(jobs, telling).then((value) => {
    isDone = true;
    return value;
  });
  const result = Promise.race([work, cancelled, failed]).finally(() => {
    isOver = true;
    // One that was cancelled, or failed, may still be at work.
    if (isDone) keepHand(hand);
    else worker.terminate();
  });
  return { result, cancel: () => cancel() };
}
