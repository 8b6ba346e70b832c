import { byId } from '@plain-trowel/core/quantity/byId';
import { useState } from 'react';
import { channelName, fullScaleOf, meantValue } from '@plain-trowel/core/garden/bind/channels';
import { readsCounts } from '@plain-trowel/core/garden/bind/scale';
import type { Channel } from '@plain-trowel/core/garden/document/schema';
import { formatCounts } from '@plain-trowel/core/quantity/format';
import { isTemperature } from '@plain-trowel/core/quantity/quantities';
import { workCorrection } from '@plain-trowel/core/temperature/correction';
import { WorkedNumber } from '../../../../frame/WorkedNumber.tsx';
import { useGarden } from '../../../../data/gardenContext.ts';
import { useLive, useLiveTools } from '../../../../links/liveContext.ts';
import { Button } from '../../../../ui/Button.tsx';
import { Scroll } from '../../../../ui/Scroll.tsx';
import { CorrectionPanel } from './CorrectionPanel.tsx';
import { NightPanel } from './NightPanel.tsx';
import { TensionForm } from './TensionForm.tsx';

const GROUPS = [
  { name: 'Soil temperature', has: (one: Channel) => one.quantity === 'soil temperature' },
  { name: 'Air temperature', has: (one: Channel) => one.quantity === 'air temperature' },
  { name: 'Tensiometer', has: (one: Channel) => one.quantity === 'soil tension' },
  {
    name: 'Battery, tank',
    has: (one: Channel) => ['battery voltage', 'distance', 'level', 'weight'].includes(one.quantity),
  },
] as const;

/** Thermometers, soil and air apart, tensiometers, the battery monitor and the tank: what they say and how they are corrected. */
export function WarmthView() {
  const { garden } = useGarden();
  const [openId, setOpenId] = useState<string | null>(null);
  const open = byId(garden.channels, openId);
  const groups = GROUPS.map((group) => ({ ...group, channels: garden.channels.filter(group.has) }));
  if (groups.every((group) => group.channels.length === 0))
    return (
      <p className="max-w-[60ch]">
        No thermometer, tensiometer, battery or tank is known yet. When a board prints one, say what it is
        under All channels.
      </p>
    );
  return (
    <>
      {groups.map(
        (group) =>
          group.channels.length > 0 && (
            <section key={group.name} aria-label={group.name} className="mb-4">
              <h2 className="label border-b border-rule pb-1">{group.name}</h2>
              <Scroll label={group.name}>
                <table>
                  <thead>
                    <tr>
                      <th>Channel</th>
                      <th className="text-right">Now</th>
                      <th className="text-right">As printed</th>
                      <th className="pl-4">Corrected by</th>
                      <th>Change</th>
                    </tr>
                  </thead>
                  <tbody>
                    {group.channels.map((channel) => (
                      <Row
                        key={channel.id}
                        channel={channel}
                        onCorrect={() => setOpenId(channel.id === openId ? null : channel.id)}
                      />
                    ))}
                  </tbody>
                </table>
              </Scroll>
            </section>
          ),
      )}
      {open?.quantity === 'soil tension' && (
        <TensionForm key={open.id} channel={open} onDone={() => setOpenId(null)} />
      )}
      {open && open.quantity !== 'soil tension' && (
        <CorrectionPanel key={open.id} channel={open} onDone={() => setOpenId(null)} />
      )}
      {garden.channels.some(({ quantity }) => isTemperature(quantity)) && <NightPanel />}
    </>
  );
}

const HOW = {
  none: 'nothing yet',
  offset: 'an offset',
  line: 'gain and offset',
  thermistor: 'its curve',
} as const;

function Row({ channel, onCorrect }: { channel: Channel; onCorrect: () => void }) {
  const { garden } = useGarden();
  const { session } = useLiveTools();
  useLive();
  const raw = session.bufferOf(channel.id)?.last()?.value;
  const meant = raw === undefined ? null : meantValue(garden, channel, raw);
  const { correction } = channel;
  const isTension = channel.quantity === 'soil tension';
  const mayCorrect = isTension || isTemperature(channel.quantity) || channel.quantity === 'battery voltage';
  const title = channelName(garden, channel);
  return (
    <tr>
      <td>{title}</td>
      <td className="text-right text-[17px]">
        {raw === undefined || !meant ? (
          <span className="text-soft">nothing yet</span>
        ) : meant.value === null ? (
          <b className="font-semibold text-handle">at the rail: open or shorted</b>
        ) : (
          <WorkedNumber
            id={`meant ${channel.id}`}
            worked={workCorrection(correction, raw, {
              fullScaleCounts: fullScaleOf(garden, channel),
              title,
              unit: meant.unit,
              decimals: meant.decimals,
              ...(readsCounts(channel) ? { readUnit: 'counts' } : {}),
            })}
          />
        )}
      </td>
      <td className="num text-right">{raw === undefined ? '–' : formatCounts(raw)}</td>
      <td className="pl-4">
        {HOW[correction.kind]}
        {correction.kind !== 'none' && (
          <span className="block text-[12.5px] text-soft">{correction.against}</span>
        )}
      </td>
      <td>
        {mayCorrect && (
          <Button look="quiet" onClick={onCorrect}>
            Correct it
          </Button>
        )}
      </td>
    </tr>
  );
}
