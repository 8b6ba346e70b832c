/** What a board's engine tells of a water line or a contact, as the garden's log keeps it. */
import type { Reason } from '../control/contract/reasons.ts';
import { shownCounts, type PercentScale } from '../quantity/percentKind.ts';
import type { EventDraft } from './event.ts';

export type LineTold =
  | { readonly kind: 'started'; readonly reason: Reason; readonly tenths: number | null }
  | { readonly kind: 'stopped'; readonly reason: Reason; readonly ranS: number; readonly volumeMl: number }
  | { readonly kind: 'held' | 'refused' | 'locked' | 'unlocked'; readonly reason: Reason };

/** Whose it is. */
export type LineIdentity = {
  readonly id?: string;
  readonly atMs: number;
  readonly plotId: string;
  readonly boardId: string;
  readonly lineId: string;
  readonly lineName: string;
  readonly seq: number | null;
  readonly simulated: boolean;
  /** What the percent of the start stands on; null: no calibration. */
  readonly scale: PercentScale | null;
};

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

/** None for the ordinary rest. */
export function lineEventDrafts(
  told: LineTold,
  { lineName, scale, ...whose }: LineIdentity,
): readonly EventDraft[] {
  const common = { ...whose, author: 'board' } as const;
  switch (told.kind) {
    case 'started':
      return [
        {
          ...common,
          kind: 'pump-started',
          reason: told.reason,
          tenths: told.tenths,
          ...(scale ? { percentKind: scale.percentKind } : {}),
          ...(scale?.percentKind === 'counts' && told.tenths !== null
            ? { rawCounts: Math.round(shownCounts(scale, told.tenths / 10)) }
            : {}),
        },
      ];
    case 'stopped':
      return [
        { ...common, kind: 'pump-stopped', reason: told.reason, ranS: told.ranS, volumeMl: told.volumeMl },
      ];
    case 'held':
      return QUIET.has(told.reason) ? [] : [{ ...common, kind: 'held', reason: told.reason }];
    case 'refused':
      return [{ ...common, kind: 'order-refused', reason: told.reason }];
    case 'locked':
      return [{ ...common, kind: 'line-locked', lineName }];
    case 'unlocked':
      return [{ ...common, kind: 'line-unlocked', lineName }];
  }
}

/** What a board tells of a contact, as the garden's log keeps it. */
export function contactEventDraft(
  told:
    | { readonly kind: 'on'; readonly reason: Reason }
    | { readonly kind: 'off'; readonly reason: Reason; readonly onS: number },
  whose: Omit<LineIdentity, 'lineId' | 'lineName' | 'seq' | 'scale'> & {
    readonly contactName: string;
    readonly use: 'permit' | 'light';
  },
): EventDraft {
  const common = { ...whose, author: 'board', reason: told.reason } as const;
  return told.kind === 'on'
    ? { ...common, kind: 'contact-on' }
    : { ...common, kind: 'contact-off', onS: told.onS };
}
