import type { Heard } from '@plain-trowel/core/garden/bind/plotFacts';
import type { LiveSnapshot } from './liveSnapshot.ts';

/** What is heard right now, as facts about a garden are asked for. */
export const heardNow = ({ nowMs, present, answers }: LiveSnapshot): Heard => ({
  nowMs,
  newest: (channelId) => {
    const value = present.get(channelId);
    return value ? { raw: value.rawCounts, timeMs: value.atMs } : null;
  },
  isLocked: (lineId) => answers[lineId]?.isLocked ?? null,
  isOn: (lineId) => answers[lineId]?.isOn ?? false,
});
