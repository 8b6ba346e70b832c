import { isDeciding } from '@plain-trowel/core/garden/bind/scale';
import type { Garden } from '@plain-trowel/core/garden/document/schema';

/** Probes of one kind with their moisture channels. */
export const membersOf = (garden: Garden, kind: string) =>
  garden.probes.flatMap((probe) => {
    const channel = garden.channels.find((one) => one.probeId === probe.id && isDeciding(one.quantity));
    return probe.kind === kind && channel ? [{ probe, channel }] : [];
  });

export type Member = ReturnType<typeof membersOf>[number];
