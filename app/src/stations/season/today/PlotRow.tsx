import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { skippedUntil, type LineAnswer } from '@plain-trowel/core/control/host/answers';
import { usesProbe } from '@plain-trowel/core/control/programs/programs';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { PlotView } from '@plain-trowel/core/live/plotView';
import { soilTemperatureNow } from '@plain-trowel/core/live/readingNow';
import { formatDuration, formatVolume } from '@plain-trowel/core/quantity/format';
import { withoutBeside } from '@plain-trowel/core/records/series';
import { labelLine } from '@plain-trowel/core/telling/plotWords';
import { dayAgo, nextWater, whenText } from '@plain-trowel/core/telling/plotToday';
import { useGarden } from '../../../data/gardenContext.ts';
import { eventsQuery, seriesQuery } from '../../../data/queries.ts';
import { sheetPath } from '../../../frame/stations.ts';
import { useLive } from '../../../links/liveContext.ts';
import { ThinRuler } from '../../../ruler/ThinRuler.tsx';
import { Button } from '../../../ui/Button.tsx';
import { OrderPanel } from '../../rules/limits/program/OrderPanel.tsx';
import { SkipPanel } from '../../rules/limits/program/SkipPanel.tsx';
import { reasonText } from '../../../words/reasonText.ts';
import { temperatureText } from '../../../words/unitText.ts';

const DAY_MS = 86_400_000;
/** Storage is asked once for so long. */
const STEP_MS = 600_000;
const AROUND_MS = 1_800_000;

/** How one plot stands: its ruler, how it stood a day ago, when it was watered and when it will be. */
export function PlotRow({ parts, view }: { parts: PlotParts; view: PlotView }) {
  const { garden } = useGarden();
  const live = useLive();
  const { plot, line, channel } = parts;
  const [isOrdering, setOrdering] = useState(false);
  const hasOrders = live.source?.orders != null && line !== null && live.answers[line.id] !== undefined;
  const toMs = Math.ceil(live.nowMs / STEP_MS) * STEP_MS;
  const thenMs = toMs - DAY_MS;
  const before = useQuery(
    seriesQuery(garden.id, channel?.id ?? '', thenMs - AROUND_MS - STEP_MS, thenMs + AROUND_MS, true),
  ).data;
  const { events = [] } = useQuery(eventsQuery(garden.id, toMs - 14 * DAY_MS, toMs)).data ?? {};
  const last = events.find(
    ({ kind, plotId }) => plotId === plot.id && (kind === 'pump-stopped' || kind === 'poured'),
  );
  const then = before ? dayAgo(parts, withoutBeside(before), live.nowMs) : null;
  const soilC = soilTemperatureNow(garden, plot.id, live.present);
  const facts: readonly (readonly [string, string | null])[] = [
    ['a day ago', then],
    [
      'next',
      line === null
        ? 'by you, no water line'
        : (heldText(parts, view, live.answers[line.id], live.nowMs) ??
          nextWater(garden, parts, line, live.answers[line.id], live.nowMs)),
    ],
    [
      'last',
      last && 'volumeMl' in last
        ? `${formatVolume(Math.round(last.volumeMl))}${last.kind === 'poured' ? ' by hand' : ''}, ${whenText(last.atMs, live.nowMs, garden.timeZone)}`
        : 'not in 14 days',
    ],
    ['soil', soilC === null ? null : temperatureText(soilC)],
  ];
  const ageS = view.atMs === null ? null : Math.max(0, Math.round((live.nowMs - view.atMs) / 1000));
  return (
    <li className="grid grid-cols-[minmax(0,1fr)] gap-x-5 border-b border-rule py-3 md:grid-cols-[180px_minmax(0,1fr)]">
      <div>
        <Link
          to={sheetPath(garden.id, 'bench', 'readout', plot.id)}
          className="press inline-flex min-h-0! text-[17px] font-semibold max-md:min-h-[44px]! max-md:items-center"
        >
          {plot.name}
        </Link>
        <p className="text-[14px] leading-snug">{labelLine(view)}</p>
        {ageS !== null && view.state === 'stale' && (
          <p className="text-[13px] text-soft">
            last read <span className="num">{formatDuration(ageS)}</span> ago
          </p>
        )}
      </div>
      <div className="min-w-0">
        <ThinRuler parts={parts} view={view} />
        <dl className="mt-1 flex pl-2 flex-wrap gap-x-5 gap-y-0.5 text-[14px]">
          {facts.map(
            ([name, value]) =>
              value !== null && (
                <div key={name} className="flex gap-1.5">
                  <dt className="text-soft">{name}</dt>
                  <dd className="font-medium">{value}</dd>
                </div>
              ),
          )}
        </dl>
        {line && hasOrders && (
          <Button look="quiet" className="mt-1 ml-2" onClick={() => setOrdering(!isOrdering)}>
            {isOrdering ? 'Close' : 'Water it, stop it, skip it …'}
            <span className="sr-only">: {plot.name}</span>
          </Button>
        )}
        {line && isOrdering && (
          <>
            <OrderPanel line={line} />
            <SkipPanel line={line} />
          </>
        )}
      </div>
    </li>
  );
}

/** Why a line that should have started does not, in its board's words; null for one that waits as it should. */
function heldText(
  { plot, line }: PlotParts,
  { span }: PlotView,
  answer: LineAnswer | undefined,
  nowMs: number,
): string | null {
  if (!line?.automatic || !usesProbe(line.program.kind) || !span || !answer) return null;
  if (skippedUntil(answer, nowMs) !== null) return null;
  const isDue = span.percent < plot.limits.startTenths / 10;
  return isDue && !answer.isOn && !answer.isLocked && answer.mayStartAtMs === null
    ? `held: ${reasonText(answer.reason)}`
    : null;
}
