/** Local time of the day in a zone. */

/** Seconds since local midnight, and the weekday, Monday 0. */
export type LocalTime = { readonly daySecond: number; readonly weekday: number };

const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

/** @param timeZone IANA name. The formatter is slow, so it is asked once for each quarter of an hour. */
export function localTimeIn(timeZone: string): (timeMs: number) => LocalTime {
  const format = new Intl.DateTimeFormat('en-GB', {
    timeZone,
    weekday: 'short',
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
    hourCycle: 'h23',
  });
  // Offsets change at quarter hours only, so within one a clock just counts on.
  const QUARTER_MS = 900_000;
  let quarter = Number.NaN;
  let start: LocalTime = { daySecond: 0, weekday: 0 };
  return (timeMs) => {
    const now = Math.floor(timeMs / QUARTER_MS);
    if (now !== quarter) {
      quarter = now;
      start = clockOfParts(format.formatToParts(now * QUARTER_MS));
    }
    return {
      daySecond: start.daySecond + Math.floor((timeMs - quarter * QUARTER_MS) / 1000),
      weekday: start.weekday,
    };
  };
}

function clockOfParts(parts: readonly Intl.DateTimeFormatPart[]): LocalTime {
  const part = (type: string) => parts.find((one) => one.type === type)?.value ?? '0';
  return {
    daySecond: Number(part('hour')) * 3600 + Number(part('minute')) * 60 + Number(part('second')),
    weekday: Math.max(0, WEEKDAYS.indexOf(part('weekday'))),
  };
}
