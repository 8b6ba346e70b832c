import { isShownRaw, percentUnit } from '@plain-trowel/core/quantity/percentKind';
import { UNIT_OF } from '@plain-trowel/core/quantity/quantities';
import { useQueries, useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { withoutBeside } from '@plain-trowel/core/records/series';
import { candidatesOf } from '@plain-trowel/core/garden/bind/decided';
import { plotParts, type PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { useGarden } from '../../../data/gardenContext.ts';
import { eventsQuery, seriesQuery, waterQuery } from '../../../data/queries.ts';
import type { StoredEvents } from '../../../data/recordStore.ts';
import { usePlotScope, useProbeScope } from '../../../frame/usePlotScope.ts';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';
import { Choice } from '../../../ui/Choice.tsx';
import { EmptyGarden } from '../../EmptyGarden.tsx';
import { EventTable } from './EventTable.tsx';
import { MismatchNote } from '../../MismatchNote.tsx';
import { ProbeSwitch } from '../../ProbeSwitch.tsx';
import { DueList } from './DueList.tsx';
import { LogChart, type LogScale } from './LogChart.tsx';
import { DamageNote } from './DamageNote.tsx';
import { KeepingState } from './KeepingState.tsx';
import { KeptAside } from './KeptAside.tsx';
import { LogFiles } from './LogFiles.tsx';
import { LogHead } from './LogHead.tsx';
import { NoteField } from './NoteField.tsx';
import { ReadingTable } from './ReadingTable.tsx';

const NOTHING_KEPT: StoredEvents = { events: [], unreadable: 0 };
const HOUR_MS = 3_600_000;
const RANGES = [
  { value: 1, label: '1 h' },
  { value: 6, label: '6 h' },
  { value: 24, label: '24 h' },
  { value: 72, label: '3 d' },
  { value: 336, label: '14 d' },
] as const;

/** What was read and what happened: the last hours as a chart with the limits, the events as a table, and the way out as a file. */
export default function LogSheet() {
  const plotId = usePlotScope();
  return plotId === null ? <EmptyGarden what="log" /> : <LogOfPlot key={plotId} plotId={plotId} />;
}

/** End of the stretch shown: the newest moment known, moved on in steps so that storage is not asked ten times a second. */
function useNowStep(stepMs: number, parts: PlotParts | null): number {
  const { stored } = useLiveTools();
  const newest = stored.get(parts?.channel?.id ?? '')?.timeMs ?? 0;
  return useLive(({ nowMs }) => Math.ceil(Math.max(nowMs, newest) / stepMs) * stepMs);
}

function LogOfPlot({ plotId }: { plotId: string }) {
  const { garden } = useGarden();
  const parts = plotParts(garden, plotId, useProbeScope());
  const [hours, setHours] = useState<number>(24);
  const [wanted, setScale] = useState<LogScale>('percent');
  const rangeMs = hours * HOUR_MS;
  const toMs = useNowStep(Math.max(10_000, rangeMs / 200), parts);
  const fromMs = toMs - rangeMs;
  const channelId = parts?.channel?.id ?? '';
  const read = useQuery(seriesQuery(garden.id, channelId, fromMs, toMs, true));
  const mates = candidatesOf(garden, plotId).filter((one) => one.id !== channelId);
  const besides = useQueries({
    queries: mates.map((one) => seriesQuery(garden.id, one.id, fromMs, toMs, true)),
  });
  const others = mates.flatMap((channel, at) => {
    const data = besides[at]?.data;
    return data && data.raw.length > 0 ? [{ channel, series: withoutBeside(data) }] : [];
  });
  const kept = useQuery(eventsQuery(garden.id, fromMs, toMs));
  const water = useQuery(waterQuery(garden.id, fromMs, toMs));
  const all = read.data;
  const series = useMemo(() => all && withoutBeside(all), [all]);
  const { events, unreadable } = kept.data ?? NOTHING_KEPT;
  const own = useMemo(
    () => events.filter((event) => event.plotId === plotId || event.plotId === null),
    [events, plotId],
  );
  if (!parts) return null;
  const hasPercent = parts.fit !== null && !isShownRaw(parts.fit.percentKind);
  const scale: LogScale = hasPercent ? wanted : 'raw';
  const rawUnit = parts.channel ? UNIT_OF[parts.channel.quantity].unit : 'raw counts';
  return (
    <>
      <LogHead parts={parts} series={series ?? null} water={water.data ?? null} hours={hours} />
      <ProbeSwitch parts={parts} />
      <MismatchNote parts={parts} />
      <div className="mb-1 flex flex-wrap items-center justify-between gap-3">
        <Choice legend="Stretch of time" options={RANGES} value={hours} onChange={setHours} />
        {parts.fit?.percentKind !== 'counts' && (
          <Choice<LogScale>
            legend="Scale"
            options={[
              {
                value: 'percent',
                label: percentUnit(parts.fit?.percentKind ?? 'span'),
                disabled: !hasPercent,
              },
              { value: 'raw', label: rawUnit },
            ]}
            value={scale}
            onChange={setScale}
          />
        )}
      </div>
      {series && series.raw.length > 0 ? (
        <LogChart
          parts={parts}
          series={series}
          others={others}
          events={own}
          scale={scale}
          fromMs={fromMs}
          toMs={toMs}
        />
      ) : (
        <p className="my-8 text-soft">
          {series
            ? 'Nothing was read in this stretch of time. Choose a longer one, or connect a board on Bench, Readout.'
            : read.isError
              ? 'The log cannot be read. See above for what is wrong with the browser’s storage.'
              : 'Reading the log …'}
        </p>
      )}
      <DamageNote days={all?.damagedDays ?? []} events={unreadable} />
      <NoteField plotId={plotId} />
      <EventTable events={own} />
      {all && all.raw.length > 0 && <ReadingTable parts={parts} series={all} />}
      <DueList />
      <LogFiles />
      <KeepingState />
      <KeptAside />
    </>
  );
}
