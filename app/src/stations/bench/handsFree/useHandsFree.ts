import { useEffect, useEffectEvent, useState } from 'react';
import {
  beginHandsFree,
  judgeSeen,
  lookHandsFree,
  type Answer,
  type HandsFree,
} from '@plain-trowel/core/handsFree/handsFree';
import { useGarden } from '../../../data/gardenContext.ts';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';
import { playTone } from '../../../ui/tone.ts';
import { seenOf } from './seen.ts';

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
