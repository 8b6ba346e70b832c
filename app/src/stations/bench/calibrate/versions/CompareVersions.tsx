import { byId } from '@plain-trowel/core/quantity/byId';
import { useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import { logUnder, type LogUnder } from '@plain-trowel/core/calibration/compareVersions';
import { countsAtPercent, readCurve } from '@plain-trowel/core/calibration/curve';
import { outcomeOf } from '@plain-trowel/core/calibration/run';
import { calibratedOfVersion, curveOf } from '@plain-trowel/core/garden/bind/curveOf';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { Calibration } from '@plain-trowel/core/garden/document/schema';
import { formatDuration, formatNumber } from '@plain-trowel/core/quantity/format';
import { percentUnit } from '@plain-trowel/core/quantity/percentKind';
import { useGarden } from '../../../../data/gardenContext.ts';
import { seriesQuery } from '../../../../data/queries.ts';
import { Field } from '../../../../ui/Field.tsx';
import { dayTime } from '@plain-trowel/core/quantity/timeText';
import { CurveChart } from '../CurveChart.tsx';
import { contextOf } from '../useRun.ts';

const DAYS = 3;
const DAY_MS = 86_400_000;

/** Two versions side by side: their curves, and what the log of the last days would have read under each. */
export function CompareVersions({
  parts,
  chosen,
  versions,
}: {
  parts: PlotParts;
  chosen: Calibration;
  versions: readonly Calibration[];
}) {
  const { garden } = useGarden();
  const others = versions.filter((one) => one !== chosen && one.percentKind !== 'counts');
  const [otherId, setOther] = useState<string>(others[0]?.id ?? '');
  const other = byId(others, otherId);
  const calibrated = calibratedOfVersion(chosen);
  // Raw cut-offs have no curve to compare.
  if (!calibrated || chosen.percentKind === 'counts') return null;
  const outcome = outcomeOf(chosen, contextOf(garden, parts, Date.parse(chosen.madeAt)));
  const before = other ? calibratedOfVersion(other) : null;
  const sameKind = other?.percentKind === chosen.percentKind;
  return (
    <section aria-label="Compare versions" className="mt-5">
      <h2>Curve of the chosen version</h2>
      {others.length > 0 && (
        <Field label="Compare with" className="mt-1 w-[260px]">
          {(props) => (
            <select {...props} value={otherId} onChange={(event) => setOther(event.target.value)}>
              {others.map((one) => (
                <option key={one.id} value={one.id}>
                  {dayTime(Date.parse(one.madeAt), garden.timeZone)}, {percentUnit(one.percentKind)}
                </option>
              ))}
              <option value="">nothing</option>
            </select>
          )}
        </Field>
      )}
      <CurveChart calibrated={calibrated} outcome={outcome} now={null} before={sameKind ? before : null} />
      {other && !sameKind && (
        <p className="text-[14px] text-soft">
          The two speak of different kinds of percent, so their curves cannot lie in one picture.
        </p>
      )}
      {other && sameKind && (
        <p className="text-[14px] text-soft">The broken line is the version it is compared with.</p>
      )}
      <LogUnderBoth parts={parts} versions={other ? [other, chosen] : [chosen]} />
    </section>
  );
}

/** The same raw log read by each version. Recalibrating never rewrites a reading, so both can always be worked out. */
function LogUnderBoth({ parts, versions }: { parts: PlotParts; versions: readonly Calibration[] }) {
  const { garden } = useGarden();
  const [nowMs] = useState(() => Date.now());
  const { data: series } = useQuery(
    seriesQuery(garden.id, parts.channel?.id ?? '', nowMs - DAYS * DAY_MS, nowMs),
  );
  if (!series || series.raw.length === 0)
    return <p className="mt-1 text-soft">No log of the last {DAYS} days to read by it.</p>;
  const inUse = parts.fit;
  const startPercent = parts.plot.limits.startTenths / 10;
  const startCounts = inUse && countsAtPercent(inUse, startPercent);
  const rows = versions.flatMap((version) => {
    const curve = curveOf(version);
    if (!curve) return [];
    // The limit keeps its percent where both speak of one kind, else its raw value.
    const start =
      inUse === null || startCounts === null
        ? null
        : version.percentKind === inUse.percentKind
          ? startPercent
          : readCurve(curve, startCounts).percent;
    const under = logUnder(series.timesMs, series.raw, curve, start);
    return under ? [{ version, under }] : [];
  });
  return (
    <>
      <h3 className="mt-3 text-[15px] font-semibold">What the last {DAYS} days would have read</h3>
      <div className="overflow-x-auto">
        <table>
          <thead>
            <tr>
              <th>Under the version of</th>
              {COLUMNS.map((column) => (
                <th key={column} className="text-right">
                  {column}
                </th>
              ))}
              <th className="text-right">Below the start limit</th>
            </tr>
          </thead>
          <tbody>
            {rows.map(({ version, under }) => (
              <tr key={version.id}>
                <td className="num">
                  {dayTime(Date.parse(version.madeAt), garden.timeZone)}, {percentUnit(version.percentKind)}
                </td>
                {COLUMNS.map((column) => (
                  <td key={column} className="num text-right">
                    {formatNumber(under[column], 1)}
                  </td>
                ))}
                <td className="num text-right">{formatDuration(under.belowS)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  );
}

const COLUMNS = ['lowest', 'mean', 'highest', 'last'] as const satisfies readonly (keyof LogUnder)[];
