import { lazy, Suspense, useState } from 'react';
import { BUILT_IN_MAPS, mapOf } from '@plain-trowel/core/bus/registers';
import { HIGHEST_ADDRESS, LOWEST_ADDRESS } from '@plain-trowel/core/bus/frame';
import { useGarden } from '../../../../data/gardenContext.ts';
import { useBus, useLiveTools } from '../../../../links/liveContext.ts';
import { Button } from '../../../../ui/Button.tsx';
import { Field } from '../../../../ui/Field.tsx';
import { NumberField } from '../../../../ui/NumberField.tsx';
import { busIssueText } from '../../../../words/busText.ts';
import { AddressPanel } from './AddressPanel.tsx';
import { BusActions } from './BusActions.tsx';
import { BusDrawing } from './BusDrawing.tsx';
import { busMembers } from './busMembers.ts';
import { BusConnect } from './BusConnect.tsx';
import { BusValues } from './BusValues.tsx';
import { FrameTable } from './FrameTable.tsx';

const MapDialog = lazy(() => import('./MapDialog.tsx'));

/** The bus desk: one probe at a time is read, tested, given its address; all of the garden's are polled. */
export function BusView() {
  const { garden } = useGarden();
  const { bus } = useLiveTools();
  const state = useBus();
  const first = garden.probes.find((one) => one.bus)?.bus;
  const [address, setAddress] = useState(first?.address ?? 1);
  const [editing, setEditing] = useState(false);
  const [mapId, setMapId] = useState(first?.mapId ?? 'two');
  const map = mapOf(garden.registerMaps, mapId) ?? BUILT_IN_MAPS[0];
  if (!map) return null;
  if (state.label === null) return <BusConnect mapId={mapId} />;
  const target = { address, map };
  const maps = [
    ...garden.registerMaps,
    ...BUILT_IN_MAPS.filter((one) => !garden.registerMaps.some((own) => own.id === one.id)),
  ];
  return (
    <>
      <div className="flex flex-wrap items-end gap-4">
        <p className="mr-auto text-[14.5px]">
          <b className="font-semibold">{state.label}</b>{' '}
          <button
            type="button"
            className="press underline underline-offset-4"
            onClick={() => void bus.disconnect()}
          >
            Disconnect
          </button>
        </p>
        <div className="w-[120px]">
          <NumberField
            label="Address"
            unit=""
            value={address}
            least={LOWEST_ADDRESS}
            most={HIGHEST_ADDRESS}
            whole
            onKeep={setAddress}
          />
        </div>
        <Field label="Register map" className="w-[260px]">
          {(props) => (
            <select {...props} value={map.id} onChange={(event) => setMapId(event.target.value)}>
              {maps.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
            </select>
          )}
        </Field>
        <Button look="quiet" onClick={() => setEditing(true)}>
          Own map
        </Button>
        <Button look="primary" disabled={state.working !== null} onClick={() => void bus.read(target)}>
          Read once
        </Button>
      </div>
      {state.issue && (
        <p role="alert" className="mt-3 border-l-[3px] border-handle pl-3">
          {busIssueText(state.issue)}
        </p>
      )}
      <BusDrawing members={busMembers(garden)} state={state} />
      <BusValues state={state} />
      <BusActions target={target} onFound={setAddress} />
      <AddressPanel target={target} onChanged={setAddress} />
      {editing && (
        <Suspense>
          <MapDialog
            map={map}
            onClose={() => setEditing(false)}
            onKept={(kept) => {
              setMapId(kept);
              setEditing(false);
            }}
          />
        </Suspense>
      )}
      {state.last && <FrameTable exchange={state.last} />}
    </>
  );
}
