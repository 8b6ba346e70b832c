import { useState, type ReactNode } from 'react';
import type { Channel } from '@plain-trowel/core/garden/document/schema';
import { ChartHands } from './ChartHands.tsx';
import { CursorValues } from './CursorValues.tsx';
import type { LogScale } from './logDrawing.ts';
import type { StretchTools } from './useStretch.ts';

/** The chart under the hand with what was read where it points. The moment is held here, so that nothing else of the sheet is drawn again while the hand moves. */
export function PointedChart({
  tools,
  channels,
  scale,
  fromMs,
  toMs,
  children,
}: {
  tools: StretchTools;
  channels: readonly Channel[];
  scale: LogScale;
  fromMs: number;
  toMs: number;
  children: ReactNode;
}) {
  const [atMs, setAt] = useState<number | null>(null);
  return (
    <>
      <ChartHands tools={tools} point={atMs} onPoint={setAt}>
        {children}
      </ChartHands>
      <CursorValues channels={channels} atMs={atMs} fromMs={fromMs} toMs={toMs} scale={scale} />
    </>
  );
}
