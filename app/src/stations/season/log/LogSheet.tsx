import { recordUnitOf } from '@plain-trowel/core/garden/bind/scale';
import { isShownRaw, percentUnit } from '@plain-trowel/core/quantity/percentKind';
import { useQueries, useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { candidatesOf } from '@plain-trowel/core/garden/bind/decided';
import { versionsThen } from '@plain-trowel/core/garden/bind/percentThen';
import { plotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { fullDay } from '@plain-trowel/core/quantity/timeText';
import { useGarden } from '../../../data/gardenContext.ts';
import { eventsQuery, extentQuery, shownQuery, waterQuery } from '../../../data/queries.ts';
import { MOST_EVENTS, type StoredEvents } from '../../../data/recordStore.ts';
import { usePlotScope, useProbeScope } from '../../../frame/usePlotScope.ts';
import { Choice } from '../../../ui/Choice.tsx';
import { EmptyGarden } from '../../EmptyGarden.tsx';
import { EventTable } from './EventTable.tsx';
import { MismatchNote } from '../../MismatchNote.tsx';
import { ProbeSwitch } from '../../ProbeSwitch.tsx';
import { SeasonDays } from './days/SeasonDays.tsx';
import { DueList } from './DueList.tsx';
import { LogChart } from './LogChart.tsx';
import type { LogScale } from './logDrawing.ts';
import { DamageNote } from './DamageNote.tsx';
import { KeepingState } from './KeepingState.tsx';
import { KeptAside } from './KeptAside.tsx';
import { LogFiles } from './LogFiles.tsx';
import { LogHead } from './LogHead.tsx';
import { EntryBar } from './EntryBar.tsx';
import { AlsoShown } from './AlsoShown.tsx';
import { PointedChart } from './PointedChart.tsx';
import { StorageUse } from './StorageUse.tsx';
import { StretchBar } from './StretchBar.tsx';
import { useReadAhead } from './useReadAhead.ts';
import { LAST_DAY, useStretch, type HeldStretch } from './useStretch.ts';
import { NoteField } from './NoteField.tsx';
import { ReadingTable } from './ReadingTable.tsx';

const NOTHING_KEPT: StoredEvents = { events: [], unreadable: 0 };

/** What was read and what happened: a stretch of time, up to all of it, as a chart with the limits, the events as a table, and the way out as a file. */
export default function LogSheet() {
  const plotId = usePlotScope();
  // Over what time, and which further channels are shown, stays from plot to plot.
  const [held, setHeld] = useState(LAST_DAY);
  const [beside, setBeside] = useState<readonly string[]>([]);
  return plotId === null ? (
    <EmptyGarden what="log" />
  ) : (
    <LogOfPlot
      key={plotId}
      plotId={plotId}
      beside={beside}
      setBeside={setBeside}
      held={held}
      setHeld={setHeld}
    />
  );
}

function LogOfPlot({
  plotId,
  beside,
  setBeside,
  held,
  setHeld,
}: {
  plotId: string;
  beside: readonly string[];
  setBeside: (beside: readonly string[]) => void;
  held: HeldStretch;
  setHeld: (held: HeldStretch) => void;
}) {
  const { garden } = useGarden();
  const parts = plotParts(garden, plotId, useProbeScope());
  // Sent by the notice of a full disk: what makes room comes first then.
  const wantsRoom = useSearchParams()[0].has('room');
  const [wanted, setScale] = useState<LogScale>('percent');
  const channelId = parts?.channel?.id ?? '';
  const stretch = useStretch(channelId, held, setHeld);
  const { fromMs } = stretch;
  // What stands still ends before the moment that the next one begins with.
  const toMs = stretch.follows ? stretch.toMs : stretch.toMs - 1;
  const extent = useQuery(extentQuery(garden.id, channelId)).data ?? null;
  const read = useQuery(shownQuery(garden.id, channelId, fromMs, toMs));
  const mates = candidatesOf(garden, plotId).filter((one) => one.id !== channelId);
  const besides = useQueries({
    queries: mates.map((one) => shownQuery(garden.id, one.id, fromMs, toMs)),
  });
  const others = mates.flatMap((channel, at) => {
    const data = besides[at]?.data;
    return data && data.readings > 0 ? [{ channel, record: data }] : [];
  });
  useReadAhead(
    garden.id,
    garden.channels.map(({ id }) => id),
  );
  const kept = useQuery(eventsQuery(garden.id, fromMs, toMs));
  const water = useQuery(waterQuery(garden.id, fromMs, toMs));
  const record = read.data ?? null;
  const damagedDays = [
    ...new Set([read, ...besides].flatMap(({ data }) => data?.damagedDays ?? [])),
  ].toSorted((a, b) => a - b);
  const { events, unreadable } = kept.data ?? NOTHING_KEPT;
  const own = useMemo(
    () => events.filter((event) => event.plotId === plotId || event.plotId === null),
    [events, plotId],
  );
  if (!parts) return null;
  const hasPercent = parts.fit !== null && !isShownRaw(parts.fit.percentKind);
  const versions =
    hasPercent && parts.channel ? versionsThen(garden, parts.channel, parts.fit.percentKind) : [];
  const scale: LogScale = !hasPercent ? 'raw' : wanted === 'then' && versions.length < 2 ? 'percent' : wanted;
  const shownIds = new Set([channelId, ...others.map(({ channel }) => channel.id), ...beside]);
  const pointed = [
    ...(parts.channel ? [parts.channel] : []),
    ...garden.channels.filter(({ id }) => id !== channelId && shownIds.has(id)),
  ];
  const storage = <StorageUse stretch={stretch} channelId={channelId} wanted={wantsRoom} />;
  const rawUnit = recordUnitOf(parts.channel);
  return (
    <>
      <LogHead parts={parts} record={record} water={water.data ?? null} stretch={stretch} />
      {wantsRoom && storage}
      <ProbeSwitch parts={parts} />
      <MismatchNote parts={parts} />
      <StretchBar tools={stretch} extent={extent} timeZone={garden.timeZone}>
        {parts.fit?.percentKind !== 'counts' && (
          <Choice<LogScale>
            legend="Scale"
            options={[
              {
                value: 'percent',
                label: `${percentUnit(parts.fit?.percentKind ?? 'span')}${versions.length > 1 ? ' now' : ''}`,
                disabled: !hasPercent,
              },
              ...(versions.length > 1
                ? [{ value: 'then' as const, label: `${percentUnit(parts.fit?.percentKind ?? 'span')} then` }]
                : []),
              { value: 'raw', label: rawUnit },
            ]}
            value={scale}
            onChange={setScale}
          />
        )}
      </StretchBar>
      <DamageNote days={damagedDays} events={unreadable} />
      {record && record.readings > 0 ? (
        <LogChart
          parts={parts}
          record={record}
          others={others}
          events={own}
          scale={scale}
          fromMs={fromMs}
          toMs={toMs}
          quick={!stretch.follows}
          frame={(chart) => (
            <PointedChart tools={stretch} channels={pointed} scale={scale} fromMs={fromMs} toMs={toMs}>
              {chart}
            </PointedChart>
          )}
        />
      ) : (
        <p className="my-8 text-soft">
          {record
            ? extent
              ? `${damagedDays.length > 0 ? 'Nothing of this stretch of time can be shown.' : 'Nothing was read in this stretch of time.'} The log holds readings from ${fullDay(extent.fromMs, garden.timeZone)} to ${fullDay(extent.toMs - 1, garden.timeZone)}: “All of it” shows them.`
              : 'Nothing has been read yet. Connect a board on Bench, Readout, or take readings in from a file below.'
            : read.isError
              ? 'The log cannot be read. See above for what is wrong with the browser’s storage.'
              : 'Reading the log …'}
        </p>
      )}
      {scale === 'then' && (
        <p className="mt-1 max-w-[72ch] text-[14px] text-soft">
          Each reading by the newest calibration that had been made by then:{' '}
          {versions.map(({ fromMs }) => fullDay(fromMs, garden.timeZone)).join(', ')}. Before the first there
          is no percent. The line above and the table go by the calibration in use now.
        </p>
      )}
      <AlsoShown own={channelId} chosen={beside} onChange={setBeside} fromMs={fromMs} toMs={toMs} />
      <SeasonDays nowMs={stretch.newestMs} onShow={stretch.show} />
      <EntryBar plotId={plotId} events={own} />
      <NoteField plotId={plotId} />
      {events.length >= MOST_EVENTS && (
        <p className="mt-3 text-[14px] text-soft">
          Of this stretch the newest {MOST_EVENTS} events of the garden are marked and listed. The sum of
          water counts all of them.
        </p>
      )}
      <EventTable events={own} />
      {record?.all && record.all.raw.length > 0 && <ReadingTable parts={parts} series={record.all} />}
      {record && record.all === null && record.readings > 0 && (
        <p className="mt-4 text-[14px] text-soft">
          Of a stretch longer than 35 days the chart shows the first, lowest, highest and last reading of each
          hour. For the readings themselves choose a shorter one; the export holds all of them.
        </p>
      )}
      <DueList />
      <LogFiles />
      <KeepingState />
      {!wantsRoom && storage}
      <KeptAside />
    </>
  );
}
