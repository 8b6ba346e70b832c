import { useState } from 'react';
import { byId } from '@plain-trowel/core/quantity/byId';
import { channelName } from '@plain-trowel/core/garden/bind/channels';
import { removeChannel } from '@plain-trowel/core/garden/edits/bench';
import { useGarden } from '../../../../data/gardenContext.ts';
import { Button } from '../../../../ui/Button.tsx';
import { Field } from '../../../../ui/Field.tsx';

/** Takes a channel that was named wrongly out of the garden; what was recorded of it stays. */
export function RemoveChannel() {
  const { garden, commit } = useGarden();
  const [chosen, setChosen] = useState('');
  const channel = byId(garden.channels, chosen) ?? garden.channels[0];
  if (!channel) return null;
  const name = channelName(garden, channel);
  const isLast = garden.channels.filter((one) => one.probeId === channel.probeId).length === 1;
  const remove = () =>
    void commit(
      `remove channel ${name}`,
      (before) => ({ garden: removeChannel(before, channel.id) }),
      `${name} was removed. Its readings stay in the log.`,
    );
  return (
    <details className="mt-4 border-t border-rule pt-2">
      <summary className="press py-1">Remove a channel that was named wrongly</summary>
      <div className="mt-1 flex flex-wrap items-end gap-4">
        <Field label="Channel" className="w-[260px]">
          {(props) => (
            <select {...props} value={channel.id} onChange={(event) => setChosen(event.target.value)}>
              {garden.channels.map((one) => (
                <option key={one.id} value={one.id}>
                  {channelName(garden, one)}
                  {one.streamName === '' ? '' : `, printed as “${one.streamName}”`}
                </option>
              ))}
            </select>
          )}
        </Field>
        <Button onClick={remove}>Remove {name}</Button>
      </div>
      <p className="mt-1 max-w-[66ch] text-[14px] text-soft">
        {channel.probeId !== null && isLast
          ? 'It is the only one of its probe, which goes with it, and so do its calibrations. '
          : channel.calibrationId !== null
            ? 'Its calibrations go with it. '
            : ''}
        The name that the board prints is then asked about again. Undo brings all of it back.
      </p>
    </details>
  );
}
