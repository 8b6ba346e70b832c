import { useState } from 'react';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';
import { useKeys } from '../../../ui/keys.ts';
import type { PresentValue } from '@plain-trowel/core/signal/presentValue';
import type { Stretch } from '@plain-trowel/core/signal/streamBuffer';

export type Hold = {
  /** What the sheet shows: as it is, or as it was when it was held. */
  readonly present: PresentValue | null;
  /** The newest stretch of the stream, so many ms of the source's clock long. */
  readonly stretchOf: (lengthMs: number) => Stretch;
  readonly held: boolean;
  readonly toggle: () => void;
};

/** Longest stretch that the strip can show, ms of the source's clock. */
const LONGEST_MS = 3_600_000;
const NOTHING: Stretch = { timesMs: new Float64Array(0), values: new Float64Array(0) };

/** Holds the picture still while readings go on being taken and recorded. */
export function useHold(channelId: string): Hold {
  const live = useLive();
  const { session } = useLiveTools();
  const [frozen, setFrozen] = useState<{ present: PresentValue | null; stretch: Stretch } | null>(null);
  const present = live.present.get(channelId) ?? null;
  const liveStretch = (lengthMs: number) => {
    const buffer = session.bufferOf(channelId);
    const last = buffer?.last();
    return buffer && last ? buffer.since(last.timeMs - lengthMs) : NOTHING;
  };
  const toggle = () => setFrozen((before) => (before ? null : { present, stretch: liveStretch(LONGEST_MS) }));
  useKeys([{ key: 'h', does: 'Hold the picture still, and let it run again', run: toggle }]);
  return frozen
    ? {
        present: frozen.present,
        stretchOf: (lengthMs) => newestOf(frozen.stretch, lengthMs),
        held: true,
        toggle,
      }
    : { present, stretchOf: liveStretch, held: false, toggle };
}

function newestOf(stretch: Stretch, lengthMs: number): Stretch {
  const fromMs = (stretch.timesMs.at(-1) ?? 0) - lengthMs;
  const first = Math.max(
    0,
    stretch.timesMs.findIndex((time) => time >= fromMs),
  );
  return { timesMs: stretch.timesMs.subarray(first), values: stretch.values.subarray(first) };
}
