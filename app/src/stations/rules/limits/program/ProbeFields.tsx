import { Link, useSearchParams } from 'react-router';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { usesProbe } from '@plain-trowel/core/control/programs/programs';
import type { WaterLine } from '@plain-trowel/core/garden/document/schema';
import { formatPercent } from '@plain-trowel/core/quantity/format';
import { LineNumber } from './LineNumber.tsx';

/** What a line goes by, and what happens while that cannot be read. */
export function ProbeFields({ parts, line }: { parts: PlotParts; line: WaterLine }) {
  const { plot, probe, fit } = parts;
  const [search] = useSearchParams();
  const toLimits = new URLSearchParams(search);
  toLimits.set('view', 'limits');
  const percent = (tenths: number) => formatPercent(tenths / 10, fit ?? 'span');
  return (
    <>
      <p className="mt-1 max-w-[62ch]">
        {line.program.kind === 'alert-only'
          ? 'The lamp and the alerts go by the probe, and nothing runs by it. A dose by hand obeys the guards and is watched for its rise all the same.'
          : !usesProbe(line.program.kind)
            ? 'This program goes by no probe. Where the plot has one, a dose is watched for its rise all the same.'
            : !probe
              ? `${plot.name} has no probe.`
              : !fit
                ? `${probe.label} of ${plot.name}, which has no calibration that holds here.`
                : fit.percentKind === 'switch'
                  ? `${probe.label} of ${plot.name}: dry or wet, by its comparator.`
                  : `${probe.label} of ${plot.name}: start at ${percent(plot.limits.startTenths)}, stop at ${percent(plot.limits.stopTenths)}.`}{' '}
        {usesProbe(line.program.kind) && fit && (
          <Link className="underline underline-offset-4" to={`?${toLimits.toString()}`}>
            Change the limits
          </Link>
        )}
      </p>
      {usesProbe(line.program.kind) && (
        <>
          <div className="mt-3 max-w-[260px]">
            <LineNumber
              line={line}
              field="fallback"
              label="A day while the probe is faulty (0: hold)"
              unit="ml"
              value={line.fallbackMl}
              least={0}
              most={100_000}
              change={(fallbackMl) => ({ fallbackMl })}
            />
          </div>
          <p className="mt-1 max-w-[62ch] text-[14px] text-soft">
            {line.fallbackMl === 0
              ? 'While the probe is faulty the line holds: nothing floods, but a plant may dry out over a holiday.'
              : 'While the probe is faulty this much is given once a day, blind: no plant dries out, but one that is wet already gets wetter, and a tube that is off is not noticed.'}
          </p>
        </>
      )}
    </>
  );
}
