import type { Reason } from '@plain-trowel/core/control/contract/reasons';
import type { HostContactEvent, HostEvent } from '@plain-trowel/core/control/host/engineHost';
import { shownCounts, type PercentScale } from '@plain-trowel/core/quantity/percentKind';
import type { EventDraft } from '@plain-trowel/core/records/event';
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

/** Reasons that are the ordinary rest between two waterings and would only fill the log. */
const QUIET = new Set<Reason>([
  'not-below-start',
  'min-interval',
  'switched-off',
  'alert-only',
  'soaking',
  'waiting-for-rise',
  'not-due',
  'dose-interval',
  'outside-hours',
  'not-dark',
  'leader-rests',
  'other-line-runs',
  'locked',
]);

/** A stand-in's event as the garden's log keeps it; none for the ordinary rest. */
export function gardenEventOf(event: WorldEvent): EventDraft[] {
  if ('contactId' in event) return [stateEventOf(event)];
  const { atMs, plotId, boardId, lineId, seq, bootMs } = event;
  const id = `${boardId} ${bootMs} ${seq}`;
  const common = { id, atMs, plotId, boardId, lineId, seq, author: 'board', simulated: true } as const;
  switch (event.kind) {
    case 'started':
      return [
        {
          ...common,
          kind: 'pump-started',
          reason: event.reason,
          tenths: event.tenths,
          ...(event.scale ? { percentKind: event.scale.percentKind } : {}),
          ...(event.scale?.percentKind === 'counts' && event.tenths !== null
            ? { rawCounts: Math.round(shownCounts(event.scale, event.tenths / 10)) }
            : {}),
        },
      ];
    case 'stopped':
      return [
        { ...common, kind: 'pump-stopped', reason: event.reason, ranS: event.ranS, volumeMl: event.volumeMl },
      ];
    case 'held':
      return QUIET.has(event.reason) ? [] : [{ ...common, kind: 'held', reason: event.reason }];
    case 'refused':
      return [{ ...common, kind: 'order-refused', reason: event.reason }];
    case 'locked':
      return [{ ...common, kind: 'line-locked', lineName: event.lineName }];
    case 'unlocked':
      return [{ ...common, kind: 'line-unlocked', lineName: event.lineName }];
  }
}

function stateEventOf(event: StateEvent): EventDraft {
  const { atMs, plotId, boardId, contactId, bootMs, contactName, use, reason } = event;
  const id = `${boardId} ${bootMs} ${contactId} ${atMs}`;
  const common = {
    id,
    atMs,
    plotId,
    boardId,
    author: 'board',
    simulated: true,
    contactName,
    use,
    reason,
  } as const;
  return event.kind === 'on'
    ? { ...common, kind: 'contact-on' }
    : { ...common, kind: 'contact-off', onS: event.onS };
}
