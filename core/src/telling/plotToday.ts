/** What a plot's row on Today says beside its reading: when it is watered next, and how it stood a day ago. */
import { readCurve } from '../calibration/curve.ts';
import { skippedUntil, type LineAnswer } from '../control/host/answers.ts';
import { boundSlots, nextDueS } from '../control/programs/slots.ts';
import { calibrationMismatch, type PlotParts } from '../garden/bind/plotParts.ts';
import type { Garden, WaterLine } from '../garden/document/schema.ts';
import { byId } from '../quantity/byId.ts';
import { formatPercent } from '../quantity/format.ts';
import { localTimeIn } from '../quantity/localTime.ts';
import { isShownRaw } from '../quantity/percentKind.ts';
import { dayTime, shortTime } from '../quantity/timeText.ts';
import { medianOf } from '../signal/noise.ts';

const DAY_S = 86_400;
const DAY_MS = 1000 * DAY_S;
/** "05:30" within the day, "Tue 24 Nov, 05:30" beyond it. */
export const whenText = (atMs: number, nowMs: number, timeZone: string): string =>
  Math.abs(atMs - nowMs) < DAY_MS / 2 ? shortTime(atMs, timeZone) : dayTime(atMs, timeZone);

/**
 * When and by what a plot is watered next, in a few words. It foretells nothing of the weather: a line that goes by a probe starts when the reading falls to its limit.
 * @param answer what the line's board says now; undefined: nothing
 */
export function nextWater(
  garden: Garden,
  { fit, plot }: PlotParts,
  line: WaterLine,
  answer: LineAnswer | undefined,
  nowMs: number,
): string {
  const { timeZone } = garden;
  const { program } = line;
  if (program.kind === 'alert-only') return 'by you, when it is too dry';
  if (!line.automatic) return 'switched off';
  if (answer?.isLocked) return 'locked';
  if (answer?.isOn) return 'running now';
  const skippedMs = skippedUntil(answer, nowMs);
  if (skippedMs !== null) return `skipped until ${whenText(skippedMs, nowMs, timeZone)}`;
  if (program.kind === 'timer' || program.kind === 'veto') {
    const atMs = nextSlotMs(program.slots, nowMs, timeZone);
    const unless = program.kind === 'veto' ? ', unless it is wet enough' : '';
    return atMs === null ? 'no time is set' : `${whenText(atMs, nowMs, timeZone)}${unless}`;
  }
  if (program.kind === 'follower')
    return `after ${byId(garden.waterLines, program.leaderId)?.name ?? 'another line'}`;
  const limit =
    fit && !isShownRaw(fit.percentKind)
      ? ` ${formatPercent(plot.limits.startTenths / 10, fit)}`
      : ' its start limit';
  const earliest =
    answer?.mayStartAtMs != null && answer.mayStartAtMs > nowMs
      ? `, not before ${whenText(answer.mayStartAtMs, nowMs, timeZone)}`
      : '';
  return `at${limit}${earliest}`;
}

/** When the next time of a timer begins, ms since 1970; null without times. */
function nextSlotMs(slots: Parameters<typeof boundSlots>[0], nowMs: number, timeZone: string): number | null {
  const clockAt = localTimeIn(timeZone);
  const clock = clockAt(nowMs);
  const nextS = nextDueS(boundSlots(slots), clock, 0);
  if (nextS === null) return null;
  const atMs = nowMs + nextS * 1000;
  // Between now and then the hour may change: a timer goes by the clock on the wall.
  const offS = clock.daySecond + nextS - clockAt(atMs).daySecond;
  const withinDayS = ((((offS + DAY_S / 2) % DAY_S) + DAY_S) % DAY_S) - DAY_S / 2;
  return atMs + withinDayS * 1000;
}

const AROUND_MS = 1_800_000;
const LEAST_READINGS = 3;

/**
 * How a plot stood a day ago: the median of the readings of an hour round that moment, under the calibration in use. Null where there are too few, or nothing gives a percent.
 * @param readings raw values and their times, oldest first
 */
export function dayAgo(
  parts: PlotParts,
  readings: { readonly timesMs: ArrayLike<number>; readonly raw: ArrayLike<number> },
  nowMs: number,
): string | null {
  const { fit } = parts;
  if (!fit || isShownRaw(fit.percentKind) || calibrationMismatch(parts)) return null;
  const values = Array.from(readings.timesMs)
    .map((timeMs, at) => ({ timeMs, raw: readings.raw[at] ?? Number.NaN }))
    .filter(({ timeMs, raw }) => Math.abs(timeMs - (nowMs - DAY_MS)) <= AROUND_MS && Number.isFinite(raw))
    .map(({ raw }) => raw);
  if (values.length < LEAST_READINGS) return null;
  return formatPercent(readCurve(fit, medianOf(values)).percent, fit);
}
