/** "Dip the one you call deep": the channel that moves is the one in the hand. Catches swapped plugs and labels before anything is buried. */
export type DipChannel = {
  readonly id: string;
  /** When the question was asked, and now, counts. */
  readonly beforeCounts: number;
  readonly nowCounts: number;
  readonly noiseCounts: number;
  /** The probe's way from dry to wet, counts, > 0. */
  readonly spanCounts: number;
};

export type DipAnswer =
  | { readonly kind: 'waiting' }
  | { readonly kind: 'right' }
  | { readonly kind: 'swapped'; readonly movedId: string }
  | { readonly kind: 'several'; readonly movedIds: readonly string[] };

/** A dip moves a reading by a good part of its span; a touch or a draught does not. */
const MOVED_FRAC = 0.2;
const MOVED_NOISES = 8;
/** Another that moved at least this share as far moved too. */
const ALSO_FRAC = 0.4;

/** @param askedId the channel whose label was read out */
export function judgeDip(channels: readonly DipChannel[], askedId: string): DipAnswer {
  const moved = channels
    .map((channel) => ({
      id: channel.id,
      frac: Math.abs(channel.nowCounts - channel.beforeCounts) / channel.spanCounts,
      isSure: Math.abs(channel.nowCounts - channel.beforeCounts) > MOVED_NOISES * channel.noiseCounts,
    }))
    .filter((one) => one.isSure && one.frac > MOVED_FRAC)
    .sort((a, b) => b.frac - a.frac);
  const [first, ...others] = moved;
  if (!first) return { kind: 'waiting' };
  const also = others.filter((one) => one.frac > ALSO_FRAC * first.frac);
  if (also.length > 0) return { kind: 'several', movedIds: [first.id, ...also.map((one) => one.id)] };
  return first.id === askedId ? { kind: 'right' } : { kind: 'swapped', movedId: first.id };
}
