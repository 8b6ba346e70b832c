import { useState } from 'react';
import { channelName, meantValue } from '@plain-trowel/core/garden/bind/channels';
import type { Channel } from '@plain-trowel/core/garden/document/schema';
import { formatDuration } from '@plain-trowel/core/quantity/format';
import { useGarden } from '../../../../data/gardenContext.ts';
import { useLive, useLiveTools } from '../../../../links/liveContext.ts';
import { Button } from '../../../../ui/Button.tsx';
import { Choice } from '../../../../ui/Choice.tsx';
import { useKeys } from '../../../../ui/keys.ts';
import { ChannelStrip } from './ChannelStrip.tsx';
import { RemoveChannel } from './RemoveChannel.tsx';
import { NewNames } from './NewNames.tsx';
import { shownUnit } from '@plain-trowel/core/quantity/units';

const SHORTEST_MS = 10_000;
const WINDOWS_S = [60, 600, 3600] as const;

/** Every channel as a small strip on one time axis; units apart, each can be held. */
export function ChannelsView() {
  const { garden } = useGarden();
  const live = useLive();
  const { session } = useLiveTools();
  const [windowS, setWindowS] = useState<number>(60);
  const [held, setHeld] = useState<ReadonlyMap<string, number>>(new Map());
  const toMs = live.nowMs;
  // While little has come in, the strips begin with the first reading instead of standing empty.
  const firstMs = Math.min(
    ...garden.channels.flatMap(
      (one) => session.bufferOf(one.id)?.since(toMs - windowS * 1000).timesMs[0] ?? [],
    ),
    toMs - SHORTEST_MS,
  );
  const windowMs = Math.min(windowS * 1000, toMs - firstMs);
  const groups = byUnit(
    garden.channels.map((channel) => ({
      channel,
      unit: shownUnit(garden.units, meantValue(garden, channel, 0).unit).unit,
    })),
  );
  const holdAll = () =>
    setHeld((before) =>
      before.size > 0 ? new Map() : new Map(garden.channels.map((one) => [one.id, toMs])),
    );
  const toggle = (id: string) =>
    setHeld((before) => {
      const next = new Map(before);
      if (!next.delete(id)) next.set(id, toMs);
      return next;
    });
  useKeys([{ key: 'h', does: 'Hold every strip still, and let them run again', run: holdAll }]);
  return (
    <>
      <div className="flex flex-wrap items-center justify-between gap-3">
        <Button look={held.size > 0 ? 'primary' : 'plain'} hint="H" onClick={holdAll}>
          {held.size > 0 ? 'Let all run' : 'Hold all'}
        </Button>
        <Choice
          legend="Length of the strips"
          options={WINDOWS_S.map((value) => ({ value, label: formatDuration(value) }))}
          value={windowS}
          onChange={setWindowS}
        />
      </div>
      {[...groups].map(([unit, channels]) => (
        <section key={unit} aria-label={unit} className="mt-4">
          <h2 className="label border-b border-rule pb-1">{unit}</h2>
          <ul>
            {channels.map((channel) => (
              <ChannelStrip
                key={channel.id}
                channel={channel}
                name={channelName(garden, channel)}
                windowMs={windowMs}
                toMs={held.get(channel.id) ?? toMs}
                held={held.has(channel.id)}
                onHold={() => toggle(channel.id)}
              />
            ))}
          </ul>
        </section>
      ))}
      <NewNames />
      <RemoveChannel />
    </>
  );
}

function byUnit(channels: readonly { channel: Channel; unit: string }[]): Map<string, Channel[]> {
  const groups = new Map<string, Channel[]>();
  for (const { channel, unit } of channels) groups.set(unit, [...(groups.get(unit) ?? []), channel]);
  return groups;
}
