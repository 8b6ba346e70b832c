/** When a grow light may be lit: between two moments of the day, and within them by a light cell. */
import { isBetween } from '../../quantity/hours.ts';
import type { Reason } from '../contract/reasons.ts';
import { DAY_S } from '../programs/settings.ts';
import type { ContactsInput, Edge, LightRule } from './contract.ts';

/** The second of the day that an edge falls on; null while the sun is not known. */
function secondOf({ by, s }: Edge, sun: ContactsInput['sun']): number | null {
  if (by === 'clock') return s;
  if (!sun) return null;
  const at = (by === 'sunrise' ? sun.riseS : sun.setS) + s;
  return ((at % DAY_S) + DAY_S) % DAY_S;
}

export type Window = { readonly fromS: number; readonly toS: number };

/**
 * Today's hours; a reason where they are not known. An edge that moves with the sun may pass the other one, as when the sun sets after the hour at which the
 * light is to go out: hours longer than the light may be lit at a stretch are taken for turned round, and there are none that day.
 */
export function windowOf(
  { from, to }: LightRule,
  sun: ContactsInput['sun'],
  mostOnS: number,
): Window | Reason {
  const fromS = secondOf(from, sun);
  const toS = secondOf(to, sun);
  if (fromS === null || toS === null) return 'sun-unknown';
  const lengthS = (toS - fromS + DAY_S) % DAY_S;
  const moves = from.by !== 'clock' || to.by !== 'clock';
  return moves && lengthS > mostOnS ? 'outside-hours' : { fromS, toS };
}

/** Whether the light is wanted: a reason to be lit, or a reason not to be. @param wasDark what the cell said last between its two values */
export function wantsLight(
  rule: LightRule,
  { clock, sun }: ContactsInput,
  mostOnS: number,
  light: number | null,
  wasDark: boolean | null,
): { readonly on: boolean; readonly reason: Reason; readonly held: boolean | null } {
  const off = (reason: Reason, held = wasDark) => ({ on: false, reason, held });
  if (!clock) return off('clock-unknown');
  const hours = windowOf(rule, sun, mostOnS);
  if (typeof hours === 'string') return off(hours);
  // What the cell said yesterday does not tell of today.
  if (!isBetween(hours.fromS, hours.toS, clock.daySecond)) return off('outside-hours', null);
  if (!rule.cell) return { on: true, reason: 'in-hours', held: null };
  if (light === null) return off('light-unknown');
  const isDark =
    light < rule.cell.darkBelow ? true : light > rule.cell.brightAbove ? false : (wasDark ?? false);
  return isDark ? { on: true, reason: 'dark', held: true } : off('not-dark', false);
}

/** Seconds from now to the next moment at which the hours begin or end; null without a clock or sun. */
export function nextEdgeS(rule: LightRule, { clock, sun, nowS }: ContactsInput): number | null {
  if (!clock) return null;
  let next: number | null = null;
  for (const edge of [rule.from, rule.to]) {
    const s = secondOf(edge, sun);
    if (s === null) continue;
    const aheadS = (s - clock.daySecond + DAY_S) % DAY_S || DAY_S;
    if (next === null || nowS + aheadS < next) next = nowS + aheadS;
  }
  return next;
}
