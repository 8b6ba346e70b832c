/** Places for marks on a time axis: round steps, in the garden's own time zone. */
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

/** The step that gives at most `most` marks over a stretch of time, ms. */
export function tickStepMs(spanMs: number, most: number): number {
  return STEPS_MS.find((step) => spanMs / step <= most) ?? 28 * DAY;
}

/**
 * Round times from `fromMs` to `toMs`, at most about `most` of them. Steps count from the zone's own midnight, so that a six-hour step falls on
 * 0, 6, 12 and 18 o'clock there; over a clock change they stay evenly spaced and may sit an hour off.
 */
export function timeTicks(
  fromMs: number,
  toMs: number,
  most: number,
  timeZone: string,
): { ticksMs: number[]; stepMs: number } {
  const stepMs = tickStepMs(toMs - fromMs, most);
  const shift = zoneOffsetMs(fromMs, timeZone);
  const ticksMs: number[] = [];
  for (let at = Math.ceil((fromMs + shift) / stepMs) * stepMs - shift; at <= toMs; at += stepMs)
    ticksMs.push(at);
  return { ticksMs, stepMs };
}

/** How far the zone's clocks are ahead of UTC at a time, ms. */
export function zoneOffsetMs(timeMs: number, timeZone: string): number {
  const parts = new Intl.DateTimeFormat('en-GB', {
    timeZone,
    hourCycle: 'h23',
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
    hour: '2-digit',
    minute: '2-digit',
    second: '2-digit',
  }).formatToParts(timeMs);
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
