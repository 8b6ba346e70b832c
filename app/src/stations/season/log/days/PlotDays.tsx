import { plotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { monthText } from '@plain-trowel/core/quantity/timeText';
import { bandsOf } from '@plain-trowel/core/quantity/bands';
import { DAY_MS } from '@plain-trowel/core/records/series';
import type { WaterDays } from '@plain-trowel/core/records/waterGiven';
import { useGarden } from '../../../../data/gardenContext.ts';
import { bandFill } from '../../../../ruler/patterns.tsx';
import type { PlotDaysRead } from './useSeason.ts';

const HEIGHT = 58;
const DROP_Y = HEIGHT + 8;

export type DayPlaces = {
  readonly fromDay: number;
  readonly count: number;
  readonly dayPx: number;
  readonly labelPx: number;
};

/** One plot's days: a stroke each from the driest to the wettest, on its own words. */
export function PlotDays({
  plotId,
  days,
  read,
  water,
  pointed,
}: {
  plotId: string;
  days: DayPlaces;
  /** Null while it is read; undefined where nothing tells a percent. */
  read: PlotDaysRead | null | undefined;
  water: WaterDays | null;
  pointed: number | null;
}) {
  const { garden } = useGarden();
  const parts = plotParts(garden, plotId);
  const found = read?.days;
  const unreadable = [...(read?.unreadable ?? [])].filter(
    (day) => day >= days.fromDay && day < days.fromDay + days.count * DAY_MS,
  );
  if (!parts) return null;
  const { fromDay, count, dayPx, labelPx } = days;
  const width = count * dayPx;
  const xOf = (day: number) => labelPx + ((day - fromDay) / DAY_MS + 0.5) * dayPx;
  const yOf = (percent: number) => HEIGHT * (1 - Math.min(100, Math.max(0, percent)) / 100);
  const watered = Array.from({ length: count }, (_, at) => fromDay + at * DAY_MS).filter(
    (day) => (water?.of(plotId, day) ?? 0) > 0,
  );
  return (
    <svg
      role="img"
      aria-label={labelOf(parts.plot.name, read, watered.length)}
      width={labelPx + width}
      height={DROP_Y + 18}
      className="block"
    >
      <text x={0} y={16} className="fill-ink text-[13px] font-semibold">
        {parts.plot.name.length > 15 ? `${parts.plot.name.slice(0, 14)}…` : parts.plot.name}
      </text>
      {(found ?? []).length === 0 && (
        <text x={0} y={34} className="fill-soft text-[12px]">
          {read === null
            ? 'being read …'
            : !parts.fit
              ? 'no percent yet'
              : unreadable.length > 0
                ? 'nothing readable'
                : 'nothing was read'}
        </text>
      )}
      {parts.fit &&
        bandsOf(parts.plot.bandEdges, parts.plot.words).map(({ name, fromTenths, toTenths }) => (
          <rect
            key={name}
            x={labelPx}
            width={width}
            y={yOf(toTenths / 10)}
            height={yOf(fromTenths / 10) - yOf(toTenths / 10)}
            fill={bandFill(name)}
            opacity={0.45}
          />
        ))}
      <rect x={labelPx} width={width} y={0} height={HEIGHT} className="fill-none stroke-rule" />
      {(found ?? []).map((day) => (
        <g key={day.dayMs}>
          <line
            x1={xOf(day.dayMs)}
            x2={xOf(day.dayMs)}
            y1={yOf(day.highest)}
            y2={yOf(day.lowest)}
            className="stroke-ink"
            strokeWidth={Math.max(1, dayPx * 0.35)}
          />
          <circle
            cx={xOf(day.dayMs)}
            cy={yOf(day.mean)}
            r={Math.min(2.4, Math.max(1.3, dayPx * 0.4))}
            className="fill-ink"
          />
        </g>
      ))}
      {unreadable.map((day) => (
        <text
          key={day}
          x={xOf(day)}
          y={HEIGHT / 2 + 4}
          textAnchor="middle"
          className="fill-handle text-[12px]"
        >
          ?
        </text>
      ))}
      {watered.map((day) => (
        <path
          key={day}
          d={`M${xOf(day)} ${DROP_Y - 5}q3.4 4.4 0 6.4q-3.4 -2 0 -6.4z`}
          className="fill-rill stroke-ink"
          strokeWidth={0.6}
        />
      ))}
      {months(fromDay, count).map((day) => (
        <g key={day}>
          <line
            x1={xOf(day) - dayPx / 2}
            x2={xOf(day) - dayPx / 2}
            y1={0}
            y2={HEIGHT + 4}
            className="stroke-soft"
          />
          <text x={xOf(day) - dayPx / 2 + 3} y={DROP_Y + 13} className="fill-soft text-[11px]">
            {monthText(day + DAY_MS / 2, 'UTC')}
          </text>
        </g>
      ))}
      {pointed !== null && (
        <rect
          x={xOf(pointed) - Math.max(3, dayPx / 2)}
          width={Math.max(6, dayPx)}
          y={0}
          height={HEIGHT}
          className="fill-none stroke-handle"
          strokeWidth={1.5}
        />
      )}
    </svg>
  );
}

/** First days of months among the days; of a long row every one, for they have room from two weeks on. */
function months(fromDay: number, count: number): number[] {
  const found: number[] = [];
  for (let at = 0; at < count - 10; at += 1) {
    const day = fromDay + at * DAY_MS;
    if (new Date(day).getUTCDate() === 1) found.push(day);
  }
  return found;
}

function labelOf(name: string, read: PlotDaysRead | null | undefined, watered: number): string {
  if (read === null) return `${name}: being read`;
  const daysText = (count: number) => `${count} ${count === 1 ? 'day' : 'days'}`;
  const [found, damaged] = [read?.days.length ?? 0, read?.unreadable.size ?? 0];
  const parts = [
    found === 0 ? 'no day with a percent' : `${daysText(found)} read`,
    ...(damaged > 0 ? [`${daysText(damaged)} with damaged readings`] : []),
    `watered on ${daysText(watered)}`,
  ];
  return `${name}: ${parts.join(', ')}`;
}
