/** Days and hours as people read them, in the garden's own time zone. */
const formats = new Map<string, Intl.DateTimeFormat>();

function format(timeZone: string, style: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  const key = `${timeZone} ${JSON.stringify(style)}`;
  const known = formats.get(key);
  if (known) return known;
  // Two-digit 24-hour times and day before month: the same on every machine, and unmistakable.
  const made = new Intl.DateTimeFormat('en-GB', { timeZone, hourCycle: 'h23', ...style });
  formats.set(key, made);
  return made;
}

/** A date that cannot be, as from a damaged record, must break no sheet. */
const NO_TIME = '–';
const say = (ms: number, timeZone: string, style: Intl.DateTimeFormatOptions): string =>
  Math.abs(ms) <= 8.64e15 ? format(timeZone, style).format(ms) : NO_TIME;

/** "16:20:05" */
export const clockTime = (ms: number, timeZone: string): string =>
  say(ms, timeZone, { hour: '2-digit', minute: '2-digit', second: '2-digit' });

/** "16:20" */
export const shortTime = (ms: number, timeZone: string): string =>
  say(ms, timeZone, { hour: '2-digit', minute: '2-digit' });

/** "24 Nov" */
export const dayText = (ms: number, timeZone: string): string =>
  say(ms, timeZone, { day: 'numeric', month: 'short' });

/** "Nov 2026" */
export const monthText = (ms: number, timeZone: string): string =>
  say(ms, timeZone, { month: 'short', year: 'numeric' });

/** "24 November 2026" */
export const fullDay = (ms: number, timeZone: string): string =>
  say(ms, timeZone, { day: 'numeric', month: 'long', year: 'numeric' });

/** "Tue 24 Nov, 16:20"; to the second where readings must be told apart. */
export const dayTime = (ms: number, timeZone: string, to: 'min' | 's' = 'min'): string =>
  `${say(ms, timeZone, { weekday: 'short', day: 'numeric', month: 'short' }).replace(',', '')}, ${to === 's' ? clockTime(ms, timeZone) : shortTime(ms, timeZone)}`;

/** "20:05" */
export const minuteText = (minute: number): string =>
  `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`;

/** The minute of a typed time; null when it is none. */
export function minuteOf(typed: string): number | null {
  const [, hours = '', minutes = ''] = /^(\d{1,2})[:.](\d{2})$/.exec(typed.trim()) ?? [];
  const minute = Number(hours) * 60 + Number(minutes);
  return hours !== '' && Number(hours) < 24 && Number(minutes) < 60 ? minute : null;
}
