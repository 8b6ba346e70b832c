import { byId } from '@plain-trowel/core/quantity/byId';
import { useState } from 'react';
import { channelName } from '@plain-trowel/core/garden/bind/channels';
import { copyToSister } from '@plain-trowel/core/garden/edits/calibrations';
import type { PlotParts } from '@plain-trowel/core/garden/bind/plotParts';
import type { Calibration } from '@plain-trowel/core/garden/document/schema';
import { useGarden } from '../../../../data/gardenContext.ts';
import { Button } from '../../../../ui/Button.tsx';
import { Field } from '../../../../ui/Field.tsx';

/** A sister probe of the same kind may begin with this calibration; it stays marked as a guess until its own is made. */
export function SisterCopy({ parts, calibration }: { parts: PlotParts; calibration: Calibration }) {
  const { garden, commit } = useGarden();
  const sisters = garden.channels.filter((channel) => {
    const probe = byId(garden.probes, channel.probeId);
    const board = byId(garden.boards, channel.boardId);
    // Raw counts of another converter or supply are other numbers.
    return (
      board?.supplyV === parts.board?.supplyV &&
      board?.adcBits === parts.board?.adcBits &&
      channel.id !== calibration.channelId &&
      channel.quantity === 'moisture' &&
      probe?.kind === parts.probe?.kind
    );
  });
  const [channelId, setChannel] = useState('');
  const chosen = byId(sisters, channelId) ?? sisters[0];
  if (!chosen) return null;
  const copy = () =>
    void commit(
      `copy a calibration to ${channelName(garden, chosen)}`,
      (before) => ({
        garden:
          copyToSister(before, calibration.id, chosen.id, {
            random: Math.random,
            nowIso: new Date().toISOString(),
          })?.garden ?? before,
      }),
      `${channelName(garden, chosen)} reads by a guess now, and says so on every sheet.`,
    );
  return (
    <section
      aria-label="Copy to a sister probe"
      className="mt-5 flex flex-wrap items-end gap-x-4 gap-y-2 border-t border-rule pt-3"
    >
      <div className="mr-auto max-w-[52ch]">
        <h2>A start for a sister probe</h2>
        <p className="text-[14.5px] text-soft">
          Probes of one kind differ by a tenth of their range. Copied, it is a guess to begin with, and marked
          as one until the sister has its own.
        </p>
      </div>
      <Field label="To" className="w-[150px]">
        {(props) => (
          <select {...props} value={chosen.id} onChange={(event) => setChannel(event.target.value)}>
            {sisters.map((one) => (
              <option key={one.id} value={one.id}>
                {channelName(garden, one)}
              </option>
            ))}
          </select>
        )}
      </Field>
      <Button onClick={copy}>Copy as a guess</Button>
    </section>
  );
}
