import { useState } from 'react';
import { USUAL_SPEED } from '@plain-trowel/core/bus/timing';
import type { RegisterMap } from '@plain-trowel/core/bus/registers';
import { addBusProbe } from '@plain-trowel/core/garden/edits/bench';
import { useGarden } from '../../../../data/gardenContext.ts';
import { useBus } from '../../../../links/liveContext.ts';
import { usePlotScope } from '../../../../frame/usePlotScope.ts';
import { Button } from '../../../../ui/Button.tsx';
import { busMembers } from './busMembers.ts';

/** Probes that answered and that the garden does not know yet: each into its plot with one press, so that polling feeds its channels. */
export function FoundProbes({ addresses, map }: { addresses: readonly number[]; map: RegisterMap }) {
  const { garden } = useGarden();
  const known = new Set(busMembers(garden).map((one) => one.address));
  const strangers = addresses.filter((address) => !known.has(address));
  if (strangers.length === 0 || garden.plots.length === 0) return null;
  return (
    <ul className="mt-2" aria-label="Probes that the garden does not know yet">
      {strangers.map((address) => (
        <Stranger key={address} address={address} map={map} />
      ))}
    </ul>
  );
}

function Stranger({ address, map }: { address: number; map: RegisterMap }) {
  const { garden, commit } = useGarden();
  const { baud } = useBus();
  const scope = usePlotScope();
  const [plotId, setPlotId] = useState(scope ?? garden.plots[0]?.id ?? '');
  const [boardId, setBoardId] = useState(garden.boards[0]?.id ?? '');
  const labels = new Set(garden.probes.map((one) => one.label));
  let number = 1;
  while (labels.has(`B${number}`)) number += 1;
  const label = `B${number}`;
  const take = () =>
    void commit(
      `${label} on the bus`,
      (before) => ({
        garden: addBusProbe(
          before,
          { plotId, boardId, label, colour: 'none', depthCm: 10, address, baud: baud ?? USUAL_SPEED, map },
          Math.random,
        ),
      }),
      `${label} is in the garden at address ${address}. Poll, and its channels fill.`,
    );
  const select = (
    name: string,
    value: string,
    list: readonly { id: string; name: string }[],
    set: (id: string) => void,
  ) => (
    <select
      aria-label={`${name} of the probe at address ${address}`}
      className="field"
      value={value}
      onChange={(event) => set(event.target.value)}
    >
      {list.map((one) => (
        <option key={one.id} value={one.id}>
          {one.name}
        </option>
      ))}
    </select>
  );
  if (boardId === '') return null;
  return (
    <li className="flex flex-wrap items-center gap-3 border-b border-rule py-1.5">
      <span>
        Address <b className="num">{address}</b> as {label} in
      </span>
      {select('Plot', plotId, garden.plots, setPlotId)}
      {garden.boards.length > 1 && (
        <>
          <span>read by</span>
          {select('Board', boardId, garden.boards, setBoardId)}
        </>
      )}
      <Button onClick={take}>Take it in</Button>
    </li>
  );
}
