import { probeScale } from '@plain-trowel/core/garden/bind/channels';
import type { Channel, Garden, Probe } from '@plain-trowel/core/garden/document/schema';
import type { Seen } from '@plain-trowel/core/handsFree/handsFree';
import { byId } from '@plain-trowel/core/quantity/byId';
import type { LiveSession } from '../../../links/liveSession.ts';
import type { LiveSnapshot } from '../../../links/liveSnapshot.ts';
import { SPOILS } from '../../../words/headlineText.ts';

/** Which way a probe goes in water, where its kind alone decides it. */
function expects(channel: Channel, probe: Probe | undefined): Seen['expects'] {
  if (channel.quantity === 'factory moisture') return 'rising';
  if (channel.quantity === 'soil tension') return 'falling';
  return probe?.kind === 'capacitive stick' ? 'falling' : null;
}

/** What comes in of a channel at this moment, as a hands-free run judges it; null for one that the garden has not. */
export function seenOf(
  garden: Garden,
  session: LiveSession,
  live: LiveSnapshot,
  channelId: string,
): Seen | null {
  const channel = byId(garden.channels, channelId);
  if (!channel) return null;
  const { spanCounts, lowCounts, highCounts } = probeScale(garden, channel);
  return {
    channelId,
    now: live.present.get(channelId) ?? null,
    capture: session.captureOf(channelId),
    settling: live.settling.get(channelId) ?? null,
    isSpoilt: (live.faults.get(channelId) ?? []).some(({ kind }) => SPOILS.has(kind)),
    spanCounts,
    lowCounts,
    highCounts,
    expects: expects(channel, byId(garden.probes, channel.probeId)),
  };
}
