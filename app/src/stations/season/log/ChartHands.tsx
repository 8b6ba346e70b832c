import { useEffect, useRef, type ReactNode } from 'react';
import { AXIS_PX } from '../../../charts/axis.ts';
import { keyAction, type StretchTools } from './useStretch.ts';

/** Room that charts leave at their right. */
const RIGHT_PX = 4;
const CURSOR_KEYS: Readonly<Record<string, number>> = { ArrowLeft: -0.01, ArrowRight: 0.01 };
/** What one notch of a wheel zooms by, px. */
const NOTCH_PX = 300;

/** The chart under the hand: dragged it moves through time, with Ctrl and the wheel or two fingers it zooms, pointed at it tells; the keys do the same. */
export function ChartHands({
  tools,
  point,
  onPoint,
  children,
}: {
  readonly tools: StretchTools;
  /** What is pointed at, ms since 1970; null: nothing. */
  readonly point: number | null;
  readonly onPoint: (atMs: number | null) => void;
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
    return Math.min(
      1,
      Math.max(0, (clientX - box.left - AXIS_PX) / Math.max(1, box.width - AXIS_PX - RIGHT_PX)),
    );
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
  const spanMs = tools.toMs - tools.fromMs;
  const pointAt = (clientX: number) => onPoint(tools.fromMs + shareAt(clientX) * spanMs);
  /** By a share of what is drawn, from where it is or from the newest. */
  const step = (share: number) => {
    const from = point ?? tools.toMs;
    onPoint(Math.min(tools.toMs, Math.max(tools.fromMs, from + share * spanMs)));
  };
  const cursorShare = point === null ? null : (point - tools.fromMs) / spanMs;
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
      aria-label="Chart: left and right move through time, with Shift the cursor, plus and minus zoom, End goes to the newest"
      tabIndex={0}
      className="relative cursor-grab touch-pan-y select-none active:cursor-grabbing"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        held.current.set(event.pointerId, event.clientX);
        pointAt(event.clientX);
      }}
      onPointerMove={(event) => {
        if (held.current.size === 0) pointAt(event.clientX);
        else drag(event.pointerId, event.clientX);
      }}
      onPointerLeave={(event) => {
        // A finger that is lifted leaves as well: what it pointed at stays.
        if (event.pointerType === 'mouse') onPoint(null);
      }}
      onPointerUp={(event) => held.current.delete(event.pointerId)}
      onPointerCancel={(event) => held.current.delete(event.pointerId)}
      onKeyDown={(event) => {
        const turn = event.shiftKey ? CURSOR_KEYS[event.key] : undefined;
        if (turn !== undefined || (event.key === 'Escape' && point !== null)) {
          event.preventDefault();
          if (turn === undefined) onPoint(null);
          else step(turn);
          return;
        }
        const act = keyAction(event.key, tools);
        if (!act) return;
        event.preventDefault();
        act();
      }}
    >
      {children}
      {cursorShare !== null && cursorShare >= 0 && cursorShare <= 1 && (
        <span
          aria-hidden
          className="pointer-events-none absolute top-1.5 bottom-8 w-px bg-handle"
          style={{ left: `calc(${AXIS_PX}px + ${cursorShare} * (100% - ${AXIS_PX + RIGHT_PX}px))` }}
        />
      )}
    </div>
  );
}
