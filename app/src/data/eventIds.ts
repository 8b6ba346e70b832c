import { identified, type EventDraft, type GardenEvent } from '@plain-trowel/core/records/event';

/** A name that nothing else has; also where the page is not served securely. */
export const freshName = (): string =>
  Array.from(crypto.getRandomValues(new Uint32Array(4)), (part) => part.toString(36)).join('');

/** Gives events names that no other event has, made before the first attempt to write, so that a second attempt keeps them once. */
export function named(drafts: readonly EventDraft[], author: GardenEvent['author']): GardenEvent[] {
  const stem = freshName();
  return drafts.map((draft, at) => identified(draft, `${stem} ${at}`, author));
}
