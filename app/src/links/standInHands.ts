import type { EventDraft } from '@plain-trowel/core/records/event';
import type { Setup } from '@plain-trowel/standins/board/setup';
import type { World, WorldEdit } from '@plain-trowel/standins/board/world';
import type { Hands } from './lineSource.ts';

/** Where the made-up world is, whoever runs it. */
export type Bench = {
  readonly world: () => World;
  readonly setup: () => Setup;
  readonly edit: (edit: WorldEdit) => void;
  readonly tell: (event: EventDraft) => void;
};

/** What hands can do in a made-up world; pouring and moving a probe are told to the log. */
export function handsOf({ world, setup, edit, tell }: Bench): Hands {
  const common = () => ({ atMs: world().timeMs, simulated: true });
  return {
    pour: (plotId, volumeMl) => {
      edit({ kind: 'pour', plotId, volumeMl });
      tell({ ...common(), kind: 'poured', volumeMl, plotId });
    },
    move: (probeId, place) => {
      edit({ kind: 'move', probeId, place });
      if (place === 'hand') return; // a touch is no event for the season's log
      const plotId = setup().channels.find((one) => one.probeId === probeId)?.plotId;
      if (plotId) tell({ ...common(), kind: 'probe-moved', to: place, plotId });
    },
    placeOf: (probeId) => world().probes[probeId]?.place ?? 'soil',
    fill: (tankId, share) => edit({ kind: 'fill', tankId, share }),
    faultOf: (probeId) => world().probes[probeId]?.fault ?? 'none',
    setFault: (probeId, fault) => edit({ kind: 'probe-fault', probeId, fault }),
    switchOf: (channelId) => world().switches[channelId] ?? false,
    setSwitch: (channelId, isOn) => edit({ kind: 'switch', channelId, isOn }),
    boardFaultOf: (boardId) => world().boardFaults[boardId] ?? 'none',
    setBoardFault: (boardId, fault) => edit({ kind: 'board-fault', boardId, fault }),
    get cycling() {
      return world().cyclingSinceMs !== null;
    },
    setCycling: (isOn) => edit({ kind: 'cycling', isOn }),
  };
}
