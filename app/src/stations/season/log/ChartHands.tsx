import { useEffect, useRef, type ReactNode } from 'react';
import { AXIS_PX } from '../../../charts/axis.ts';
import { keyAction, type StretchTools } from './useStretch.ts';

/** What one notch of a wheel zooms by, px. */
const NOTCH_PX = 300;

/** The chart under the hand: dragged it moves through time, with Ctrl and the wheel or two fingers it zooms; the keys do the same. */
export function ChartHands({
  tools,
  children,
}: {
  readonly tools: StretchTools;
  readonly children: ReactNode;
}) {
  const place = useRef<HTMLDivElement>(null);
  // Where each finger, or the mouse, was last.
  const held = useRef(new Map<number, number>());
  const latest = useRef(tools);
  useEffect(() => {
    latest.current = tools;
  });
  /** How far along the drawn time a place on the screen lies, 0 to 1. */
  const shareAt = (clientX: number) => {
    const box = place.current?.getBoundingClientRect();
    if (!box) return 0.5;
    return Math.min(1, Math.max(0, (clientX - box.left - AXIS_PX) / Math.max(1, box.width - AXIS_PX)));
  };
  useEffect(() => {
    const box = place.current;
    // A wheel alone scrolls the sheet, as everywhere.
    const turn = (event: WheelEvent) => {
      if (event.ctrlKey || event.metaKey) {
        event.preventDefault();
        latest.current.zoom(Math.exp(event.deltaY / NOTCH_PX), shareAt(event.clientX));
      } else if (Math.abs(event.deltaX) > Math.abs(event.deltaY)) {
        event.preventDefault();
        latest.current.move(event.deltaX / Math.max(1, (box?.clientWidth ?? 600) - AXIS_PX));
      }
    };
    box?.addEventListener('wheel', turn, { passive: false });
    return () => box?.removeEventListener('wheel', turn);
  }, []);
  const drag = (pointerId: number, clientX: number) => {
    const before = held.current.get(pointerId);
    if (before === undefined) return;
    const width = Math.max(1, (place.current?.clientWidth ?? 600) - AXIS_PX);
    const [other] = [...held.current].filter(([id]) => id !== pointerId);
    if (other) {
      const [from, to] = [Math.abs(before - other[1]), Math.abs(clientX - other[1])];
      if (from > 10 && to > 10) tools.zoom(from / to, shareAt((clientX + other[1]) / 2));
    } else tools.move((before - clientX) / width);
    held.current.set(pointerId, clientX);
  };
  return (
    <div
      ref={place}
      role="group"
      aria-label="Chart: left and right move through time, plus and minus zoom, End goes to the newest"
      tabIndex={0}
      className="cursor-grab touch-pan-y select-none active:cursor-grabbing"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        held.current.set(event.pointerId, event.clientX);
      }}
      onPointerMove={(event) => drag(event.pointerId, event.clientX)}
      onPointerUp={(event) => held.current.delete(event.pointerId)}
      onPointerCancel={(event) => held.current.delete(event.pointerId)}
      onKeyDown={(event) => {
        const act = keyAction(event.key, tools);
        if (!act) return;
        event.preventDefault();
        act();
      }}
    >
      {children}
    </div>
  );
}
