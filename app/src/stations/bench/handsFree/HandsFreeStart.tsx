import { useState } from 'react';
import { channelName } from '@plain-trowel/core/garden/bind/channels';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import { useGarden } from '../../../data/gardenContext.ts';
import { useLive } from '../../../links/liveContext.ts';
import { Button } from '../../../ui/Button.tsx';
import { Check } from '../../../ui/Check.tsx';
import { takenTogether } from './members.ts';

/** The quick way: this probe, or every one that is heard, in air and in one jar. */
export function HandsFreeStart({
  parts,
  onBegin,
}: {
  parts: PlotParts;
  onBegin: (channelIds: readonly string[]) => void;
}) {
  const { garden } = useGarden();
  const live = useLive();
  const own = parts.channel?.id ?? '';
  const able = takenTogether(garden, live.present);
  const [others, setOthers] = useState<ReadonlySet<string>>(new Set());
  const chosen = able.filter((one) => one.id === own || others.has(one.id)).map((one) => one.id);
  const isHeard = able.some((one) => one.id === own);
  return (
    <section aria-label="Hands-free" className="mt-3 border border-ink p-3">
      <h2>Air and water, hands-free</h2>
      <p className="max-w-[66ch]">
        It says what to do, takes each reading as soon as it rests, and sounds a tone. The first test and the
        comparison side by side come out of the same pass.
      </p>
      {able.length > 1 && isHeard && (
        <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1">
          <span className="text-soft">Together with</span>
          {able
            .filter((one) => one.id !== own)
            .map((one) => (
              <Check
                key={one.id}
                checked={others.has(one.id)}
                onChange={(on) =>
                  setOthers((held) => {
                    const next = new Set(held);
                    if (on) next.add(one.id);
                    else next.delete(one.id);
                    return next;
                  })
                }
              >
                {channelName(garden, one)}
              </Check>
            ))}
          <Button
            look="quiet"
            onClick={() => setOthers(new Set(able.map((one) => one.id)))}
          >{`all ${able.length}`}</Button>
        </div>
      )}
      <Button look="primary" className="mt-2" disabled={!isHeard} onClick={() => onBegin(chosen)}>
        {chosen.length > 1 ? `Start with ${chosen.length} probes` : 'Start hands-free'}
      </Button>
      {!isHeard && (
        <p className="mt-1 text-soft">
          No reading of {parts.probe?.label} comes in. Connect the board first.
        </p>
      )}
    </section>
  );
}
