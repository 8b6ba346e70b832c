import { BOARD_FAULTS } from '@plain-trowel/standins/board/world';
import { PROBE_FAULTS } from '@plain-trowel/standins/board/potProbe';
import { channelName } from '@plain-trowel/core/garden/bind/channels';
import { useGarden } from '../../../data/gardenContext.ts';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';
import type { Hands } from '../../../links/lineSource.ts';
import { Check } from '../../../ui/Check.tsx';
import { Field } from '../../../ui/Field.tsx';

/** Faults on demand, so that each can be seen before it happens in earnest. */
export function StandInFaults({
  hands,
  probeId,
  boardId,
}: {
  hands: Hands;
  probeId: string;
  boardId: string;
}) {
  const { session } = useLiveTools();
  const { garden } = useGarden();
  useLive();
  const then = (change: () => void) => {
    change();
    session.refresh();
  };
  return (
    <details className="mt-1 text-[14.5px]">
      <summary className="press py-1">Try a fault on the stand-in</summary>
      <div className="flex flex-wrap items-end gap-5 pt-1 pb-2">
        <Field label="The probe is">
          {(props) => (
            <select
              {...props}
              value={hands.faultOf(probeId)}
              onChange={(event) => {
                const fault = PROBE_FAULTS.find((one) => one === event.target.value) ?? 'none';
                then(() => hands.setFault(probeId, fault));
              }}
            >
              {PROBE_FAULTS.map((fault) => (
                <option key={fault} value={fault}>
                  {fault === 'none' ? 'sound' : fault}
                </option>
              ))}
            </select>
          )}
        </Field>
        <Field label="The board’s lines are">
          {(props) => (
            <select
              {...props}
              value={hands.boardFaultOf(boardId)}
              onChange={(event) => {
                const fault = BOARD_FAULTS.find((one) => one === event.target.value) ?? 'none';
                then(() => hands.setBoardFault(boardId, fault));
              }}
            >
              {BOARD_FAULTS.map((fault) => (
                <option key={fault} value={fault}>
                  {fault === 'none' ? 'sound' : fault === 'garbage' ? 'garbage (another speed)' : fault}
                </option>
              ))}
            </select>
          )}
        </Field>
        <Check checked={hands.cycling} onChange={(cycling) => then(() => hands.setCycling(cycling))}>
          Switch the probes on for 8 s, off for 4 s
        </Check>
        {garden.channels
          .filter((one) => one.quantity === 'skip switch')
          .map((one) => (
            <Check
              key={one.id}
              checked={hands.switchOf(one.id)}
              onChange={(isOn) => then(() => hands.setSwitch(one.id, isOn))}
            >
              {channelName(garden, one)} is on
            </Check>
          ))}
      </div>
    </details>
  );
}
