import { useQueries } from '@tanstack/react-query';
import { channelName, meantValue } from '@plain-trowel/core/garden/bind/channels';
import { rawUnitOf } from '@plain-trowel/core/garden/bind/scale';
import { fitOf } from '@plain-trowel/core/garden/bind/decided';
import { percentThen, versionsThen } from '@plain-trowel/core/garden/bind/percentThen';
import type { Channel, Garden } from '@plain-trowel/core/garden/document/schema';
import { readCurve } from '@plain-trowel/core/calibration/curve';
import { formatCounts, formatNumber, formatPercent } from '@plain-trowel/core/quantity/format';
import { isShownRaw } from '@plain-trowel/core/quantity/percentKind';
import { dayTime, shortTime } from '@plain-trowel/core/quantity/timeText';
import { shownUnit } from '@plain-trowel/core/quantity/units';
import { nearestReading } from '@plain-trowel/core/records/nearestRow';
import { useGarden } from '../../../data/gardenContext.ts';
import { shownQuery } from '../../../data/queries.ts';
import type { LogScale } from './logDrawing.ts';

/** So near to a reading, as a share of what is drawn, the hand means it. */
const REACH = 1 / 150;

/** What every channel that is shown read at the moment under the hand, each with the time of its reading. */
export function CursorValues({
  channels,
  atMs,
  fromMs,
  toMs,
  scale,
}: {
  /** The one of the chart first. */
  channels: readonly Channel[];
  /** Null: the hand is elsewhere. */
  atMs: number | null;
  fromMs: number;
  toMs: number;
  scale: LogScale;
}) {
  const { garden } = useGarden();
  const records = useQueries({
    queries: channels.map((one) => shownQuery(garden.id, one.id, fromMs, toMs)),
  });
  if (atMs === null)
    return (
      <p className="min-h-[24px] text-[14px] text-soft">
        Point at the chart, or press Shift with left or right on it, to see what was read then.
      </p>
    );
  const values = channels.map((channel, place) => {
    const record = records[place]?.data;
    const found = record && nearestReading(record.series, atMs, record.isGap, (toMs - fromMs) * REACH);
    const name = channelName(garden, channel);
    if (!found) return { name, text: 'nothing was read', at: null };
    const at = record.series.timesMs[found.row] ?? 0;
    const text = readingText(garden, channel, record.series.raw[found.row] ?? 0, at, scale);
    return { name, text: found.isStandIn ? `${text} from a stand-in` : text, at };
  });
  return (
    <p aria-live="polite" aria-label="At the cursor" className="min-h-[24px] text-[14px]">
      <b className="num font-semibold">{dayTime(atMs, garden.timeZone)}</b>
      {values.map(({ name, text, at }) => (
        <span key={name} className="ml-4 inline-block">
          {name} <b className="num font-medium">{text}</b>
          {at !== null && Math.abs(at - atMs) >= 60_000 && (
            <span className="text-soft"> at {shortTime(at, garden.timeZone)}</span>
          )}
        </span>
      ))}
    </p>
  );
}

/** "57.1 % span, 1 620 counts"; in the garden's units what is no moisture. */
function readingText(garden: Garden, channel: Channel, raw: number, timeMs: number, scale: LogScale): string {
  const fit = fitOf(garden, channel);
  if (fit && !isShownRaw(fit.percentKind)) {
    const percent =
      scale === 'then'
        ? (percentThen(versionsThen(garden, channel, fit.percentKind), [timeMs], [raw]).values[0] ??
          Number.NaN)
        : readCurve(fit, raw).percent;
    const counts = `${formatCounts(raw)} ${rawUnitOf(channel)}`;
    return Number.isNaN(percent)
      ? `not calibrated then, ${counts}`
      : `${formatPercent(percent, fit)} (${counts})`;
  }
  const { value, unit, decimals } = meantValue(garden, channel, raw);
  if (value === null) return 'no reading';
  const shown = shownUnit(garden.units, unit);
  return `${formatNumber(shown.show(value), decimals)} ${shown.unit}`.trim();
}
