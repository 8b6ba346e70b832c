/**
 * Whether a report is news. A board sends a report again until it is answered, so the same one may come twice; and a board that was switched off may count from 0
 * again, so two different ones may carry one number. Losing a reading is worse than keeping one twice: what is not surely the same is kept.
 */
import type { Heard } from './entry.ts';

/** What is remembered of a board's starts under one `boot` number. */
export type BootState = {
  /** The newest of them, from 0. */
  readonly run: number;
  /** When that one began, as near as is known, ms since 1970. */
  readonly bootAtMs: number;
  /** Reports of it up to this number have been dropped from the mailbox: they were had once. */
  readonly droppedTo: number | null;
};

export type Verdict =
  | { readonly kind: 'new'; readonly boot: BootState }
  /** Had before; the answer was lost on its way. */
  | { readonly kind: 'again' };

/** A board with this number cannot tell its starts apart. */
const UNTOLD = 0;
/** The way through the network, and restarts that follow one another as fast, ms. */
const DELAY_MS = 30_000;
/** By how much the clock of a cheap board may be wrong. */
const DRIFT_FRAC = 0.02;

/**
 * Judges a report.
 *
 * @param heard the report, with the run it would belong to if it is the same start as the last
 * @param known what is remembered of that board and boot number; null: nothing
 * @param had what lies in the mailbox under its run and number
 */
export function judge(heard: Heard, known: BootState | null, had: Heard | null): Verdict {
  const bootAtMs = heard.receivedMs - heard.upS * 1000;
  if (known === null) return { kind: 'new', boot: { run: 0, bootAtMs, droppedTo: null } };
  const next: Verdict = { kind: 'new', boot: { run: known.run + 1, bootAtMs, droppedTo: null } };
  if (heard.boot === UNTOLD && isAnotherStart(bootAtMs, heard.upS, known)) return next;
  if (had) return isSame(heard, had) ? { kind: 'again' } : next;
  if (known.droppedTo !== null && heard.seq <= known.droppedTo)
    return isAnotherStart(bootAtMs, heard.upS, known) ? next : { kind: 'again' };
  // On its way a report can only be late, so the earliest time is the best.
  return { kind: 'new', boot: { ...known, bootAtMs: Math.min(known.bootAtMs, bootAtMs) } };
}

/** A start is told by when it must have been: later than that of the last one. */
const isAnotherStart = (bootAtMs: number, upS: number, known: BootState): boolean =>
  bootAtMs - known.bootAtMs > DELAY_MS + DRIFT_FRAC * Math.max(upS * 1000, 0);

/** The same contents; ages and the time since the start go on while a report waits to be sent again. */
function isSame(one: Heard, other: Heard): boolean {
  const contents = ({ readings, said, orders }: Heard) =>
    JSON.stringify([
      readings.map(({ n, v }) => [n, v]),
      said.map(({ text }) => text),
      orders.map(({ id, state }) => [id, state]),
    ]);
  return contents(one) === contents(other);
}
