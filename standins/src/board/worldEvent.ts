import type { HostContactEvent, HostEvent } from '@plain-trowel/core/control/host/engineHost';
import type { PercentScale } from '@plain-trowel/core/quantity/percentKind';
import type { EventDraft } from '@plain-trowel/core/records/event';
import { contactEventDraft, lineEventDrafts } from '@plain-trowel/core/records/lineEvents';
import type { Setup } from './setup.ts';

/** Of a line's pump or valve. */
type LineEvent = HostEvent & {
  readonly lineName: string;
  readonly plotId: string;
  readonly scale: PercentScale | null;
};

/** Of an output that holds a state. */
type StateEvent = HostContactEvent & {
  readonly contactName: string;
  readonly use: 'permit' | 'light';
  readonly plotId: string;
};

export type WorldEvent = LineEvent | StateEvent;

/** What a board's contacts tell, with the garden's names. */
export const contactWorldEvents = (events: readonly HostContactEvent[], { contacts }: Setup): WorldEvent[] =>
  events.flatMap((event): WorldEvent[] => {
    const contact = contacts.find((one) => one.contactId === event.contactId);
    return contact ? [{ ...event, contactName: contact.name, use: contact.use, plotId: contact.plotId }] : [];
  });

/** What a board's engine tells, with the garden's names; nothing of a line that the garden no longer has. */
export const worldEvents = (events: readonly HostEvent[], { lines }: Setup): WorldEvent[] =>
  events.flatMap((event): WorldEvent[] => {
    const line = lines.find((one) => one.lineId === event.lineId);
    return line ? [{ ...event, lineName: line.name, plotId: line.plotId, scale: line.scale }] : [];
  });

/** A stand-in's event as the garden's log keeps it; none for the ordinary rest. */
export function gardenEventOf(event: WorldEvent): readonly EventDraft[] {
  if ('contactId' in event) return [stateEventOf(event)];
  const { atMs, plotId, boardId, lineId, lineName, scale, seq, bootMs } = event;
  const id = `${boardId} ${bootMs} ${seq}`;
  return lineEventDrafts(event, { id, atMs, plotId, boardId, lineId, lineName, seq, simulated: true, scale });
}

function stateEventOf(event: StateEvent): EventDraft {
  const { atMs, plotId, boardId, contactId, bootMs, contactName, use } = event;
  const id = `${boardId} ${bootMs} ${contactId} ${atMs}`;
  return contactEventDraft(event, { id, atMs, plotId, boardId, simulated: true, contactName, use });
}
