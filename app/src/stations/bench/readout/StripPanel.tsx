import { recordUnitOf } from '@plain-trowel/core/garden/bind/scale';
import { lazy, Suspense, useMemo, useState } from 'react';
import { fullScaleCounts } from '@plain-trowel/core/electrics/converter';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { formatDuration } from '@plain-trowel/core/quantity/format';
import { traceOf } from '@plain-trowel/core/records/trace';
import { stripRange } from '@plain-trowel/core/signal/stripRange';
import { useGarden } from '../../../data/gardenContext.ts';
import { useSheetTone } from '../../../frame/sheetTone.ts';
import { useLive } from '../../../links/liveContext.ts';
import { Choice } from '../../../ui/Choice.tsx';
import type { Hold } from './useHold.ts';

const TimeChart = lazy(async () => ({ default: (await import('../../../charts/TimeChart.tsx')).TimeChart }));

const WINDOWS_S = [60, 600, 3600] as const;
const SHORTEST_MS = 10_000;
const HEIGHT = 250;

/** The strip: raw counts over the last minutes, the references as lines where they are in sight. */
export function StripPanel({ parts, hold }: { parts: PlotParts; hold: Hold }) {
  const { garden } = useGarden();
  const [tone] = useSheetTone();
  const speed = useLive(({ source }) => source?.clock?.speed ?? 1);
  const [chosenS, setChosenS] = useState<number | null>(null);
  // A faster clock fills a minute in a blink: until the person chooses, the strip is as long as about a minute of watching.
  const windowS = chosenS ?? (speed === 60 ? 3600 : speed === 10 ? 600 : 60);
  const unit = recordUnitOf(parts.channel);
  const full = fullScaleCounts(parts.board?.adcBits ?? 12);
  const { calibration, fit } = parts;
  const { timesMs: times, values } = hold.stretchOf(windowS * 1000);

  const chart = useMemo(() => {
    const toMs = times.at(-1) ?? 0;
    // While little has come in, the strip begins with the first reading instead of standing empty.
    const fromMs = Math.max(toMs - windowS * 1000, Math.min(times[0] ?? toMs, toMs - SHORTEST_MS));
    const range = stripRange(values, full);
    const nameAt = (counts: number) =>
      calibration?.points.find((point) =>
        point.captures.some((one) => Math.abs(one.rawCounts - counts) < (fit?.spanCounts ?? 0) / 50),
      )?.condition ?? 'end of the range';
    const lines = (
      fit
        ? [
            { at: fit.dryCounts, label: `dry: ${nameAt(fit.dryCounts)}`, side: 'above' as const },
            { at: fit.wetCounts, label: `wet: ${nameAt(fit.wetCounts)}`, side: 'above' as const },
          ]
        : []
    ).filter((line) => line.at > range.low && line.at < range.high);
    return {
      fromMs,
      toMs,
      yMin: range.low,
      yMax: range.high,
      points: traceOf(times, values, 320),
      lines,
    };
  }, [times, values, windowS, full, calibration, fit]);

  return (
    <section aria-label="Strip" className="mt-2">
      <div className="flex items-center justify-between gap-3">
        <h2 className="label">
          {capital(unit)}, last {formatDuration(windowS)}
        </h2>
        <Choice
          legend="Length of the strip"
          options={WINDOWS_S.map((value) => ({ value, label: formatDuration(value) }))}
          value={windowS}
          onChange={setChosenS}
        />
      </div>
      {times.length === 0 && <p className="text-soft">Nothing came in the last {formatDuration(windowS)}.</p>}
      <Suspense fallback={<div style={{ height: HEIGHT }} />}>
        {times.length > 0 && (
          <TimeChart
            label={`${capital(unit)} of ${parts.probe?.label ?? 'the probe'} over the last ${formatDuration(windowS)}`}
            height={HEIGHT}
            timeZone={garden.timeZone}
            yUnit={unit}
            tone={tone}
            {...chart}
          />
        )}
      </Suspense>
    </section>
  );
}

const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
