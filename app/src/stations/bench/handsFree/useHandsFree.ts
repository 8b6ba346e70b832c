import { useEffect, useEffectEvent, useState } from 'react';
import {
  beginHandsFree,
  judgeSeen,
  lookHandsFree,
  type Answer,
  type HandsFree,
  type Seen,
} from '@plain-trowel/core/handsFree/handsFree';
import { probeScale } from '@plain-trowel/core/garden/bind/channels';
import type { Channel, Garden, Probe } from '@plain-trowel/core/garden/document/schema';
import { byId } from '@plain-trowel/core/quantity/byId';
import { useGarden } from '../../../data/gardenContext.ts';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';
import type { LiveSession } from '../../../links/liveSession.ts';
import type { LiveSnapshot } from '../../../links/liveSnapshot.ts';
import { playTone } from '../../../ui/tone.ts';
import { SPOILS } from '../../../words/headlineText.ts';

/** Which way a probe goes in water, where its kind alone decides it. */
function expects(channel: Channel, probe: Probe | undefined): Seen['expects'] {
  if (channel.quantity === 'factory moisture') return 'rising';
  if (channel.quantity === 'soil tension') return 'falling';
  return probe?.kind === 'capacitive stick' ? 'falling' : null;
}

function seenOf(garden: Garden, session: LiveSession, live: LiveSnapshot, channelId: string): Seen | null {
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

export type HandsFreeRun = {
  readonly state: HandsFree;
  readonly answers: ReadonlyMap<string, Answer>;
  readonly change: (to: (state: HandsFree) => HandsFree) => void;
};

/** A run over some channels, fed by what comes in; a tone says that a step was taken. */
export function useHandsFree(channelIds: readonly string[], hasSound: boolean): HandsFreeRun {
  const { garden } = useGarden();
  const { session } = useLiveTools();
  const live = useLive();
  const [state, setState] = useState(() => beginHandsFree(channelIds));
  const seen = state.channelIds.flatMap((id) => seenOf(garden, session, live, id) ?? []);
  const look = useEffectEvent(() => {
    const next = lookHandsFree(state, seen);
    if (next === state) return;
    setState(next);
    if (hasSound) playTone(next.step === state.step ? 660 : next.step === 'done' ? 1320 : 880);
  });
  useEffect(() => session.subscribe(() => look()), [session]);
  return {
    state,
    answers: new Map(seen.map((one) => [one.channelId, judgeSeen(state, one)])),
    change: setState,
  };
}
