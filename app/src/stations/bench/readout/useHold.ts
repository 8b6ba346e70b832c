import { useState } from 'react';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';
import { useKeys } from '../../../ui/keys.ts';
import type { PresentValue } from '@plain-trowel/core/signal/presentValue';
import type { Stretch } from '@plain-trowel/core/signal/streamBuffer';

export type Hold = {
  /** What the sheet shows: as it is, or as it was when it was held. */
  readonly present: PresentValue | null;
  readonly stretch: Stretch;
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
  const now = () => {
    const buffer = session.bufferOf(channelId);
    const lastMs = buffer?.last()?.timeMs ?? 0;
    return {
      present: live.present.get(channelId) ?? null,
      stretch: buffer?.since(lastMs - LONGEST_MS) ?? NOTHING,
    };
  };
  const toggle = () => setFrozen((before) => (before ? null : now()));
  useKeys([{ key: 'h', does: 'Hold the picture still, and let it run again', run: toggle }]);
  return { ...(frozen ?? now()), held: frozen !== null, toggle };
}
