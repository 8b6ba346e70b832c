import type { Entry } from '@plain-trowel/core/protocol/feed';
import type { Report } from '@plain-trowel/core/protocol/report';

/** A report as it was heard, before it has a number. */
export type Heard = Omit<Entry, 'n' | 'simulated'>;

/** A report with the ages of a board turned into times. @param receivedMs when it came, by the gateway's clock */
export function entryOf(report: Report, receivedMs: number, run: number): Heard {
  const { board, boot, seq, upS, program, revision, readings, said, orders } = report;
  const at = (agoS: number) => Math.max(0, receivedMs - Math.round(agoS * 1000));
  return {
    boardId: board,
    boot,
    run,
    seq,
    receivedMs,
    upS,
    ...(program === undefined ? {} : { program }),
    ...(revision === undefined ? {} : { revision }),
    readings: readings.map(({ n, v, agoS }) => ({ n, v, atMs: at(agoS) })),
    said: said.map(({ text, agoS }) => ({ text, atMs: at(agoS) })),
    orders: orders.map(({ id, state, why }) => ({ id, state, ...(why === undefined ? {} : { why }) })),
  };
}
