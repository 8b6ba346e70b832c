import { useSearchParams } from 'react-router';
import { candidatesOf } from '@plain-trowel/core/garden/bind/decided';
import { channelName } from '@plain-trowel/core/garden/bind/channels';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { useGarden } from '../data/gardenContext.ts';
import { useProbeScope } from '../frame/usePlotScope.ts';
import { Choice } from '../ui/Choice.tsx';

/** Which of a plot's probes the sheet is about, where there are several. What decides the plot is chosen under Limits. */
export function ProbeSwitch({ parts }: { parts: PlotParts }) {
  const { garden } = useGarden();
  const [, setSearch] = useSearchParams();
  const chosen = useProbeScope();
  const all = candidatesOf(garden, parts.plot.id);
  if (all.length < 2) return null;
  return (
    <div className="mb-2.5">
      <Choice
        legend="Probe of this plot"
        options={all.map((one) => ({ value: one.id, label: channelName(garden, one) }))}
        value={all.some((one) => one.id === chosen) ? (chosen ?? '') : (parts.channel?.id ?? '')}
        onChange={(id) =>
          setSearch(
            (before) => {
              const next = new URLSearchParams(before);
              next.set('plot', parts.plot.id);
              next.set('probe', id);
              return next;
            },
            { replace: true },
          )
        }
      />
    </div>
  );
}
