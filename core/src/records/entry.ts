/**
 * What a person writes into the log: one of a few things that happen in every garden, with how much where that says something, and words. It is kept as an event; an
 * entry can be changed and taken out again, and both can be undone, for the event before stays in storage.
 */
import { fail, ok, type Result } from '../quantity/result.ts';
import { isMoment } from '../quantity/moment.ts';
import { OLD_ID } from './eventsFile.ts';
import { ENTRY_KINDS, type EventDraft, type GardenEvent } from './event.ts';
import { zoneOffsetMs } from './timeTicks.ts';

/** In the order in which they are offered. */
export const WRITTEN = ['watered', ...ENTRY_KINDS, 'note'] as const;
export type Written = (typeof WRITTEN)[number];

export type Amount = {
  readonly unit: string;
  readonly least: number;
  readonly most: number;
  readonly decimals: number;
  /** Without it the entry says nothing. */
  readonly needed: boolean;
};

/** What is counted of it; null: nothing is. A dial is on whatever scale its maker chose. */
export const AMOUNTS: Readonly<Record<Written, Amount | null>> = {
  watered: { unit: 'ml', least: 1, most: 100_000, decimals: 0, needed: true },
  fed: { unit: 'ml', least: 1, most: 100_000, decimals: 0, needed: false },
  rain: { unit: 'mm', least: 0, most: 500, decimals: 1, needed: true },
  dial: { unit: '', least: -1000, most: 100_000, decimals: 1, needed: true },
  repotted: null,
  flower: null,
  'yellow leaf': null,
  mulched: null,
  moved: null,
  'probe changed': null,
  photo: null,
  note: null,
};

export const MOST_LETTERS = 400;
const DAY_MS = 86_400_000;
/** A clock that is a little ahead writes no future. */
const AHEAD_MS = 60_000;

export type Entry = {
  readonly what: Written;
  readonly amount: number | null;
  readonly text: string;
  readonly atMs: number;
  /** The picture of a photo; null for all else. */
  readonly photo: string | null;
};

export type EntryIssue =
  | { readonly kind: 'no-amount' | 'amount-out'; readonly amount: Amount }
  | { readonly kind: 'no-text' | 'no-photo' | 'no-time' | 'in-future' };

/** The event that keeps an entry. @param of whose plot it is, and what time it is now, ms since 1970 */
export function entryDraft(
  { what, amount, text, atMs, photo }: Entry,
  of: { readonly plotId: string | null; readonly nowMs: number },
): Result<EventDraft, EntryIssue> {
  const counted = AMOUNTS[what];
  const words = text.trim().slice(0, MOST_LETTERS);
  if (counted?.needed && amount === null) return fail({ kind: 'no-amount', amount: counted });
  if (counted && amount !== null && !(amount >= counted.least && amount <= counted.most))
    return fail({ kind: 'amount-out', amount: counted });
  if (what === 'note' && words === '') return fail({ kind: 'no-text' });
  if (what === 'photo' && photo === null) return fail({ kind: 'no-photo' });
  if (!isMoment(atMs)) return fail({ kind: 'no-time' });
  if (atMs > of.nowMs + AHEAD_MS) return fail({ kind: 'in-future' });
  const common = { atMs: Math.round(atMs), plotId: of.plotId, simulated: false };
  if (what === 'note') return ok({ ...common, kind: 'note', text: words });
  if (what === 'watered')
    return ok({ ...common, kind: 'poured', volumeMl: amount ?? 0, ...(words === '' ? {} : { text: words }) });
  return ok({
    ...common,
    kind: 'entry',
    what,
    text: words,
    ...(counted && amount !== null ? { amount } : {}),
    ...(what === 'photo' && photo !== null ? { photo } : {}),
  });
}

/** What a person wrote, to be changed; null for what boards and the page tell, and for what poured in a made-up garden. */
export function entryOf(event: GardenEvent): Entry | null {
  const { atMs } = event;
  if (event.author !== 'person' || event.simulated || event.id.startsWith(OLD_ID)) return null;
  switch (event.kind) {
    case 'note':
      return { what: 'note', amount: null, text: event.text, atMs, photo: null };
    case 'poured':
      return { what: 'watered', amount: event.volumeMl, text: event.text ?? '', atMs, photo: null };
    case 'entry':
      return {
        what: event.what,
        amount: event.amount ?? null,
        text: event.text,
        atMs,
        photo: event.photo ?? null,
      };
    default:
      return null;
  }
}

/** "2026-05-01T07:30", as clocks of the zone show it. */
export const localMinute = (atMs: number, timeZone: string): string =>
  new Date(atMs + zoneOffsetMs(atMs, timeZone)).toISOString().slice(0, 16);

/** The moment at which clocks of the zone show this, ms since 1970; of two the first; in an hour that is left out the one as far behind its beginning. NaN for what is no time. */
export function momentAt(local: string, timeZone: string): number {
  if (!/^\d{4}-\d\d-\d\dT\d\d:\d\d$/.test(local)) return Number.NaN;
  const asUtc = Date.parse(`${local}:00Z`);
  if (Number.isNaN(asUtc)) return asUtc;
  // By the clocks of the day before and of the day after: one of them is right, unless that hour is left out.
  const candidates = [-DAY_MS, DAY_MS].map((shift) => asUtc - zoneOffsetMs(asUtc + shift, timeZone));
  return (
    candidates.sort((one, other) => one - other).find((one) => localMinute(one, timeZone) === local) ??
    Math.max(...candidates)
  );
}
