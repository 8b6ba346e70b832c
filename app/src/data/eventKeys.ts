import type { GardenEvent } from '@plain-trowel/core/records/event';
import type { KeyedEvent } from './recordStore.ts';

/** A name that nothing else has; also where the page is not served securely. */
export const freshName = (): string =>
  Array.from(crypto.getRandomValues(new Uint32Array(4)), (part) => part.toString(36)).join('');

/** Gives events keys that no other event has, made before the first attempt to write, so that a second attempt keeps them once. */
export function withKeys(events: readonly GardenEvent[]): KeyedEvent[] {
  const stem = freshName();
  return events.map((event, at) => ({ key: `${stem} ${at}`, event }));
}
