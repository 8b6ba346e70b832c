/** Places for marks on a time axis: round steps, in the garden's own time zone. */
import { clockTime, dayText, monthText, shortTime } from '../quantity/timeText.ts';

const SECOND = 1000;
const MINUTE = 60 * SECOND;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;

const STEPS_MS = [
  SECOND,
  2 * SECOND,
  5 * SECOND,
  10 * SECOND,
  30 * SECOND,
  MINUTE,
  2 * MINUTE,
  5 * MINUTE,
  10 * MINUTE,
  30 * MINUTE,
  HOUR,
  2 * HOUR,
  3 * HOUR,
  6 * HOUR,
  12 * HOUR,
  DAY,
  2 * DAY,
  7 * DAY,
  14 * DAY,
  28 * DAY,
];

/** In a longer stretch marks stand at the beginnings of months, so many apart. */
const MONTH_STEPS = [1, 2, 3, 6, 12, 24, 60];
/** About a month: what steps of months are told by. */
export const MONTH_MS = 30 * DAY;

/** The step that gives at most `most` marks over a stretch of time, ms; of months about their length. */
export function tickStepMs(spanMs: number, most: number): number {
  const step = STEPS_MS.find((one) => spanMs / one <= most);
  if (step !== undefined) return step;
  return (MONTH_STEPS.find((months) => spanMs / (months * MONTH_MS) <= most) ?? 60) * MONTH_MS;
}

/**
 * Round times from `fromMs` to `toMs`, at most about `most` of them, by the zone's own clocks: a six-hour step falls on 0, 6, 12 and 18 o'clock there, also behind a change of
 * clocks, and steps of days and months on its midnights.
 */
export function timeTicks(
  fromMs: number,
  toMs: number,
  most: number,
  timeZone: string,
): { ticksMs: number[]; stepMs: number } {
  const stepMs = tickStepMs(toMs - fromMs, most);
  const ticksMs: number[] = [];
  for (const localMs of stepMs < MONTH_MS
    ? evenly(fromMs, toMs, stepMs, timeZone)
    : months(fromMs, stepMs, timeZone)) {
    const near = localMs - zoneOffsetMs(localMs, timeZone);
    // Shorter steps than an hour are even, whatever the clocks do.
    const at =
      stepMs < HOUR ? localMs - zoneOffsetMs(fromMs, timeZone) : localMs - zoneOffsetMs(near, timeZone);
    if (at > toMs) break;
    if (at >= fromMs && at > (ticksMs.at(-1) ?? -Infinity)) ticksMs.push(at);
  }
  return { ticksMs, stepMs };
}

/** Round local times, as if they were UTC, from a step before the first to a step behind the last. */
function* evenly(fromMs: number, toMs: number, stepMs: number, timeZone: string): Generator<number> {
  const shift = zoneOffsetMs(fromMs, timeZone);
  const last = toMs + shift + stepMs;
  for (let at = (Math.floor((fromMs + shift) / stepMs) - 1) * stepMs; at <= last; at += stepMs) yield at;
}

/** Beginnings of months, as if they were UTC, without an end. */
function* months(fromMs: number, stepMs: number, timeZone: string): Generator<number> {
  const by = Math.round(stepMs / MONTH_MS);
  const local = new Date(fromMs + zoneOffsetMs(fromMs, timeZone));
  const first = Math.floor((local.getUTCFullYear() * 12 + local.getUTCMonth()) / by) * by;
  for (let month = first; ; month += by) yield Date.UTC(Math.floor(month / 12), month % 12, 1);
}

/** Making one takes longer than a hundred questions to it. */
const clocks = new Map<string, Intl.DateTimeFormat>();

function clockOf(timeZone: string): Intl.DateTimeFormat {
  const clock =
    clocks.get(timeZone) ??
    new Intl.DateTimeFormat('en-GB', {
      timeZone,
      hourCycle: 'h23',
      year: 'numeric',
      month: '2-digit',
      day: '2-digit',
      hour: '2-digit',
      minute: '2-digit',
      second: '2-digit',
    });
  clocks.set(timeZone, clock);
  return clock;
}

/** How far the zone's clocks are ahead of UTC at a time, ms. */
export function zoneOffsetMs(timeMs: number, timeZone: string): number {
  const parts = clockOf(timeZone).formatToParts(timeMs);
  const part = (type: string) => Number(parts.find((one) => one.type === type)?.value);
  const asUtc = Date.UTC(
    part('year'),
    part('month') - 1,
    part('day'),
    part('hour'),
    part('minute'),
    part('second'),
  );
  return asUtc - Math.floor(timeMs / SECOND) * SECOND;
}

/** What stands at a mark: seconds, minutes, the day at midnight, days or months, by the distance of the marks. */
export function tickText(ms: number, stepMs: number, timeZone: string): string {
  if (stepMs < MINUTE) return clockTime(ms, timeZone);
  if (stepMs >= MONTH_MS) return monthText(ms, timeZone);
  if (stepMs >= DAY) return dayText(ms, timeZone);
  const time = shortTime(ms, timeZone);
  return time === '00:00' ? dayText(ms, timeZone) : time;
}
