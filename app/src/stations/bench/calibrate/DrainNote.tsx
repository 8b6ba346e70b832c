import { isoOf } from '@plain-trowel/core/quantity/moment';
import { useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import { drainTest, type Drain } from '@plain-trowel/core/calibration/drainTest';
import { addCapture } from '@plain-trowel/core/garden/edits/calibrations';
import { probeScale } from '@plain-trowel/core/garden/bind/channels';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { Run } from '@plain-trowel/core/garden/document/schema';
import { FLAGS } from '@plain-trowel/core/records/series';
import { formatCounts, formatDuration, formatNumber } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../data/gardenContext.ts';
import { seriesQuery } from '../../../data/queries.ts';
import { Button } from '../../../ui/Button.tsx';
import { dayTime } from '@plain-trowel/core/quantity/timeText';

const LOOK_BACK_MS = 4 * 86_400_000;

/** What the log says of the last soaking: still draining, or the plateau a day after, which can be taken as the capacity. */
export function DrainNote({ parts, run }: { parts: PlotParts; run: Run }) {
  const { garden, commit } = useGarden();
  const [nowMs] = useState(() => Date.now());
  const { channel, board, fit } = parts;
  const { data: series } = useQuery(seriesQuery(garden.id, channel?.id ?? '', nowMs - LOOK_BACK_MS, nowMs));
  if (!channel || !board || !series) return null;
  const drain = drainTest(
    Array.from(series.raw, (counts, at) => ({ timeMs: series.timesMs[at] ?? 0, counts })),
    fit?.direction ?? 'falling',
    probeScale(garden, channel).spanCounts,
  );
  const taken = run.points.some((point) => point.condition === 'drained a day');
  const take = (of: Extract<Drain, { kind: 'capacity' }>) =>
    void commit('capacity from the log', (before) => ({
      garden: addCapture(
        before,
        channel.id,
        {
          condition: 'drained a day',
          typed: null,
          felt: null,
          temperatureC: null,
          capture: {
            rawCounts: of.counts,
            noiseCounts: of.sigmaCounts,
            spreadCounts: of.sigmaCounts,
            readings: of.readings,
            windowS: (of.takenAtMs - of.fromMs) / 1000,
            takenAt: isoOf(of.takenAtMs),
            supplyV: board.supplyV,
            boardId: board.id,
            simulated: series.flags.some((flags) => (flags & FLAGS.simulated) !== 0),
            settling: { verdict: 'steady', fromEndCounts: of.sigmaCounts },
          },
        },
        null,
        Math.random,
      ),
    }));
  return (
    <div className="mt-2 border-l-[3px] border-steel pl-3 text-[14.5px]">
      {drain.kind === 'no-soak' && 'The log of the last four days shows no soaking of this plot.'}
      {drain.kind === 'draining' && (
        <>
          Soaked {formatDuration(drain.sinceS)} ago, still moving by{' '}
          <span className="num">{formatNumber(drain.countsPerHour, 1)} counts</span> an hour. The capacity can
          be read in {formatDuration(drain.leftS)}.
        </>
      )}
      {drain.kind === 'capacity' && (
        <>
          Soaked {dayTime(drain.soakedAtMs, garden.timeZone)}; a day later it stood at{' '}
          <b className="num font-semibold">{formatCounts(Math.round(drain.counts))} counts</b>, moving by ±{' '}
          <span className="num">{formatNumber(drain.sigmaCounts, 1)}</span> over eight hours.{' '}
          {!taken && <Button onClick={() => take(drain)}>Take this as its capacity</Button>}
        </>
      )}
    </div>
  );
}
