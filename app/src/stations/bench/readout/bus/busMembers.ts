import { mapOf, type RegisterMap } from '@plain-trowel/core/bus/registers';
import type { Garden } from '@plain-trowel/core/garden/document/schema';
import type { BusSnapshot } from '../../../../links/busDesk.ts';

/** A probe of the garden that hangs on the bus. */
export type BusMember = {
  readonly address: number;
  readonly map: RegisterMap;
  readonly label: string;
  readonly boardId: string;
};

export const busMembers = (garden: Garden): BusMember[] =>
  garden.probes.flatMap((probe) => {
    const map = probe.bus && mapOf(garden.registerMaps, probe.bus.mapId);
    const boardId = garden.channels.find((one) => one.probeId === probe.id)?.boardId;
    return probe.bus && map && boardId !== undefined
      ? [{ address: probe.bus.address, map, label: probe.label, boardId }]
      : [];
  });

/** The address that was asked last; null before the first question. */
export const addressOf = ({ last }: BusSnapshot): number | null => last?.request.address ?? null;
