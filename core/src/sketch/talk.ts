/** What a board's program says of itself, in lines that begin with "# ": a grammar, so that the page follows a real board as it follows a stand-in. */
import { REASONS, type Reason } from '../control/contract/reasons.ts';
import type { LineTold } from '../records/lineEvents.ts';

/** A contact has gone on, or off after so many seconds. */
export type ContactTold =
  | { readonly kind: 'on'; readonly reason: Reason }
  | { readonly kind: 'off'; readonly reason: Reason; readonly onS: number };

export type Said =
  | { readonly kind: 'version'; readonly number: number; readonly name: string }
  /** Ids of the board's lines, in the order of their numbers. */
  | { readonly kind: 'lines'; readonly ids: readonly string[] }
  | {
      readonly kind: 'event';
      readonly line: number;
      readonly told: LineTold;
      readonly plannedS: number | null;
    }
  /** How a line stands; its number counts from 1. */
  | {
      readonly kind: 'line';
      readonly line: number;
      readonly runs: boolean;
      readonly reason: Reason;
      readonly todayMl: number;
      readonly locked: boolean;
    }
  /** For how long yet a line waters nothing by itself, because a person said so, s; 0: it does again. */
  | { readonly kind: 'skip'; readonly line: number; readonly leftS: number }
  /** Ids of the board's contacts, in the order of their numbers. */
  | { readonly kind: 'contacts'; readonly ids: readonly string[] }
  /** How a contact stands; its number counts from 1. */
  | {
      readonly kind: 'contact';
      readonly contact: number;
      readonly isOn: boolean;
      readonly isResting: boolean;
      readonly reason: Reason;
      readonly todayS: number;
    }
  | { readonly kind: 'contact-event'; readonly contact: number; readonly told: ContactTold }
  /** What the board makes of an input, tenths; null: it knows no percent. */
  | { readonly kind: 'percent'; readonly name: string; readonly tenths: number | null }
  /** What the lamps of a plot show: a state of `control/signals`, or "nothing". */
  | { readonly kind: 'lamp'; readonly lamp: number; readonly state: string }
  /** Below which and from which on lamps of a plot say too dry and too wet. */
  | { readonly kind: 'lamp-limits'; readonly lamp: number; readonly values: Readonly<Record<string, string>> }
  /** Limits of a contact, where it has any, and whether it switches by itself. */
  | {
      readonly kind: 'contact-limits';
      readonly contact: number;
      readonly values: Readonly<Record<string, string>>;
    }
  /** The calibration that a probe is read by: "raw:tenths" after each other, and the raw values between which it is in the soil. */
  | {
      readonly kind: 'probe-limits';
      readonly probe: number;
      readonly values: Readonly<Record<string, string>>;
    }
  | { readonly kind: 'limits'; readonly line: number; readonly values: Readonly<Record<string, string>> }
  /** Something typed at its console was taken, or was not. */
  | { readonly kind: 'taken'; readonly what: string }
  | { readonly kind: 'refused'; readonly why: string };

const REASON_SET: ReadonlySet<string> = new Set(REASONS);
const isReason = (word: string): word is Reason => REASON_SET.has(word);
/** Nothing on a board counts further. */
const NUMBER = String.raw`(\d{1,9})`;
const pattern = (text: string): RegExp => new RegExp(`^# ${text.replace(/N/g, NUMBER)}$`);

const VERSION = pattern('version N ([0-9a-f]{12}) engine 1');
const LINES = /^# lines((?: [\w-]{1,60})*)$/;
const STARTED = pattern(String.raw`started N ([a-z-]+) N s(?: at (\d{1,3})\.(\d))?`);
const STOPPED = pattern('stopped N ([a-z-]+) N s N ml');
const OTHER = pattern('(held|refused|locked|unlocked) N ([a-z-]+)');
const LINE = pattern('line N (runs|rests) ([a-z-]+) today N ml( locked)?');
const SKIP = pattern('skip N N s');
const CONTACTS = /^# contacts((?: [\w-]{1,60})+)$/;
const CONTACT = pattern('contact N (is|rests) (on|off) ([a-z-]+) today N s');
const CONTACT_EVENT = pattern('contact N (on|off) ([a-z-]+)(?: N s)?');
const LIMITS = pattern(String.raw`limits N((?: (?:start|stop|dose|water) [\w.]{1,10})*)`);
const LAMP = pattern('lamp N ([a-z-]{3,20})');
const LAMP_LIMITS = pattern(String.raw`limits lamp N dry (\d{1,3}\.\d) wet (\d{1,3}\.\d)`);
const CONTACT_LIMITS = pattern(
  String.raw`limits contact N(?: start (\d{1,3}\.\d) stop (\d{1,3}\.\d))? switch (on|off)`,
);
const PAIR = String.raw`-?\d{1,10}:-?\d{1,10}`;
const PROBE_LIMITS = pattern(`limits probe N table (${PAIR}(?:,${PAIR}){1,7}) soil (${PAIR}) leap N[.](\\d)`);
const PERCENT = /^# percent ([\w.-]{1,60}) (?:(\d{1,3})\.(\d)|unknown)$/;
const TAKEN = /^# taken:?(?: (.{0,80}))?$/;
const REFUSED = /^# no: (.{1,120})$/;

/** Null for every other line. Never throws. */
export function readTalk(text: string): Said | null {
  const line = text.trim();
  return line.startsWith('# ') ? (standing(line) ?? event(line) ?? contactSaid(line) ?? answer(line)) : null;
}

function standing(text: string): Said | null {
  const version = VERSION.exec(text);
  if (version) return { kind: 'version', number: Number(version[1]), name: version[2] ?? '' };
  const ids = LINES.exec(text);
  if (ids) return { kind: 'lines', ids: (ids[1] ?? '').split(' ').slice(1) };
  const line = LINE.exec(text);
  if (line && isReason(line[3] ?? ''))
    return {
      kind: 'line',
      line: Number(line[1]),
      runs: line[2] === 'runs',
      reason: line[3] as Reason,
      todayMl: Number(line[4]),
      locked: line[5] !== undefined,
    };
  const skip = SKIP.exec(text);
  if (skip) return { kind: 'skip', line: Number(skip[1]), leftS: Number(skip[2]) };
  const percent = PERCENT.exec(text);
  if (percent)
    return {
      kind: 'percent',
      name: percent[1] ?? '',
      tenths: percent[2] === undefined ? null : Number(percent[2]) * 10 + Number(percent[3]),
    };
  const shows = LAMP.exec(text);
  if (shows) return { kind: 'lamp', lamp: Number(shows[1]), state: shows[2] ?? '' };
  const lamp = LAMP_LIMITS.exec(text);
  if (lamp)
    return {
      kind: 'lamp-limits',
      lamp: Number(lamp[1]),
      values: { dry: lamp[2] ?? '', wet: lamp[3] ?? '' },
    };
  const contact = CONTACT_LIMITS.exec(text);
  if (contact) {
    const [, number, start, stop, on = ''] = contact;
    const values = { ...(start && stop ? { start, stop } : {}), switch: on };
    return { kind: 'contact-limits', contact: Number(number), values };
  }
  const probe = PROBE_LIMITS.exec(text);
  if (probe)
    return {
      kind: 'probe-limits',
      probe: Number(probe[1]),
      values: { table: probe[2] ?? '', soil: probe[3] ?? '', leap: `${probe[4]}.${probe[5]}` },
    };
  const limits = LIMITS.exec(text);
  if (!limits) return null;
  const words = (limits[2] ?? '').split(' ').slice(1);
  const values: Record<string, string> = {};
  for (let at = 0; at < words.length; at += 2) values[words[at] ?? ''] = words[at + 1] ?? '';
  return { kind: 'limits', line: Number(limits[1]), values };
}

function event(text: string): Said | null {
  const started = STARTED.exec(text);
  if (started && isReason(started[2] ?? '')) {
    const tenths = started[4] === undefined ? null : Number(started[4]) * 10 + Number(started[5]);
    return {
      kind: 'event',
      line: Number(started[1]),
      told: { kind: 'started', reason: started[2] as Reason, tenths },
      plannedS: Number(started[3]),
    };
  }
  const stopped = STOPPED.exec(text);
  if (stopped && isReason(stopped[2] ?? ''))
    return {
      kind: 'event',
      line: Number(stopped[1]),
      told: {
        kind: 'stopped',
        reason: stopped[2] as Reason,
        ranS: Number(stopped[3]),
        volumeMl: Number(stopped[4]),
      },
      plannedS: null,
    };
  const other = OTHER.exec(text);
  if (!other || !isReason(other[3] ?? '')) return null;
  return {
    kind: 'event',
    line: Number(other[2]),
    told: { kind: other[1] as 'held' | 'refused' | 'locked' | 'unlocked', reason: other[3] as Reason },
    plannedS: null,
  };
}

function contactSaid(text: string): Said | null {
  const ids = CONTACTS.exec(text);
  if (ids) return { kind: 'contacts', ids: (ids[1] ?? '').split(' ').slice(1) };
  const stands = CONTACT.exec(text);
  if (stands && isReason(stands[4] ?? ''))
    return {
      kind: 'contact',
      contact: Number(stands[1]),
      isResting: stands[2] === 'rests',
      isOn: stands[3] === 'on',
      reason: stands[4] as Reason,
      todayS: Number(stands[5]),
    };
  const went = CONTACT_EVENT.exec(text);
  if (!went || !isReason(went[3] ?? '')) return null;
  const reason = went[3] as Reason;
  if (went[2] === 'on' && went[4] === undefined)
    return { kind: 'contact-event', contact: Number(went[1]), told: { kind: 'on', reason } };
  return went[2] === 'off' && went[4] !== undefined
    ? {
        kind: 'contact-event',
        contact: Number(went[1]),
        told: { kind: 'off', reason, onS: Number(went[4]) },
      }
    : null;
}

function answer(text: string): Said | null {
  const taken = TAKEN.exec(text);
  if (taken) return { kind: 'taken', what: taken[1] ?? '' };
  const refused = REFUSED.exec(text);
  return refused ? { kind: 'refused', why: refused[1] ?? '' } : null;
}
