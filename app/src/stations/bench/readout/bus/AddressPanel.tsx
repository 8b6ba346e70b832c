import { useState } from 'react';
import { HIGHEST_ADDRESS, LOWEST_ADDRESS } from '@plain-trowel/core/bus/frame';
import { setBus } from '@plain-trowel/core/garden/edits/bench';
import { useGarden } from '../../../../data/gardenContext.ts';
import type { BusTarget } from '../../../../links/busDesk.ts';
import { useBus, useLiveTools } from '../../../../links/liveContext.ts';
import { Button } from '../../../../ui/Button.tsx';
import { Check } from '../../../../ui/Check.tsx';
import { NumberField } from '../../../../ui/NumberField.tsx';

/** Gives a probe another address. Only one may hang on the bus, or all with the old address take the new one. */
export function AddressPanel({
  target,
  onChanged,
}: {
  target: BusTarget;
  onChanged: (address: number) => void;
}) {
  const { garden, commit } = useGarden();
  const { bus } = useLiveTools();
  const state = useBus();
  const [to, setTo] = useState(2);
  const [alone, setAlone] = useState(false);
  const own = target.map.address;
  if (!own)
    return (
      <p className="mt-3 text-soft">
        This register map has no place for an address, so it cannot be changed here.
      </p>
    );
  const change = async () => {
    await bus.changeAddress(target, to);
    if (bus.getSnapshot().issue) return;
    setAlone(false);
    onChanged(to);
    const probe = garden.probes.find((one) => one.bus?.address === target.address);
    const known = probe?.bus;
    if (known)
      await commit(
        `address of ${probe.label}`,
        (before) => ({ garden: setBus(before, probe.id, { ...known, address: to, mapId: target.map.id }) }),
        `${probe.label} has address ${to} now.`,
      );
  };
  return (
    <details className="mt-3 border-t border-rule pt-2">
      <summary className="press py-1">Change the address</summary>
      <p className="border-l-[3px] border-handle pl-3">
        <b className="font-semibold">Only one probe may be connected.</b> Two with the same address would both
        take the new one and could not be told apart any more. Unplug the others first.
      </p>
      <div className="mt-2 flex flex-wrap items-end gap-4">
        <div className="w-[170px]">
          <NumberField
            label={`New address, now ${target.address}`}
            unit=""
            value={to}
            least={LOWEST_ADDRESS}
            most={HIGHEST_ADDRESS}
            whole
            onKeep={setTo}
          />
        </div>
        <Check checked={alone} onChange={setAlone}>
          It is the only one on the bus
        </Check>
        <Button
          disabled={!alone || state.working !== null || to === target.address}
          onClick={() => void change()}
        >
          Write the address
        </Button>
      </div>
    </details>
  );
}
