import { marigoldHare } from '@plain-trowel/standins/sample/marigoldHare';
import { writeGardenFile } from '@plain-trowel/core/garden/document/gardenFile';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import type { AlertRule } from '@plain-trowel/core/control/alerts';
import type { Report } from '@plain-trowel/core/protocol/report';
import type { WaysGiven } from '@plain-trowel/core/protocol/telling';
import type { Gateway } from '../gateway.ts';
import { NOON, report } from '../mailbox/mailboxForTests.ts';

/** A clock that a test turns. */
export class Clock {
  ms = NOON;
  readonly now = (): number => this.ms;
  pass(seconds: number): void {
    this.ms += seconds * 1000;
  }
}

/** The sample garden, in which "too dry" is told after a minute, at any hour. */
export function hareWith(change: Partial<AlertRule> = {}): Garden {
  const garden = marigoldHare(NOON);
  return {
    ...garden,
    alerts: garden.alerts.map((rule) =>
      rule.kind === 'dry' ? { ...rule, holdOffS: 60, quiet: null, ...change } : rule,
    ),
  };
}

export async function publish(gateway: Gateway, garden: Garden, by = 'laptop'): Promise<void> {
  const before = gateway.gardens.get(garden.id)?.revision ?? null;
  const done = await gateway.gardens.publish(
    garden.id,
    { text: writeGardenFile(garden), by, after: before },
    gateway.nowMs(),
  );
  if (!done.ok) throw new Error(done.issue.kind);
}

/** The chilli crate: 2934 counts are dry, 1144 wet. */
export const DRY = 2800;
export const RIGHT = 2000;

/** A report of the roof board that says nothing but the chilli crate. */
export const chilli = (seq: number, counts: number, more: Partial<Report> = {}): Report =>
  report(seq, { readings: [{ n: 'c2', v: counts, agoS: 1 }], ...more });

export const mailTo = (port: number): NonNullable<WaysGiven['mail']> => ({
  host: '127.0.0.1',
  port,
  security: 'none',
  user: '',
  from: 'trowel@garden.invalid',
  to: 'hare@garden.invalid',
});

/** Waits for something that other programs bring about. */
export async function until(isSo: () => boolean, withinMs = 120_000): Promise<void> {
  const endMs = performance.now() + withinMs;
  while (!isSo()) {
    if (performance.now() > endMs) throw new Error('it did not come about');
    await new Promise((done) => setTimeout(done, 10));
  }
}
