import { LEAST_MS, moved, zoomed, type Stretch } from '@plain-trowel/core/records/stretch';
import { useLive, useLiveTools } from '../../../links/liveContext.ts';

const HOUR_MS = 3_600_000;
const DAY_HOURS = 24;
/** Lengths that can be pressed, in hours. */
export const LENGTHS = [
  { value: 1, label: '1 h' },
  { value: 6, label: '6 h' },
  { value: DAY_HOURS, label: '24 h' },
  { value: 3 * DAY_HOURS, label: '3 d' },
  { value: 14 * DAY_HOURS, label: '14 d' },
  { value: 91 * DAY_HOURS, label: '3 months' },
  { value: 365 * DAY_HOURS, label: '1 year' },
] as const;

/** The end of what follows moves on in steps of a minute at most. */
export const MOST_STEP_MS = 60_000;
/** A share of the stretch that one press moves it by. */
const STEP = 0.5;
const ZOOM = 2;

export type StretchTools = Stretch & {
  /** It ends at the newest moment, and goes on with it. */
  readonly follows: boolean;
  /** The newest moment that can be shown. */
  readonly newestMs: number;
  /** Its length in hours where it is one of those that can be pressed; else null. */
  readonly hours: number | null;
  readonly setHours: (hours: number) => void;
  /** By a share of its length; later where it is positive. */
  readonly move: (share: number) => void;
  readonly zoom: (factor: number, place: number) => void;
  readonly show: (stretch: Stretch) => void;
  readonly toNewest: () => void;
};

/** What is held of it from plot to plot: a length up to the newest moment, or a stretch that stands still. */
export type HeldStretch = { readonly lengthMs: number; readonly fixed: Stretch | null };
export const LAST_DAY: HeldStretch = { lengthMs: DAY_HOURS * HOUR_MS, fixed: null };

/** The stretch of time that the log shows of a channel. */
export function useStretch(
  channelId: string,
  { lengthMs, fixed }: HeldStretch,
  hold: (held: HeldStretch) => void,
): StretchTools {
  const { stored } = useLiveTools();
  // Moved on in steps, so that storage is not asked ten times a second; small ones, for what is shown moves with them.
  const stepMs = Math.min(MOST_STEP_MS, Math.max(10_000, lengthMs / 200));
  const newest = stored.get(channelId)?.timeMs ?? 0;
  const newestMs = useLive(({ nowMs }) => Math.ceil(Math.max(nowMs, newest) / stepMs) * stepMs);
  const shown = fixed ?? { fromMs: newestMs - lengthMs, toMs: newestMs };
  /** What reaches the newest moment follows it again. */
  const show = (next: Stretch) => {
    const reaches = next.toMs >= newestMs;
    hold(
      reaches
        ? { lengthMs: Math.max(LEAST_MS, newestMs - next.fromMs), fixed: null }
        : { lengthMs: next.toMs - next.fromMs, fixed: next },
    );
  };
  const hours = (shown.toMs - shown.fromMs) / HOUR_MS;
  return {
    ...shown,
    follows: fixed === null,
    newestMs,
    hours: LENGTHS.some(({ value }) => value === hours) ? hours : null,
    // What stands still keeps its end, so that nothing jumps away.
    setHours: (length) => show({ fromMs: shown.toMs - length * HOUR_MS, toMs: shown.toMs }),
    move: (share) => show(moved(shown, share)),
    zoom: (factor, place) => show(zoomed(shown, factor, place)),
    show,
    toNewest: () => hold({ lengthMs, fixed: null }),
  };
}

/** What the keys of the chart do; null for every other. */
export function keyAction(key: string, tools: StretchTools): (() => void) | null {
  switch (key) {
    case 'ArrowLeft':
      return () => tools.move(-STEP / 2);
    case 'ArrowRight':
      return () => tools.move(STEP / 2);
    case 'PageUp':
      return () => tools.move(-1);
    case 'PageDown':
      return () => tools.move(1);
    case '+':
      return () => tools.zoom(1 / ZOOM, 0.5);
    case '-':
      return () => tools.zoom(ZOOM, 0.5);
    case 'End':
      return () => tools.toNewest();
    default:
      return null;
  }
}
