import { useEffect, useEffectEvent, useRef } from 'react';
import { judgeAtRest, type RestAnswer } from '@plain-trowel/core/handsFree/atRest';
import { useGarden } from '../../../data/gardenContext.ts';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';
import { seenOf } from './seen.ts';

/**
 * Takes a reading by itself, once, when it has come to rest.
 * @param others what the probe read in the other conditions, counts
 * @param isWaiting a person has said that the probe is in place
 * @returns how it stands, waited for or not; null for a channel that the garden has not
 */
export function useTakeAtRest(
  channelId: string,
  others: readonly number[],
  isWaiting: boolean,
  onTake: () => void,
): RestAnswer | null {
  const { garden } = useGarden();
  const { session } = useLiveTools();
  const live = useLive();
  const seen = seenOf(garden, session, live, channelId);
  const answer = seen && judgeAtRest(seen, others);
  const isTaken = useRef(false);
  const look = useEffectEvent(() => {
    if (!isWaiting || answer?.kind !== 'ready' || isTaken.current) return;
    isTaken.current = true;
    onTake();
  });
  useEffect(() => session.subscribe(() => look()), [session]);
  useEffect(() => {
    if (!isWaiting) isTaken.current = false;
  }, [isWaiting]);
  return answer;
}
