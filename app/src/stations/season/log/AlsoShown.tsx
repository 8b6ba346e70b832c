import { lazy, Suspense, useMemo } from 'react';
import { useQuery } from '@tanstack/react-query';
import { channelName, fullScaleOf } from '@plain-trowel/core/garden/bind/channels';
import { meantSeries } from '@plain-trowel/core/garden/bind/meantSeries';
import type { Channel } from '@plain-trowel/core/garden/document/schema';
import { shownUnit } from '@plain-trowel/core/quantity/units';
import { tracesBySource } from '@plain-trowel/core/records/paleTrace';
import { stripRange } from '@plain-trowel/core/signal/stripRange';
import { useGarden } from '../../../data/gardenContext.ts';
import { shownQuery } from '../../../data/queries.ts';
import { useSheetTone } from '../../../frame/sheetTone.ts';
import { Check } from '../../../ui/Check.tsx';
import { DamageNote } from './DamageNote.tsx';
import { BUCKETS } from './logDrawing.ts';

const TimeChart = lazy(async () => ({ default: (await import('../../../charts/TimeChart.tsx')).TimeChart }));

const HEIGHT = 132;
/** Values of nothing known: the strip is as high as this many of its units at least. */
const LEAST_SCALE = 50;

/** Further channels of the garden over the same time, each in its own unit; which, is up to whoever looks. */
export function AlsoShown({
  own,
  chosen,
  onChange,
  fromMs,
  toMs,
}: {
  /** The channel of the chart above. */
  readonly own: string;
  readonly chosen: readonly string[];
  readonly onChange: (chosen: readonly string[]) => void;
  readonly fromMs: number;
  readonly toMs: number;
}) {
  const { garden } = useGarden();
  const others = garden.channels.filter(({ id }) => id !== own);
  if (others.length === 0) return null;
  const shown = others.filter(({ id }) => chosen.includes(id));
  return (
    <section aria-label="Also over this time">
      {shown.map((channel) => (
        <Strip key={channel.id} channel={channel} fromMs={fromMs} toMs={toMs} />
      ))}
      <details className="mt-1">
        <summary className="press py-1 font-semibold">
          Also show{shown.length > 0 && ` (${shown.length} of ${others.length} shown)`}
        </summary>
        <ul className="grid gap-x-6 sm:grid-cols-2 lg:grid-cols-3">
          {others.map((channel) => (
            <li key={channel.id}>
              <Check
                checked={chosen.includes(channel.id)}
                onChange={(on) =>
                  onChange(on ? [...chosen, channel.id] : chosen.filter((id) => id !== channel.id))
                }
              >
                {channelName(garden, channel)}
              </Check>
            </li>
          ))}
        </ul>
      </details>
    </section>
  );
}

function Strip({ channel, fromMs, toMs }: { channel: Channel; fromMs: number; toMs: number }) {
  const { garden } = useGarden();
  const [tone] = useSheetTone();
  const record = useQuery(shownQuery(garden.id, channel.id, fromMs, toMs)).data;
  const damagedDays = record?.damagedDays ?? [];
  const name = channelName(garden, channel);
  const drawn = useMemo(() => {
    if (!record || record.readings === 0) return null;
    const { values, unit: metric } = meantSeries(garden, channel, record.series.raw);
    const { unit, show } = shownUnit(garden.units, metric);
    const shown = values.map(show);
    const { low, high } = stripRange(
      shown,
      channel.quantity === 'moisture' && unit.startsWith('raw') ? fullScaleOf(garden, channel) : LEAST_SCALE,
    );
    const { own, standIn } = tracesBySource(record.series, shown, BUCKETS, record.isGap);
    return { points: own, pale: standIn, unit, yMin: low, yMax: high };
  }, [record, garden, channel]);
  return (
    <figure className="mt-2">
      <figcaption className="text-[14px] font-semibold">
        {name}
        {drawn ? `, ${drawn.unit}` : ''}
        {drawn && drawn.pale.length > 0 && (
          <span className="font-normal text-soft"> (paler: read by stand-in boards)</span>
        )}
      </figcaption>
      <DamageNote days={damagedDays} events={0} />
      {drawn ? (
        <Suspense fallback={<div style={{ height: HEIGHT }} />}>
          <TimeChart
            label={`${name} over the same time, ${drawn.unit}`}
            height={HEIGHT}
            timeZone={garden.timeZone}
            fromMs={fromMs}
            toMs={toMs}
            yMin={drawn.yMin}
            yMax={drawn.yMax}
            yUnit={drawn.unit}
            points={drawn.points}
            pale={drawn.pale}
            tone={tone}
          />
        </Suspense>
      ) : (
        damagedDays.length === 0 && (
          <p className="text-[14px] text-soft">
            {record ? 'Nothing was read in this stretch of time.' : 'Reading the log …'}
          </p>
        )
      )}
    </figure>
  );
}
